import type { Athlete } from '@gravek/contract/athlete';
import type { Movement } from '@gravek/contract/movement';
import type { Rung } from '@gravek/contract/rungs';
import type { DrillSet, Work } from '@gravek/contract/drillSet';
import type { Session } from '@gravek/contract/session';
import { setOfWork } from '@gravek/library/session/setOfWork';
import { mayRun } from '@gravek/library/session/sessionFit';
import { baseOf, demandOfSet } from '@gravek/library/session/work';
import Button from 'react-bootstrap/Button';
import { v7 as uuid } from 'uuid';
import { useSessions } from '../../api/queries';
import { dayName, shift } from '../../controls/dates';
import { tell } from '../../controls/toasts';
import { useMayPlan, useMember } from '../../member/member';
import { useAddSet } from './useAddSet';

const DAYS_AHEAD = 21;

/** The session that comes next, today's included; null where none is planned. */
const useNextSession = (): Session | null => {
  const { today } = useMember();
  const sessions = useSessions(today, shift(today, DAYS_AHEAD));
  const [next] = (sessions.data ?? [])
    .filter((session) => !session.archived)
    .sort((a, b) => (a.date < b.date ? -1 : 1));
  return next ?? null;
};

/** One press puts a movement or a drill of it into the next session, for those who may do it. */
export const IntoNext = ({
  movement,
  drill,
  athletes,
  rung = null,
  ways = [],
}: {
  movement: Movement;
  /** null for the whole movement */
  drill: Movement['drills'][number] | null;
  athletes: readonly Athlete[];
  /** on which they stand, where they are on a ladder */
  rung?: Rung | null;
  /** ways of teaching that are done side by side, mixed; none leaves it as it is taught */
  ways?: readonly string[];
}) => {
  const { today } = useMember();
  const mayPlan = useMayPlan();
  const next = useNextSession();
  const { add, isPending } = useAddSet();
  if (!mayPlan || !next) return null;
  const put = async (): Promise<void> => {
    const work: Work = {
      ...{ kind: 'movement', movement: movement.code },
      drill: drill?.code ?? null,
    };
    const base = baseOf(work, { movementOf: () => movement, planOf: () => undefined });
    const fresh = setOfWork(uuid(), work, [], movement);
    // A drill that knows no such rung is done as it is written.
    const rungs = rung !== null && drill?.rungs.includes(rung) ? [rung] : fresh.vary.rungs;
    const set: DrillSet = {
      ...fresh,
      vary: { ...fresh.vary, rungs, ways: [...ways] },
      ...(ways.length > 1 && { order: 'mixed' }),
    };
    const able = mayRun(base ? demandOfSet(base, set) : [], athletes, next.date);
    if (able.length === 0) {
      tell('Nobody of them may do it: see their restrictions.');
      return;
    }
    const out = athletes.length - able.length;
    const { name } = drill ?? movement;
    await add(
      next,
      { ...set, athleteIds: able.map((athlete) => athlete.id) },
      out === 0 ? name : `${name} (without ${out} who may not)`,
    );
  };
  return (
    <Button
      size="sm"
      variant="outline-dark"
      className="ms-auto"
      disabled={isPending}
      onClick={() => void put()}
    >
      {ways.length > 1 ? 'Both into ' : 'Into '}
      {next.date === today ? 'today’s session' : dayName(next.date)}
    </Button>
  );
};
