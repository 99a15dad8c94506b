import { RULE_KINDS, type StepRule } from '@gravek/core/runup/stepRules';
import { check } from '@gravek/contract/problem';
import {
  plainRule,
  ruleSetInput,
  RULES,
  type ClubRuleSet,
  type RuleSetInput,
} from '@gravek/contract/ruleSet';
import { RULE_SETS } from '@gravek/library/movement/ruleSets';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { v7 as uuid } from 'uuid';
import { api } from '../api/client';
import { useClubRuleSets, useWrite } from '../api/queries';
import { Loaded } from '../controls/Notice';
import { tell } from '../controls/toasts';
import { useMayPlan } from '../member/member';
import { ChoiceAt, ParametersAt, TextAt } from '../parts/fields/At';
import { FormHere, useDraftedForm } from '../parts/fields/DraftedForm';
import { useAt } from '../parts/fields/fields';
import { Rows } from '../parts/fields/Rows';
import { OwnRow } from './OwnRow';

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

/** One rule: its kind, and what is to be said of that. */
const RuleAt = ({ at }: { at: string }) => {
  const { value: rule, set } = useAt<StepRule>(at);
  return (
    <div className="edit-grid">
      <ChoiceAt
        at={`${at}.kind`}
        label="Rule"
        options={RULE_KINDS.map((kind) => [kind, RULES[kind].name])}
        onChange={(kind) => set(plainRule(kind as StepRule['kind']))}
      />
      <ParametersAt at={at} fields={RULES[rule.kind].fields} />
    </div>
  );
};

const RuleSetForm = ({ own, onDone }: { own: ClubRuleSet | null; onDone: () => void }) => {
  const write = useWrite((send: () => Promise<ClubRuleSet>) => send(), 'movements');
  const form = useDraftedForm<RuleSetInput, ClubRuleSet>({
    name: `rules.${own?.id ?? 'new'}`,
    stored: own,
    valueOf: (stored) =>
      stored
        ? { id: stored.id, name: stored.name, note: stored.note, rules: stored.rules }
        : { id: uuid(), name: '', note: '', rules: [plainRule('steps-with-ball')] },
    older: (kept) => kept as RuleSetInput,
    check: (value) => check(ruleSetInput, value),
    send: (value, version) =>
      write.mutateAsync(() =>
        version === null
          ? api.post<ClubRuleSet>('/rule-sets', value)
          : api.put<ClubRuleSet>(`/rule-sets/${value.id}`, { ...value, version }),
      ),
    onSaved: (stored) => {
      tell(`${stored.name} is saved.`);
      onDone();
    },
  });
  return (
    <FormHere form={form} onClose={onDone} label={own ? `Change ${own.name}` : 'A new rule set'}>
      <TextAt at="name" label="Name of the rule set" />
      <TextAt at="note" label="Note" hint="Which book, which year." />
      <Rows<StepRule> at="rules" add="Add a rule" fresh={() => plainRule('take-off-feet')}>
        {(row) => <RuleAt at={row} />}
      </Rows>
    </FormHere>
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
