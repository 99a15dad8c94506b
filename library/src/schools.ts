import type { PhaseSteps, Sequence } from '@gravek/core';
import type { Movement } from '@gravek/contract';

/**
 * The movement as taught by the chosen schools: their changes made, their skipped phases taken out.
 *
 * @param chosen school code → code of the way; the first way where none is named
 */
export const bySchools = (
  movement: Movement,
  chosen: Readonly<Record<string, string>> = {},
): Movement => {
  let phases = movement.phases;
  for (const one of movement.schools) {
    const option = one.options.find((option) => option.code === chosen[one.code]) ?? one.options[0];
    if (!option) continue;
    for (const change of option.changes) {
      phases = phases.map((own) =>
        own.code === change.phase
          ? { ...own, steps: { ...own.steps, ...change.set } as PhaseSteps }
          : own,
      );
    }
    for (const skipped of option.skips) {
      const at = phases.findIndex((phase) => phase.code === skipped);
      const after = phases[at]?.then ?? phases[at + 1]?.code ?? 'end';
      phases = phases
        .map((phase) => (phase.then === skipped ? { ...phase, then: after } : phase))
        .filter((own) => own.code !== skipped);
    }
  }
  return phases === movement.phases ? movement : { ...movement, phases };
};

/** What the engine needs of a movement. */
export const sequenceOf = ({ writtenFor, phases, others }: Movement): Sequence => ({
  writtenFor,
  phases,
  others,
});
