import { RULE_KINDS, type StepRule } from '@gravek/core/runup/stepRules';
import { check } from '@gravek/contract/problem';
import {
  plainRule,
  ruleSetInput,
  RULES,
  type ClubRuleSet,
  type RuleSetInput,
} from '@gravek/contract/ruleSet';
import { v7 as uuid } from 'uuid';
import { api } from '../api/client';
import { useWrite } from '../api/queries';
import { tell } from '../controls/toasts';
import { ChoiceAt, TextAt } from '../parts/fields/At';
import { ParametersAt } from '../parts/fields/Parameters';
import { FormHere, useDraftedForm } from '../parts/fields/DraftedForm';
import { useAt } from '../parts/fields/fields';
import { Rows } from '../parts/fields/Rows';

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

/** A rule set of the club. */
export const RuleSetForm = ({
  stored,
  onDone,
}: {
  stored: ClubRuleSet | null;
  onDone: () => void;
}) => {
  const write = useWrite((send: () => Promise<ClubRuleSet>) => send(), 'movements');
  const form = useDraftedForm<RuleSetInput, ClubRuleSet>({
    name: `rules.${stored?.id ?? 'new'}`,
    stored: stored,
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
    <FormHere
      form={form}
      onClose={onDone}
      label={stored ? `Change ${stored.name}` : 'A new rule set'}
    >
      <TextAt at="name" label="Name of the rule set" />
      <TextAt at="note" label="Note" hint="Which book, which year." />
      <Rows<StepRule> at="rules" add="Add a rule" fresh={() => plainRule('take-off-feet')}>
        {(row) => <RuleAt at={row} />}
      </Rows>
    </FormHere>
  );
};
