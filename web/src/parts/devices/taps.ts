import { clockMs } from '../../controls/clock';
import { contactReadings } from './contacts';
import type { Connect } from './device';

let heard: ((atMs: number) => void) | null = null;

/** A tap as a foot lands; counts only while taps measure. */
export const tap = (): void => heard?.(clockMs());

/** Contacts marked by a thumb, one tap each. */
export const taps: Connect = ({ reading, landed }) => {
  heard = contactReadings({ reading, landed });
  return Promise.resolve({
    name: 'Taps',
    by: 'taps',
    simulated: false,
    contacts: true,
    worn: false,
    stop: () => {
      heard = null;
    },
  });
};
