import { RULE_KINDS, type StepRule } from '@gravek/core/runup/stepRules';
import { array, lazy, object, type AnyObjectSchema, type InferType, type MixedSchema } from 'yup';
import { choice, id, name, note, version } from './fields';
import { plainValues, type ParameterField, type ParameterFields } from './parameters';
import { shapeOf } from './parameterSchema';

const feet: ParameterField = {
  type: 'choice',
  label: 'Feet',
  options: [
    [1, 'one foot'],
    [2, 'both feet'],
  ],
};
const most = (label: string, min: number, max: number): ParameterField => ({
  ...{ type: 'count', label, min, max },
});

/** Every kind of step rule: what it is called, and its parameters. */
export const RULES: Readonly<Record<StepRule['kind'], { name: string; fields: ParameterFields }>> =
  {
    'steps-with-ball': {
      name: 'Steps with the ball',
      fields: {
        limit: most('Steps with the ball', 0, 20),
        gatherCounts: { type: 'flag', label: 'The gather counts' },
      },
    },
    'pivot-foot': {
      name: 'Pivot foot stays down',
      fields: {
        until: {
          type: 'choice',
          label: 'Until the',
          options: [
            ['release', 'release'],
            ['dribble', 'dribble'],
          ],
        },
      },
    },
    'take-off-feet': { name: 'Takes off from', fields: { feet } },
    'landing-feet': { name: 'Lands on', fields: { feet } },
    'behind-line': { name: 'No foot beyond the line', fields: {} },
    'most-steps': {
      name: 'Steps to the take-off',
      fields: { limit: most('Steps to the take-off', 1, 60) },
    },
  };

/** A rule of a kind with something to begin with. */
export const plainRule = (kind: StepRule['kind']): StepRule =>
  ({ kind, ...plainValues(RULES[kind].fields) }) as StepRule;

const SCHEMAS = Object.fromEntries(
  RULE_KINDS.map((kind) => [
    kind,
    object({ kind: choice('a rule', [kind]), ...shapeOf(RULES[kind].fields) }),
  ]),
);

const rule = lazy((value: unknown): AnyObjectSchema => {
  const kind = (value as { kind?: unknown } | null)?.kind;
  return typeof kind === 'string' && Object.hasOwn(SCHEMAS, kind)
    ? SCHEMAS[kind]!
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
