import type { ReadRecord } from '@gravek/contract/results';
import type { Movement } from '@gravek/contract/movement';
import { misreadMost } from '@gravek/library/cue/ledger';
import { answersRead } from '@gravek/library/field/shows';
import { exitName } from '@gravek/library/session/setWords';

/** What reads come to, in a sentence or two. */
export const readsSentence = (movement: Movement, reads: readonly ReadRecord[]): string => {
  const reps = reads.reduce((sum, read) => sum + read.reps, 0);
  const wrong = reps - reads.reduce((sum, read) => sum + read.right, 0);
  const all =
    wrong === 0
      ? `All ${reps} answered right.`
      : `${wrong} of ${reps} answered wrongly (${Math.round((wrong / reps) * 100)} %).`;
  const most = misreadMost(movement, reads);
  return most
    ? `${all} “${exitName(movement, most.asked)}” is misread most: ${most.wrong} of ${most.reps}, mostly taken as “${exitName(movement, most.taken)}”.`
    : all;
};

const Timed = ({ meanS, reps }: { meanS: number | null; reps?: number }) => (
  <td className="text-end figure">
    {meanS === null ? (
      <span className="quiet">not timed</span>
    ) : (
      <>
        {meanS.toFixed(2)}
        <span className="unit"> s</span>
        {reps !== undefined && <small className="quiet"> of {reps}</small>}
      </>
    )}
  </td>
);

/**
 * What was asked at reads against which way was taken.
 *
 * @param movement in the words that hold for whom it is of
 */
export const Reads = ({
  movement,
  reads,
}: {
  movement: Movement;
  reads: readonly ReadRecord[];
}) => {
  if (reads.length === 0) return null;
  const isTapped = reads.some(({ timed }) => timed > 0);
  // From the call to the first step that was heard, felt or filmed; a coach's tap is no reaction of the athlete.
  const isHeard = reads.some(({ heard }) => heard > 0);
  const taken = [...new Set(reads.flatMap((read) => read.taken.map(({ exit }) => exit)))].sort();
  return (
    <section className="reads" aria-label="Reads">
      <p className="mb-1">{readsSentence(movement, reads)}</p>
      <div className="table-scroll">
        <table className="grid-table reads-table">
          <caption className="visually-hidden">Which way was asked, and which was taken</caption>
          <thead>
            <tr>
              <th scope="col">Asked, and taken:</th>
              {taken.map((exit) => (
                <th key={exit} scope="col" className="text-end">
                  {exitName(movement, exit)}
                </th>
              ))}
              {isTapped && (
                <th scope="col" className="text-end">
                  to your tap
                </th>
              )}
              {isHeard && (
                <th scope="col" className="text-end">
                  reaction
                </th>
              )}
            </tr>
          </thead>
          <tbody>
            {reads.map((read) => (
              <tr key={read.exit}>
                <th scope="row">{exitName(movement, read.exit)}</th>
                {taken.map((exit) => {
                  const reps = read.taken.find((way) => way.exit === exit)?.reps ?? 0;
                  const isRight = answersRead(movement, read.exit, exit);
                  return (
                    <td
                      key={exit}
                      className={`text-end figure ${reps === 0 ? 'quiet' : isRight ? 'read-right' : 'read-wrong'}`}
                    >
                      {reps}
                      {reps > 0 && !isRight && <span className="visually-hidden"> wrong</span>}
                    </td>
                  );
                })}
                {isTapped && <Timed meanS={read.lateS} />}
                {isHeard && <Timed meanS={read.reactionS} reps={read.heard} />}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
};
