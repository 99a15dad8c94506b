import { LOAD_KINDS } from '@gravek/core/session/repLog';
import { clubUpdate, type Club, type LoadLimit } from '@gravek/contract/club';
import { check } from '@gravek/contract/problem';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { api, fieldsOf } from '../api/client';
import { useWrite } from '../api/queries';
import { Conflict, DraftBack, useConflict } from '../controls/Conflict';
import { useDraft } from '../controls/draft';
import { tell } from '../controls/toasts';
import { LOAD_NAMES } from '../parts/intoSession/Decide';
import { useLengthStyle, useMember } from '../member/member';
import { ChoiceAt, NumberAt } from '../parts/fields/At';
import { changesOf, FieldsContext, messagesOf, type TypedTexts } from '../parts/fields/fields';
import { Rows } from '../parts/fields/Rows';

type Draft = {
  limits: LoadLimit[];
  /** what cannot be read, by field */
  typed: TypedTexts;
};

const LOADS_NAMED = LOAD_KINDS.map(
  (kind) =>
    [kind, `${LOAD_NAMES[kind].toLowerCase()}${kind === 'sprintM' ? ', metres' : ''}`] as const,
);

const FRESH: LoadLimit = { kind: 'jumps', upToAge: 14, week: 60 };

/** What the club asks of somebody at most in a week, by age; the builder says where it is more. */
export const Limits = ({ club }: { club: Club }) => {
  const { role } = useMember();
  const style = useLengthStyle();
  const saved: Draft = { limits: club.limits, typed: {} };
  const [draft, setDraft, discard, found] = useDraft<Draft>('limits', saved);
  const { limits, typed } = draft;
  /** which version these are put over */
  const [over, setOver] = useState(0);
  const [refused, setRefused] = useState<Record<string, string>>({});
  const write = useWrite((body: Club) => api.put<Club>('/club', body), 'me');
  const conflict = useConflict<Club>(
    (theirs) => discard({ limits: theirs.limits, typed: {} }),
    setOver,
  );
  const submit = async (): Promise<void> => {
    conflict.clear();
    const checked = check(clubUpdate, {
      ...club,
      version: Math.max(over, club.version),
      limits,
    });
    setRefused(checked.ok ? {} : checked.fields);
    if (!checked.ok || Object.keys(typed).length > 0) {
      conflict.say(
        (!checked.ok && checked.fields.limits) || 'Mend the fields that are marked, then save.',
      );
      return;
    }
    try {
      const stored = await write.mutateAsync({ ...club, ...checked.value });
      discard({ limits: stored.limits, typed: {} });
      tell('The limits are saved.');
    } catch (error) {
      setRefused(fieldsOf(error));
      conflict.show(error);
    }
  };
  return (
    <section className="panel stack" aria-label="Limits of a week">
      <h2 className="mb-0">At most in a week</h2>
      <Conflict {...conflict.shown} />
      {found && <DraftBack onDrop={() => discard(saved)} />}
      {limits.length === 0 && (
        <span className="quiet">
          No limits. Sessions are held against what is usual for each athlete.
        </span>
      )}
      <FieldsContext
        value={{
          ...changesOf({ limits }, typed, (next, texts) => setDraft({ ...next, typed: texts })),
          ...{ problems: { ...refused, ...messagesOf(typed) }, style, body: null },
        }}
      >
        <fieldset disabled={role !== 'owner'} className="stack">
          <Rows<LoadLimit> at="limits" add="Add a limit" fresh={() => FRESH}>
            {(row) => (
              <div className="limit-row">
                <NumberAt at={`${row}.upToAge`} label="Up to the age of" decimals={0} />
                <ChoiceAt at={`${row}.kind`} label="What" options={LOADS_NAMED} />
                <NumberAt at={`${row}.week`} label="at most" decimals={0} />
              </div>
            )}
          </Rows>
          <Button
            className="align-self-start"
            disabled={write.isPending}
            onClick={() => void submit()}
          >
            {write.isPending ? 'Saving …' : 'Save limits'}
          </Button>
        </fieldset>
      </FieldsContext>
    </section>
  );
};
