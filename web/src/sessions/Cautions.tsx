import type { Ground, OnGround } from '@gravek/contract/ground';
import type { Session } from '@gravek/contract/session';
import { surfaceCautions, takenFrom } from '@gravek/library/planning/onGround';
import { dayName } from '../controls/dates';
import { Waiting } from '../controls/Notice';
import { PageHead } from '../controls/PageHead';

export const Cautions = ({ on }: { on: OnGround | null }) =>
  surfaceCautions(on).map((caution) => (
    <div key={caution} className="caution small-text">
      {caution}
    </div>
  ));

/** What is known of a session before its runs are worked out. */
export const Meanwhile = ({
  session,
  ground,
}: {
  session: Session;
  ground: Ground | undefined;
}) => (
  <>
    <PageHead
      over={
        <>
          {dayName(session.date)}
          {ground ? ` · ${ground.name}` : session.place && ` · ${session.place}`}
        </>
      }
      title={session.title}
    />
    <Cautions on={ground ? takenFrom(ground) : null} />
    <Waiting what="Working out the session …" />
  </>
);
