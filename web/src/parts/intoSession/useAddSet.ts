import type { DrillSet } from '@gravek/contract/drillSet';
import type { Session } from '@gravek/contract/session';
import { api, sentenceOf } from '../../api/client';
import { useWrite } from '../../api/queries';
import { tell } from '../../controls/toasts';
import { bodyOfSession } from './copySession';

/** Puts a drill set at the end of a session at once, with a way back. */
export const useAddSet = () => {
  const write = useWrite(
    (session: Session) => api.put<Session>(`/sessions/${session.id}`, bodyOfSession(session)),
    'sessions',
    'run',
  );
  const add = async (session: Session, set: DrillSet, name: string): Promise<void> => {
    try {
      const stored = await write.mutateAsync({
        ...session,
        drillSets: [...session.drillSets, set],
      });
      tell(`${name} is added to ${session.title}.`, () => {
        const drillSets = stored.drillSets.filter((other) => other.id !== set.id);
        write
          .mutateAsync({ ...stored, drillSets })
          .then(() => tell('It is taken out again.'))
          .catch((error: unknown) => tell(sentenceOf(error)));
      });
    } catch (error) {
      tell(sentenceOf(error));
    }
  };
  return { add, isPending: write.isPending };
};
