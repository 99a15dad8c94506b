import type { Session } from '@gravek/contract/session';
import { useParams, useSearchParams } from 'react-router';
import { useApproaches, useAthletes, useGrounds, useSession } from '../api/queries';
import { Loaded, together, Waiting } from '../controls/Notice';
import { useMember } from '../member/member';
import { Meanwhile } from './Cautions';
import { SessionBuilder } from './SessionBuilder';
import { NO_SETS } from './useSessionForm';
import { WorkedOut } from './WorkedOut';

export const SessionPage = () => {
  const { id = 'new' } = useParams();
  const session = useSession(id === 'new' ? undefined : id);
  const approaches = useApproaches();
  const athletes = useAthletes();
  const grounds = useGrounds();
  const { today } = useMember();
  const [query] = useSearchParams();
  const nothingYet = { drillSets: NO_SETS, groundId: null, date: query.get('day') ?? today };
  const ready = (found: Session | null) => {
    const ground = grounds.data?.find((ground) => ground.id === found?.groundId);
    const meanwhile = found ? (
      <Meanwhile session={found} ground={ground} />
    ) : (
      <Waiting what="Working out the session …" />
    );
    return (
      <Loaded
        query={together(approaches, athletes, grounds)}
        what="Getting the session …"
        meanwhile={meanwhile}
      >
        {([plans, people, places]) => (
          <WorkedOut
            key={id}
            session={found ?? nothingYet}
            approaches={plans}
            athletes={people}
            grounds={places}
            meanwhile={meanwhile}
          >
            <SessionBuilder session={found} approaches={plans} athletes={people} grounds={places} />
          </WorkedOut>
        )}
      </Loaded>
    );
  };
  if (id === 'new') return ready(null);
  return (
    <Loaded query={session} what="Getting the session …">
      {ready}
    </Loaded>
  );
};
