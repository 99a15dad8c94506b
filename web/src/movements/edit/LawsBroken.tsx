import type { Movement } from '@gravek/contract/movement';
import { useQuery } from '@tanstack/react-query';
import { plannerWork } from '../../parts/planning/plannerWork';
import { useSettled } from '../../controls/useSettled';

const SHOWN = 6;
/** Nobody waits for it while typing, milliseconds. */
const SETTLE_MS = 900;

/**
 * What a movement asks for that nobody can do or nobody would teach: checked for a grown right-hander and for a
 * child, on every exit, in every way of teaching and in every drill.
 */
export const LawsBroken = ({ movement }: { movement: Movement }) => {
  const settled = useSettled(JSON.stringify(movement), SETTLE_MS);
  const { data, isFetching, error } = useQuery({
    queryKey: ['laws', settled],
    queryFn: () => plannerWork().laws(JSON.parse(settled) as Movement),
    placeholderData: (before) => before,
    staleTime: Infinity,
    networkMode: 'always',
  });
  const broken = data ?? [];
  return (
    <section className="panel mt-2 mb-3" aria-label="Would a coach teach it so?">
      <h2>Would a coach teach it so?</h2>
      <div role="status">
        {error !== null
          ? 'That could not be checked. Change something, and it is tried again.'
          : isFetching || !data
            ? 'Laying it out for a grown right-hander and a child …'
            : broken.length === 0
              ? 'No foot on another, nobody run over, every drill and exit as it says.'
              : `${broken.length === 1 ? 'One thing' : `${broken.length} things`} to look at. It can be saved all the same.`}
      </div>
      {broken.length > 0 && (
        <ul className="plain-points mb-0">
          {broken.slice(0, SHOWN).map(({ sentence, where }) => (
            <li key={sentence} title={where}>
              {sentence}
            </li>
          ))}
          {broken.length > SHOWN && <li className="quiet">and {broken.length - SHOWN} more</li>}
        </ul>
      )}
    </section>
  );
};
