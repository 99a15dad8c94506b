import type { Session } from '@gravek/contract/session';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import { useMayPlan } from '../member/member';
import { CopyMenu } from './CopyMenu';

/** What can be done with a session: run it, print its card, copy it, put it away, save it. */
export const SessionActs = ({
  session,
  busy,
  onTemplate,
  onPutAway,
  onSave,
}: {
  /** null while it is new */
  session: Session | null;
  busy: boolean;
  onTemplate: (template: boolean) => void;
  onPutAway: () => void;
  onSave: (thenRun: boolean) => void;
}) => {
  const mayPlan = useMayPlan();
  return (
    <>
      {session && !session.archived && (
        <Link
          className={mayPlan ? 'btn btn-outline-dark' : 'btn btn-primary'}
          to={`/run/${session.id}`}
        >
          {session.logged > 0 ? 'Resume' : 'Run'}
        </Link>
      )}
      {mayPlan && (
        <>
          {session && (
            <>
              <Link className="btn btn-outline-dark" to={`/sessions/${session.id}/card`}>
                Card
              </Link>
              <CopyMenu session={session} onTemplate={onTemplate} />
            </>
          )}
          {session && (
            <Button variant="outline-dark" onClick={onPutAway}>
              Put away
            </Button>
          )}
          <Button variant="outline-dark" disabled={busy} onClick={() => onSave(true)}>
            Save and run
          </Button>
          <Button disabled={busy} onClick={() => onSave(false)}>
            {busy ? 'Saving …' : 'Save'}
          </Button>
        </>
      )}
    </>
  );
};
