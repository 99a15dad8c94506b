import { groupBy } from '@gravek/core/session/repLog';
import { useLiveQuery } from 'dexie-react-hooks';
import { counted } from '@gravek/core/words';
import { useTapper } from '../member/member';
import { isOf, queue } from '../phone/store';

/** What others tapped on this device and is not sent yet: it is theirs, and goes when they are signed in. */
export const OthersWaiting = () => {
  const tapper = useTapper();
  const waiting = useLiveQuery(
    () =>
      queue
        .filter((rep) => rep.accountId !== undefined && rep.accountId !== tapper.accountId)
        .filter((rep) => !isOf(rep, tapper))
        .toArray(),
    [tapper],
  );
  if (!waiting || waiting.length === 0) return null;
  return (
    <div className="note mb-3" role="status">
      {[...groupBy(waiting, ({ accountId }) => accountId!)].map(([accountId, reps]) => (
        <div key={accountId}>
          {counted(reps.length, 'rep')} of {reps[0]!.person} {reps.length === 1 ? 'waits' : 'wait'}{' '}
          on this device, to be sent when {reps[0]!.person} signs in here.
        </div>
      ))}
    </div>
  );
};
