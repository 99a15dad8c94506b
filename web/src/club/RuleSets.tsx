import { RULE_KINDS, type StepRule } from '@gravek/core/runup/stepRules';
import { check } from '@gravek/contract/problem';
import { ruleSetInput, type ClubRuleSet, type RuleSetInput } from '@gravek/contract/ruleSet';
import { RULE_SETS } from '@gravek/library/movement/ruleSets';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { v7 as uuid } from 'uuid';
import { api, fieldsOf } from '../api/client';
import { useClubRuleSets, useWrite } from '../api/queries';
import { useMayPlan } from '../member/member';
import { Conflict, useConflict } from '../controls/Conflict';
import { useDraft } from '../controls/draft';
import { Field } from '../controls/Field';
import { NumberInput } from '../controls/NumberInput';
import { Loaded } from '../controls/Notice';
import { tell } from '../controls/toasts';
import { OwnRow } from './OwnRow';

const PLAIN: Record<StepRule['kind'], StepRule> = {
  'steps-with-ball': { kind: 'steps-with-ball', limit: 3, gatherCounts: false },
  'pivot-foot': { kind: 'pivot-foot', until: 'release' },
  'take-off-feet': { kind: 'take-off-feet', feet: 1 },
  'landing-feet': { kind: 'landing-feet', feet: 2 },
  'behind-line': { kind: 'behind-line' },
  'most-steps': { kind: 'most-steps', limit: 12 },
};

const NAMES: Record<StepRule['kind'], string> = {
  'steps-with-ball': 'Steps with the ball',
  'pivot-foot': 'Pivot foot stays down',
  'take-off-feet': 'Takes off from',
  'landing-feet': 'Lands on',
  'behind-line': 'No foot beyond the line',
  'most-steps': 'Steps to the take-off',
};

const inWords = (rule: StepRule): string => {
  switch (rule.kind) {
    case 'steps-with-ball':
      return `at most ${rule.limit} steps with the ball, ${rule.gatherCounts ? 'the gather counts' : 'the gather does not count'}`;
    case 'pivot-foot':
      return `the pivot foot stays down until the ${rule.until}`;
    case 'take-off-feet':
      return rule.feet === 1 ? 'takes off from one foot' : 'takes off from both feet';
    case 'landing-feet':
      return rule.feet === 1 ? 'lands on one foot' : 'lands on both feet';
    case 'behind-line':
      return 'no foot beyond the line';
    case 'most-steps':
      return `at most ${rule.limit} steps to the take-off`;
  }
};

const RuleFields = ({
  rule,
  onRule,
  message,
}: {
  rule: StepRule;
  onRule: (rule: StepRule) => void;
  message: string | undefined;
}) => {
  const feet = (value: 1 | 2, change: (feet: 1 | 2) => StepRule) => (
    <Form.Select
      size="sm"
      aria-label="Feet"
      value={value}
      onChange={(event) => onRule(change(event.target.value === '1' ? 1 : 2))}
    >
      <option value={1}>one foot</option>
      <option value={2}>both feet</option>
    </Form.Select>
  );
  const limit = (value: number, change: (limit: number) => StepRule) => (
    <NumberInput
      aria-label="At most"
      width="5rem"
      decimals={0}
      value={value}
      onNumber={(number) => onRule(change(number))}
      onMessage={(text) => text !== null && onRule(change(NaN))}
    />
  );
  return (
    <>
      <Form.Select
        size="sm"
        aria-label="Rule"
        value={rule.kind}
        onChange={(event) => onRule(PLAIN[event.target.value as StepRule['kind']])}
      >
        {RULE_KINDS.map((kind) => (
          <option key={kind} value={kind}>
            {NAMES[kind]}
          </option>
        ))}
      </Form.Select>
      {rule.kind === 'steps-with-ball' && (
        <>
          {limit(rule.limit, (value) => ({ ...rule, limit: value }))}
          <Form.Check
            type="switch"
            label="the gather counts"
            id={`gather-${rule.limit}`}
            checked={rule.gatherCounts}
            onChange={() => onRule({ ...rule, gatherCounts: !rule.gatherCounts })}
          />
        </>
      )}
      {rule.kind === 'most-steps' && limit(rule.limit, (value) => ({ ...rule, limit: value }))}
      {rule.kind === 'pivot-foot' && (
        <Form.Select
          size="sm"
          aria-label="Until"
          value={rule.until}
          onChange={(event) =>
            onRule({ ...rule, until: event.target.value as 'release' | 'dribble' })
          }
        >
          <option value="release">until the release</option>
          <option value="dribble">until the dribble</option>
        </Form.Select>
      )}
      {rule.kind === 'take-off-feet' && feet(rule.feet, (value) => ({ ...rule, feet: value }))}
      {rule.kind === 'landing-feet' && feet(rule.feet, (value) => ({ ...rule, feet: value }))}
      {message && (
        <div className="field-message" role="alert">
          {message}
        </div>
      )}
    </>
  );
};

const RuleSetForm = ({ own, onDone }: { own: ClubRuleSet | null; onDone: () => void }) => {
  const [draft, setDraft, discard] = useDraft<RuleSetInput>(
    `rules.${own?.id ?? 'new'}`,
    own ?? { id: uuid(), name: '', note: '', rules: [PLAIN['steps-with-ball']] },
  );
  const [version, setVersion] = useState(own?.version ?? 0);
  const [fields, setFields] = useState<Record<string, string>>({});
  const conflict = useConflict<ClubRuleSet>((theirs) => {
    discard(theirs);
    setVersion(theirs.version);
  }, setVersion);
  const write = useWrite(
    (body: object) =>
      own
        ? api.put<ClubRuleSet>(`/rule-sets/${own.id}`, body)
        : api.post<ClubRuleSet>('/rule-sets', body),
    'movements',
  );
  const submit = async (): Promise<void> => {
    conflict.clear();
    const checked = check(ruleSetInput, draft);
    setFields(checked.ok ? {} : checked.fields);
    if (!checked.ok) return;
    try {
      await write.mutateAsync(own ? { ...checked.value, version } : checked.value);
      discard();
      tell(`${draft.name} is saved.`);
      onDone();
    } catch (error) {
      setFields(fieldsOf(error));
      conflict.show(error);
    }
  };
  const messageOf = (i: number): string | undefined =>
    Object.entries(fields).find(([path]) => path.startsWith(`rules[${i}]`))?.[1];
  return (
    <Form
      noValidate
      className="stack mt-2"
      style={{ gap: 10 }}
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
    >
      <Conflict {...conflict.shown} />
      <Field label="Name of the rule set" message={fields.name}>
        <Form.Control
          value={draft.name}
          onChange={(event) => setDraft({ ...draft, name: event.target.value })}
        />
      </Field>
      <Field label="Note" message={fields.note} hint="Which book, which year.">
        <Form.Control
          value={draft.note}
          onChange={(event) => setDraft({ ...draft, note: event.target.value })}
        />
      </Field>
      {draft.rules.map((rule, i) => (
        <div key={i} className="row-line edit-rule">
          <RuleFields
            rule={rule}
            message={messageOf(i)}
            onRule={(next) =>
              setDraft({ ...draft, rules: draft.rules.map((rule, o) => (o === i ? next : rule)) })
            }
          />
          <Button
            size="sm"
            variant="link"
            onClick={() => setDraft({ ...draft, rules: draft.rules.filter((_, o) => o !== i) })}
          >
            Take out
          </Button>
        </div>
      ))}
      {fields.rules && (
        <div className="field-message" role="alert">
          {fields.rules}
        </div>
      )}
      <div className="row-line">
        <Button
          size="sm"
          variant="outline-dark"
          onClick={() => setDraft({ ...draft, rules: [...draft.rules, PLAIN['take-off-feet']] })}
        >
          Add a rule
        </Button>
        <Button type="submit" size="sm" disabled={write.isPending}>
          {write.isPending ? 'Saving …' : 'Save'}
        </Button>
        <Button size="sm" variant="outline-dark" onClick={onDone}>
          Close
        </Button>
      </div>
    </Form>
  );
};

/** Step rules that plans are held to: those that ship, and the club's own. */
export const RuleSets = () => {
  const mayPlan = useMayPlan();
  const query = useClubRuleSets();
  const [open, setOpen] = useState<string | null>(null);
  return (
    <section className="panel" aria-label="Step rules">
      <h2>Step rules</h2>
      <p className="quiet small-text">
        Codes and countries differ; the competition’s own book has the last word.
      </p>
      <Loaded query={query} what="Getting the step rules …">
        {(list) => (
          <ul className="list-plain">
            {list.map((set) => (
              <OwnRow
                key={set.id}
                item={set}
                path="/rule-sets"
                touched="movements"
                tag="the club’s own"
                onChange={() => setOpen(set.id)}
              >
                <div className="small-text">{set.rules.map(inWords).join('; ')}.</div>
                {set.note && <div className="small-text quiet">{set.note}</div>}
                {open === set.id && (
                  <RuleSetForm key={set.version} own={set} onDone={() => setOpen(null)} />
                )}
              </OwnRow>
            ))}
          </ul>
        )}
      </Loaded>
      {mayPlan &&
        (open === 'new' ? (
          <RuleSetForm own={null} onDone={() => setOpen(null)} />
        ) : (
          <Button size="sm" variant="outline-dark" className="mt-2" onClick={() => setOpen('new')}>
            Add a rule set
          </Button>
        ))}
      <details className="mt-3">
        <summary>Rule sets that ship with Gravek</summary>
        <ul className="list-plain mt-2">
          {RULE_SETS.map((ruleSet) => (
            <li key={ruleSet.id}>
              <strong>{ruleSet.name}</strong>
              <div className="small-text">{ruleSet.rules.map(inWords).join('; ')}.</div>
              <div className="small-text quiet">{ruleSet.note}</div>
            </li>
          ))}
        </ul>
      </details>
    </section>
  );
};
