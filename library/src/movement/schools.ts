import type { Body } from '@gravek/core/layout/body';
import type { PhaseSteps, Sequence } from '@gravek/core/layout/sequence';
import type { Movement, School } from '@gravek/contract/movement';
import { firstPhaseOf } from './byCode';

type Phases = Movement['phases'];
type Option = School['options'][number];

const changed = (phases: Phases, changes: Option['changes']): Phases =>
  changes.reduce(
    (all, change) =>
      all.map((phase) =>
        phase.code === change.phase
          ? { ...phase, steps: { ...phase.steps, ...change.set } as PhaseSteps }
          : phase,
      ),
    phases,
  );

/** A phase taken out, and whatever led to it led on. */
const skipped = (phases: Phases, code: string): Phases => {
  const at = phases.findIndex((phase) => phase.code === code);
  const after = phases[at]?.then ?? phases[at + 1]?.code ?? 'end';
  return phases
    .map((phase, i) => {
      const read = phase.read && {
        ...phase.read,
        options: phase.read.options.map((option) =>
          option.to === code ? { ...option, to: after } : option,
        ),
      };
      // What stood before it went on to it without saying so.
      const led = phase.then === code || (i === at - 1 && phase.then === null && !phase.read);
      return { ...phase, read, then: led ? after : phase.then };
    })
    .filter((school) => school.code !== code);
};

/** What is looked at, as one way of teaching has it. */
const looked = (phases: Phases, { checkpoints }: Pick<Option, 'checkpoints'>): Phases =>
  (checkpoints ?? []).reduce(
    (all, { phase, look, right }) =>
      all.map((taughtPhase) => {
        if (taughtPhase.code !== phase) return taughtPhase;
        const isThere = taughtPhase.checkpoints.some((checkpoint) => checkpoint.look === look);
        return {
          ...taughtPhase,
          checkpoints: isThere
            ? taughtPhase.checkpoints.map((checkpoint) =>
                checkpoint.look === look ? { look, right } : checkpoint,
              )
            : [...taughtPhase.checkpoints, { look, right }],
        };
      }),
    phases,
  );

/** Which way a phase turns first, as one way of teaching has it. */
const turned = (phases: Phases, { turns }: Pick<Option, 'turns'>): Phases =>
  (turns ?? []).reduce(
    (all, { phase, turn }) =>
      all.map((phaseThen) =>
        phaseThen.code === phase ? { ...phaseThen, turn: turn.deg > 0 ? turn : null } : phaseThen,
      ),
    phases,
  );

/** Phases as they are otherwise by their steps, turns and what is looked at. */
export const phasesOtherwise = (
  phases: Phases,
  way: Pick<Option, 'changes' | 'turns' | 'checkpoints'>,
): Phases => looked(turned(changed(phases, way.changes), way), way);

/** How the body is held, as one way of teaching has it. */
const withPostures = (phases: Phases, { postures }: Option): Phases =>
  (postures ?? []).reduce(
    (all, { phase, posture }) =>
      all.map((phaseThen) => (phaseThen.code === phase ? { ...phaseThen, posture } : phaseThen)),
    phases,
  );

const faultsOf = (movement: Movement, option: Option, phases: Phases): Movement['faults'] => {
  const out = new Set(option.without);
  for (const fault of movement.faults) {
    if (firstPhaseOf({ phases }, fault) < 0) out.add(fault.code);
  }
  if (out.size === 0 && (option.faults ?? []).length === 0) return movement.faults;
  return movement.faults
    .filter(({ code }) => !out.has(code))
    .map((fault) => {
      const change = option.faults?.find(({ code }) => code === fault.code);
      return {
        ...fault,
        leadsTo: fault.leadsTo.filter((code) => !out.has(code)),
        sees: change?.sees || fault.sees,
        cue: change?.cue || fault.cue,
      };
    });
};

/**
 * By which ways a movement is taught, of every school that has more than one.
 *
 * @returns each as `school:way`, in the order of the schools
 * @example waysOf(giveGround, { turn: 'open' }) // ['trigger:with-trigger', 'turn:open']
 */
export const waysOf = (
  { schools }: Pick<Movement, 'schools'>,
  chosen: Readonly<Record<string, string>> = {},
): string[] =>
  schools
    .filter(({ options }) => options.length > 1)
    .map(({ code, options }) => {
      const way = options.find((option) => option.code === chosen[code]) ?? options[0]!;
      return `${code}:${way.code}`;
    });

/**
 * The movement as taught by the chosen schools: their changes made, their skipped phases taken out, and
 * of faults, cues and checkpoints those that belong to them.
 *
 * @param chosen school code → code of the way; the first way where none is named
 * @example
 * bySchools(giveGround, { trigger: 'no-trigger' }).phases.length < giveGround.phases.length // true
 */
export const bySchools = (
  movement: Movement,
  chosen: Readonly<Record<string, string>> = {},
): Movement => {
  let taught = movement;
  for (const school of movement.schools) {
    const option =
      school.options.find((option) => option.code === chosen[school.code]) ?? school.options[0];
    if (!option) continue;
    const stepped = option.skips.reduce(skipped, taught.phases);
    const phases = withPostures(phasesOtherwise(stepped, option), option);
    const faults = faultsOf(taught, option, phases);
    if (phases !== taught.phases || faults !== taught.faults)
      taught = { ...taught, phases, faults };
  }
  return taught;
};

/** For whom the take-off spots of the library are written, metres. */
const USUAL_HEIGHT_M = 1.75;
const toCm = (m: number): number => Math.round(m * 100) / 100;

/**
 * A take-off spot at the bar for a body: the small take off nearer to it.
 *
 * @example barFor({ alongM: 0.5, outM: 0.9 }, { heightM: 1.4 }) // { alongM: 0.4, outM: 0.72 }
 */
export const barFor = <B extends { alongM: number; outM: number }>(
  bar: B,
  { heightM }: Pick<Body, 'heightM'>,
): B => ({
  ...bar,
  alongM: toCm((bar.alongM * heightM) / USUAL_HEIGHT_M),
  outM: toCm((bar.outM * heightM) / USUAL_HEIGHT_M),
});

/** The movement with its counts and lengths for a body: fewer or more steps for a small one. */
export const forBody = (movement: Movement, body: Pick<Body, 'heightM'>): Movement => {
  const small = movement.small && body.heightM < movement.small.underM;
  const phases = small ? changed(movement.phases, movement.small!.changes) : movement.phases;
  if (!small && !phases.some(({ steps }) => steps.kind === 'curve' && steps.bar)) return movement;
  return {
    ...movement,
    phases: phases.map((phase) =>
      phase.steps.kind === 'curve' && phase.steps.bar
        ? { ...phase, steps: { ...phase.steps, bar: barFor(phase.steps.bar, body) } }
        : phase,
    ),
  };
};

/**
 * What the engine needs of a movement.
 *
 * @example sequenceOf(giveGround).writtenFor // { by: 'neither', side: 'right' }
 */
export const sequenceOf = ({ writtenFor, phases, others }: Movement): Sequence => ({
  writtenFor,
  phases,
  others,
});
