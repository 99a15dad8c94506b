import type { Approach } from '@gravek/contract';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, fieldsOf } from '../api/client';
import { useWrite } from '../api/queries';
import { usePutAway } from '../api/usePutAway';
import { useConflict } from '../controls/Conflict';
import { useDraft } from '../controls/draft';
import { useHistory } from '../controls/history';
import { tell } from '../controls/toasts';
import type { PlanDraft } from './draft';

/**
 * A plan being worked on: its draft, which outlives a reload, and how it is saved, put away and settled
 * with what somebody else has saved meanwhile.
 *
 * @param fresh what to begin with when there is no saved plan
 * @param draftOf a saved plan as a draft
 */
export const usePlan = <D extends PlanDraft>(
  saved: Approach | null,
  fresh: D,
  draftOf: (approach: Approach) => D,
) => {
  const navigate = useNavigate();
  const [draft, setDraft, discard, found] = useDraft<D>(
    `approach.${saved?.id ?? `new.${fresh.movement}`}`,
    saved ? draftOf(saved) : fresh,
  );
  // What was saved meanwhile stays saved, however far back the plan goes.
  const { change, ...history } = useHistory(draft, (next) =>
    setDraft({ ...next, id: draft.id, version: draft.version }),
  );
  const [served, setServed] = useState<Record<string, string>>({});
  const conflict = useConflict<Approach>(
    (theirs) => discard(draftOf(theirs)),
    (version) => setDraft({ ...draft, version }),
  );
  const write = useWrite(
    (body: object) =>
      draft.version === null
        ? api.post<Approach>('/approaches', { ...body, id: draft.id })
        : api.put<Approach>(`/approaches/${draft.id}`, { ...body, version: draft.version }),
    'approaches',
    'reps',
  );
  const putAway = usePutAway('approaches');

  /** @param wrong whether a field is marked that must be mended first */
  const save = async (athleteId: string, wrong: boolean): Promise<void> => {
    conflict.clear();
    setServed({});
    if (wrong) {
      conflict.say('Mend the fields that are marked, then save.');
      return;
    }
    const athleteIds = draft.athleteIds.includes(athleteId)
      ? draft.athleteIds
      : [...draft.athleteIds, athleteId];
    const { name, movement, choices } = draft;
    try {
      const stored = await write.mutateAsync({ name, movement, choices, athleteIds });
      discard(draftOf(stored));
      tell(
        `${stored.name} is saved, solved for ${stored.solved.length === 1 ? 'one athlete' : `${stored.solved.length} athletes`}.`,
      );
      if (!saved) {
        void navigate(`/approaches/${stored.id}?athlete=${athleteId}`, { replace: true });
      }
    } catch (error) {
      conflict.show(error);
      setServed(
        Object.fromEntries(
          Object.entries(fieldsOf(error)).map(([path, text]) => [
            path.replace('choices.', ''),
            text,
          ]),
        ),
      );
    }
  };

  const leave = async (): Promise<void> => {
    if (await putAway(`/approaches/${draft.id}`, `${draft.name} is put away.`))
      void navigate('/approaches');
  };

  const changedElsewhere =
    conflict.shown.problem === null &&
    saved !== null &&
    draft.version !== null &&
    saved.version > draft.version;

  return {
    draft,
    change,
    history,
    /** what the server has to say, by field */
    served,
    saving: write.isPending,
    save,
    leave,
    conflict: conflict.shown,
    /** how to take what somebody else has saved since; null when nobody has */
    takeTheirs: changedElsewhere ? () => discard(draftOf(saved)) : null,
    /** how to drop a draft that was found again from before; null when there was none */
    dropDraft: found && !changedElsewhere ? () => discard(saved ? draftOf(saved) : fresh) : null,
  };
};
