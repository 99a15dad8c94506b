import type { Variant } from '@gravek/core/session/variants';
import { isSequence } from '@gravek/contract/choices';
import type { Movement } from '@gravek/contract/movement';
import type { RunAthlete, RunPlan } from '@gravek/contract/run';
import { drillOf } from '../movement/byCode';
import { asVaried, type Base, isAsPlanned, NOT_RUN, type VariedRun, variedRun } from './work';

/**
 * The drill that a base is of, in words of the movement; undefined for the whole.
 *
 * @example
 * drillOfBase({ movement: gaps, choices: { ...sequenceStart(), drill: gaps.drills[0].code } }).code === gaps.drills[0].code
 * // true
 */
export const drillOfBase = ({ movement, choices }: Base) =>
  movement && choices && isSequence(choices) && choices.drill
    ? drillOf(movement, choices.drill)
    : undefined;

/**
 * The code under which reps of a combination are logged; null for a warm-up.
 *
 * @example
 * const base = { name: 'Gaps', movement: gaps, choices: { kind: 'sequence', ...sequenceStart() } };
 * const plain = variantFrom('', 'own');
 * movementCode(base, plain) // 'gaps'
 */
export const movementCode = (base: Base, variant: Variant): string | null => {
  if (!base.movement || !base.choices) return null;
  const run = asVaried({ movement: base.movement, choices: base.choices }, variant);
  return 'why' in run ? base.movement.code : run.movement.code;
};

/** The work of a drill set as a phone keeps it. */
export const fieldBase = (plan: RunPlan, movementOf: (code: string) => Movement): Base => ({
  name: plan.name,
  movement: plan.movement === null ? null : movementOf(plan.movement),
  choices: plan.choices,
});

/** How somebody runs a combination on the field: as it was solved with the plan, else solved here. */
export const fieldRun = (
  plan: RunPlan,
  base: Base,
  variant: Variant,
  athlete: Pick<RunAthlete, 'id' | 'body'>,
): VariedRun => {
  const here = athlete.body ? variedRun(base, variant, athlete.body) : NOT_RUN;
  const kept = isAsPlanned(variant)
    ? plan.outlines.find((outline) => outline.athleteId === athlete.id)
    : undefined;
  return kept ? { ...here, outline: kept[variant.side] } : here;
};
