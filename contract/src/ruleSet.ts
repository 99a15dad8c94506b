import { RULE_KINDS, type StepRule } from '@gravek/core/runup/stepRules';
import {
  array,
  boolean,
  lazy,
  object,
  type AnyObjectSchema,
  type InferType,
  type MixedSchema,
} from 'yup';
import { choice, count, id, name, note, version } from './fields';

const feet = () => count('Feet', 1, 2).oneOf([1, 2], 'One foot or both.');

const RULES: Record<StepRule['kind'], AnyObjectSchema> = {
  'steps-with-ball': object({
    kind: choice('a rule', ['steps-with-ball']),
    limit: count('Steps with the ball', 0, 20),
    gatherCounts: boolean().strict().required('Say whether the gather counts.'),
  }),
  'pivot-foot': object({
    kind: choice('a rule', ['pivot-foot']),
    until: choice('how long the pivot foot stays', ['release', 'dribble']),
  }),
  'take-off-feet': object({ kind: choice('a rule', ['take-off-feet']), feet: feet() }),
  'landing-feet': object({ kind: choice('a rule', ['landing-feet']), feet: feet() }),
  'behind-line': object({ kind: choice('a rule', ['behind-line']) }),
  'most-steps': object({
    kind: choice('a rule', ['most-steps']),
    limit: count('Steps to the take-off', 1, 60),
  }),
};

const rule = lazy((value: unknown): AnyObjectSchema => {
  const kind = (value as { kind?: unknown } | null)?.kind;
  return typeof kind === 'string' && Object.hasOwn(RULES, kind)
    ? RULES[kind as StepRule['kind']]
    : object({ kind: choice('a rule', RULE_KINDS) });
});

const fields = object({
  name: name('the rule set’s name', 60),
  note: note(300),
  rules: array(rule as unknown as MixedSchema<StepRule>)
    .required('Rules are missing.')
    .min(1, 'A rule set needs at least one rule.')
    .max(12, 'At most 12 rules.'),
});

export const ruleSetInput = fields.shape({ id: id() });
export type RuleSetInput = InferType<typeof ruleSetInput>;

export const ruleSetUpdate = fields.shape({ version: version() });

/** Rules of a code; a built-in one has a word for its id. */
export type NamedRuleSet = { id: string; name: string; note: string; rules: StepRule[] };
export type ClubRuleSet = NamedRuleSet & { version: number; archived: boolean };
