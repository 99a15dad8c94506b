import { whenIdle } from '../controls/idle';
import { queryClient } from './door';

const LOOK_MS = 1_000;
/** A page that keeps asking does not hold up for ever what makes the phone ready. */
const LOOKS = 8;

/**
 * Does what makes ready for later once the page has all that it shows: before, it would take network and processor
 * from what the coach waits for.
 */
export const whenShown = (work: () => void): void => {
  let looks = 0;
  const look = (): void => {
    looks += 1;
    if (queryClient.isFetching() > 0 && looks < LOOKS) setTimeout(look, LOOK_MS);
    else whenIdle(work);
  };
  setTimeout(look, LOOK_MS);
};
