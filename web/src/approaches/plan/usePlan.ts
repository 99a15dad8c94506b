import { isSequence } from '@gravek/contract/choices';
import type { Approach } from '@gravek/contract/plan';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, fieldsOf } from '../../api/client';
import { useWrite } from '../../api/queries';
import { useConflict } from '../../controls/Conflict';
import { useDraft } from '../../controls/draft';
import { useHistory } from '../../controls/history';
import { tell } from '../../controls/toasts';
import { usePutAway } from '../../controls/usePutAway';
import { type Asked, draftName, draftOf, type PlanDraft } from './draft';

/** A draft from before with what was asked for just now: who, and which exits, ways and part. */
const withAsked = (kept: PlanDraft, fresh: PlanDraft, fromAddress: Asked | null): PlanDraft => {
  const { athleteId, ...choices } = fromAddress ?? {};
  const chose = Object.keys(choices).length > 0;
  const sameKind = isSequence(kept.choices) === isSequence(fresh.choices);
  const other = athleteId !== undefined && !kept.athleteIds.includes(athleteId);
  return {
    ...kept,
    ...(other ? { athleteIds: fresh.athleteIds, name: fresh.name } : {}),
    // A drill of a run-up is a plan of another kind than the run to its target.
    ...(chose && !sameKind ? { choices: fresh.choices } : {}),
    ...(chose && sameKind && isSequence(kept.choices)
      ? { choices: { ...kept.choices, ...choices } }
      : {}),
    ...(chose && sameKind && !isSequence(kept.choices)
      ? { choices: { ...kept.choices, schools: { ...kept.choices.schools, ...choices.schools } } }
      : {}),
  };
};

/**
 * A plan being worked on: its draft, which outlives a reload, and how it is saved, put away and settled
 * with what somebody else has saved meanwhile.
 *
 * @param fresh what to begin with when there is no saved plan
 * @param fromAddress what was chosen elsewhere just now; it goes over a draft from before
 * @param onTaken called when the draft has taken that over, with the first change
 */
export const usePlan = (
  saved: Approach | null,
  fresh: PlanDraft,
  fromAddress: Asked | null,
  onTaken: () => void,
) => {
  const navigate = useNavigate();
  const [kept, setDraft, discard, found] = useDraft<PlanDraft>(
    draftName(saved?.id ?? `new.${fresh.movement}`),
    saved ? draftOf(saved) : fresh,
  );
  const [taken, setTaken] = useState(false);
  const fromElsewhere = saved === null && fromAddress !== null && !taken;
  const draft = fromElsewhere ? withAsked(kept, fresh, fromAddress) : kept;
  // What was saved meanwhile stays saved, however far back the plan goes.
  const { change, ...history } = useHistory(draft, (next) => {
    setDraft({ ...next, id: draft.id, version: draft.version });
    // From here on the draft says all, also after a reload.
    if (fromElsewhere) {
      setTaken(true);
      onTaken();
    }
  });
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
    'run',
  );
  const putAway = usePutAway('approaches');

  /**
   * @param athleteId who is on the screen
   * @param wrong whether a field is marked that must be mended first
   */
  const save = async (athleteId: string, wrong: boolean): Promise<void> => {
    conflict.clear();
    setServed({});
    if (wrong) {
      conflict.say('Mend the fields that are marked, then save.');
      return;
    }
    const { name, movement, choices, athleteIds } = draft;
    try {
      const stored = await write.mutateAsync({ name, movement, choices, athleteIds });
      discard(draftOf(stored));
      tell(
        `${stored.name} is saved, solved for ${stored.athleteIds.length === 1 ? 'one athlete' : `${stored.athleteIds.length} athletes`}.`,
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

  const before = saved && draftOf(saved);
  return {
    draft,
    /** whether what is on the screen differs from what is saved */
    unsaved:
      before === null ||
      JSON.stringify([draft.name, draft.choices, draft.athleteIds]) !==
        JSON.stringify([before.name, before.choices, before.athleteIds]),
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
    /** whether it was found again as somebody left it before */
    found,
    /** how to drop a draft that was found again from before; null when there was none */
    dropDraft: found && !changedElsewhere ? () => discard(saved ? draftOf(saved) : fresh) : null,
  };
};
