import type { Athlete } from '@gravek/contract/athlete';
import type { Movement } from '@gravek/contract/movement';
import type { Session } from '@gravek/contract/session';
import { demandOf } from '@gravek/library/session/restrictions';
import { freshDrillSet, mayRun } from '@gravek/library/session/sessionFit';
import { Link } from 'react-router';
import { v7 as uuid } from 'uuid';
import { useSessions } from '../../api/queries';
import { Menu } from '../../controls/Menu';
import { useAddSet } from '../../parts/intoSession/useAddSet';
import { useMember } from '../../member/member';
import type { PlanDraft } from './draft';

/** Puts a plan into one of today's sessions at once, with a way back, or begins a session with it. */
export const AddToSession = ({
  plan,
  movement,
  athletes,
}: {
  plan: Pick<PlanDraft, 'id' | 'name' | 'athleteIds' | 'choices'>;
  movement: Movement;
  athletes: readonly Athlete[];
}) => {
  const { today } = useMember();
  const sessions = useSessions(today, today);
  const open = (sessions.data ?? []).filter((session) => !session.archived);
  const { add, isPending } = useAddSet();
  const addTo = (session: Session): Promise<void> => {
    const able = mayRun(demandOf(movement, plan.choices), athletes, session.date);
    const set = freshDrillSet(
      uuid(),
      { kind: 'plan', approachId: plan.id },
      able.map((athlete) => athlete.id).filter((id) => plan.athleteIds.includes(id)),
    );
    return add(session, set, plan.name);
  };
  const begin = `/sessions/new?add=${plan.id}`;
  if (open.length === 0) {
    return (
      <Link className="btn btn-outline-dark" to={begin}>
        Add to a session
      </Link>
    );
  }
  return (
    <Menu
      name={isPending ? 'Adding …' : 'Add to today’s session'}
      disabled={isPending}
      items={[
        ...open.map((session) => ({ name: session.title, onChoose: () => void addTo(session) })),
        { name: 'a new session', to: begin },
      ]}
    />
  );
};
