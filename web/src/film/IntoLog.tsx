import { standing, wasRun } from '@gravek/core/session/repLog';
import { loggedTwice } from '@gravek/core/session/loggedTwice';
import type { Athlete } from '@gravek/contract/athlete';
import type { Movement } from '@gravek/contract/movement';
import type { StoredRep } from '@gravek/contract/session';
import { faultOf } from '@gravek/library/movement/byCode';
import { filmedRows } from '@gravek/library/field/takenBack';
import type { Reviewed } from '@gravek/library/film/reviewed';
import { sideWord } from '@gravek/library/movement/sides';
import { reactionIn } from '@gravek/library/film/watched';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { v7 as uuid } from 'uuid';
import { useSessions } from '../api/queries';
import { dayName } from '../controls/dates';
import { tell } from '../controls/toasts';
import { useTapper } from '../member/member';
import { logOf } from '../phone/store';
import { fetchLog, logReps } from '../phone/sync';
import type { Marks } from './useReview';

/** A rep as it stands, and what others have logged of the same turn, which would stand in for it. */
type Logged = StoredRep & { others: StoredRep[] };

/** Reps of the athlete in the movement that were logged in these sessions. */
const useReps = (sessionIds: readonly string[], athleteId: string, movement: string) =>
  useQuery({
    queryKey: ['log', 'film', sessionIds, athleteId, movement],
    enabled: sessionIds.length > 0,
    queryFn: async (): Promise<Logged[]> => {
      const all = await Promise.all(
        sessionIds.map(async (id) => {
          await fetchLog(id);
          return logOf(id);
        }),
      );
      return all.flatMap((log) => {
        const twice = loggedTwice(log);
        return standing(log)
          .filter((rep) => rep.athleteId === athleteId && rep.movement === movement && wasRun(rep))
          .map((rep) => ({
            ...rep,
            others: twice.flatMap(({ stands, other }) => (stands.id === rep.id ? [other] : [])),
          }));
      });
    },
  });

/** What was seen and measured goes to the rep that the film shows: it takes the place of what was logged of it. */
export const IntoLog = ({
  marks,
  reviewed,
  movement,
  athlete,
}: {
  marks: Marks;
  reviewed: Reviewed;
  movement: Movement;
  athlete: Athlete;
}) => {
  const tapper = useTapper();
  const sessions = useSessions(marks.takenOn, marks.takenOn).data ?? [];
  const reps = useReps(
    sessions.filter((session) => !session.archived).map(({ id }) => id),
    athlete.id,
    movement.code,
  );
  const [chosen, setChosen] = useState('');
  const [busy, setBusy] = useState(false);
  const list = reps.data ?? [];
  const rep = list.find(({ id }) => id === chosen);
  const reactionS =
    marks.callS === null ? null : reactionIn(marks.contacts, marks.callS, reviewed.firstStep);
  const put = async ({ others, ...before }: Logged): Promise<void> => {
    const set = sessions
      .flatMap(({ drillSets }) => drillSets)
      .find(({ id }) => id === before.drillSetId);
    if (!set) {
      tell('The drill set of this rep was deleted; nothing was logged.');
      return;
    }
    const measured = reviewed.seen
      ? {
          by: 'film' as const,
          simulated: false,
          steps: reviewed.rows.map(({ seen, planned, isTimed }) => ({
            n: planned?.n ?? null,
            lengthM: Number(seen.lengthM.toFixed(3)),
            intervalS: Number(seen.intervalS.toFixed(3)),
            plannedM: planned && Number(planned.lengthM.toFixed(3)),
            plannedS: planned && isTimed ? Number(planned.intervalS.toFixed(3)) : null,
          })),
          perMinute: false,
          course: [],
        }
      : null;
    // A second press would take back what the first has put there.
    setBusy(true);
    try {
      await logReps(
        tapper,
        filmedRows(
          set,
          [before, ...others],
          { faults: marks.faults, measured, reactionS },
          uuid,
          new Date().toISOString(),
        ),
      );
      setChosen('');
      tell('It is in the log, in place of what was logged of this rep.');
    } catch {
      tell('This device could not keep it; nothing was logged.');
    } finally {
      setBusy(false);
    }
  };
  return (
    <section aria-label="Into the log">
      <h3>Into the fault log</h3>
      {list.length === 0 ? (
        <p className="quiet small-text mb-0">
          {reps.isLoading
            ? 'Looking for the reps of that day …'
            : `No rep of ${athlete.name} in this movement was logged on ${dayName(marks.takenOn)}.`}
        </p>
      ) : (
        <div className="row-line">
          <Form.Select
            size="sm"
            aria-label="The rep that the film shows"
            value={chosen}
            onChange={(event) => setChosen(event.target.value)}
          >
            <option value="">Which rep does the film show?</option>
            {list.map((rep) => (
              <option key={rep.id} value={rep.id}>
                Set {rep.set}, rep {rep.rep}
                {rep.side === 'other' ? `, ${sideWord(movement, athlete, 'other')}` : ''}:{' '}
                {rep.faults.map((code) => faultOf(movement, code)?.name ?? code).join(', ') ||
                  'clean'}
                {rep.measured ? ' (measured)' : ''}
              </option>
            ))}
          </Form.Select>
          <Button
            size="sm"
            variant="outline-dark"
            disabled={
              busy || !rep || (marks.faults.length === 0 && !reviewed.seen && reactionS === null)
            }
            onClick={() => rep && void put(rep)}
          >
            Put it there
          </Button>
        </div>
      )}
    </section>
  );
};
