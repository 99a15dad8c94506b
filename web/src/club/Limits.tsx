import { LOAD_KINDS, type LoadKind } from '@gravek/core/session/repLog';
import { clubUpdate, type Club, type LoadLimit } from '@gravek/contract/club';
import { check } from '@gravek/contract/problem';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { api, fieldsOf } from '../api/client';
import { useWrite } from '../api/queries';
import { Conflict, DraftBack, useConflict } from '../controls/Conflict';
import { useDraft } from '../controls/draft';
import { Field } from '../controls/Field';
import { NumberInput } from '../controls/NumberInput';
import { tell } from '../controls/toasts';
import { LOAD_NAMES } from '../parts/intoSession/Decide';
import { useMember } from '../member/member';

type Draft = {
  limits: LoadLimit[];
  /** what cannot be read, by field */
  typed: Record<string, { text: string; message: string }>;
};

const FRESH: LoadLimit = { kind: 'jumps', upToAge: 14, week: 60 };

/** What the club asks of somebody at most in a week, by age; the builder says where it is more. */
export const Limits = ({ club }: { club: Club }) => {
  const { role } = useMember();
  const saved: Draft = { limits: club.limits, typed: {} };
  const [draft, setDraft, discard, found] = useDraft<Draft>('limits', saved);
  const { limits, typed } = draft;
  /** which version these are put over */
  const [over, setOver] = useState(0);
  const [fields, setFields] = useState<Record<string, string>>({});
  const write = useWrite((body: Club) => api.put<Club>('/club', body), 'me');
  const conflict = useConflict<Club>(
    (theirs) => discard({ limits: theirs.limits, typed: {} }),
    setOver,
  );
  const set = (i: number, change: Partial<LoadLimit>): void =>
    setDraft({
      ...draft,
      limits: limits.map((one, j) => (j === i ? { ...one, ...change } : one)),
    });
  const number = (i: number, name: 'upToAge' | 'week', label: string) => {
    const path = `limits[${i}].${name}`;
    return (
      <Field label={label} message={typed[path]?.message ?? fields[path]}>
        <NumberInput
          value={limits[i]![name]}
          decimals={0}
          kept={typed[path]?.text}
          onNumber={(value) => {
            const { [path]: _gone, ...others } = typed;
            setDraft({
              limits: limits.map((one, j) => (j === i ? { ...one, [name]: value } : one)),
              typed: others,
            });
          }}
          onMessage={(message, text) =>
            message !== null &&
            setDraft({ ...draft, typed: { ...typed, [path]: { text, message } } })
          }
        />
      </Field>
    );
  };
  const submit = async (): Promise<void> => {
    conflict.clear();
    const checked = check(clubUpdate, {
      ...club,
      version: Math.max(over, club.version),
      limits,
    });
    setFields(checked.ok ? {} : checked.fields);
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
      setFields(fieldsOf(error));
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
      <fieldset disabled={role !== 'owner'} className="stack">
        {limits.map((one, i) => (
          <div key={i} className="limit-row">
            {number(i, 'upToAge', 'Up to the age of')}
            <Field label="What">
              <Form.Select
                value={one.kind}
                onChange={(event) => set(i, { kind: event.target.value as LoadKind })}
              >
                {LOAD_KINDS.map((kind) => (
                  <option key={kind} value={kind}>
                    {LOAD_NAMES[kind].toLowerCase()}
                    {kind === 'sprintM' && ', metres'}
                  </option>
                ))}
              </Form.Select>
            </Field>
            {number(i, 'week', 'at most')}
            <Button
              variant="outline-dark"
              className="align-self-end"
              aria-label={`Take limit ${i + 1} out`}
              onClick={() => setDraft({ limits: limits.filter((_, j) => j !== i), typed: {} })}
            >
              Take out
            </Button>
          </div>
        ))}
        {role === 'owner' && (
          <div className="row-line">
            <Button
              variant="outline-dark"
              onClick={() => setDraft({ ...draft, limits: [...limits, FRESH] })}
            >
              Add a limit
            </Button>
            <Button disabled={write.isPending} onClick={() => void submit()}>
              {write.isPending ? 'Saving …' : 'Save limits'}
            </Button>
          </div>
        )}
      </fieldset>
    </section>
  );
};
