import type { Body } from '@gravek/core/layout/body';
import type { Layout } from '@gravek/core/layout/shape';
import type { BodyLoad, Side } from '@gravek/core/session/repLog';
import { keptVariants, type Variant } from '@gravek/core/session/variants';
import type { Choices } from '@gravek/contract/approach';
import { isSequence } from '@gravek/contract/choices';
import type { DrillSet, Work } from '@gravek/contract/drillSet';
import type { OnGround } from '@gravek/contract/ground';
import type { Load, Movement } from '@gravek/contract/movement';
import type { Outline } from '@gravek/contract/plan';
import type { Rung } from '@gravek/contract/rungs';
import { type PlannedStep, plannedSteps } from '../film/watched';
import { chainOf, chainParts, isChain } from '../movement/chains';
import { bySchools } from '../movement/schools';
import { setOn } from '../planning/onGround';
import { atPace } from '../planning/pace';
import { spotCalled } from '../planning/place';
import { readsTo } from '../planning/plan';
import { phasesOn } from '../planning/branches';
import { sequenceStart, straightStart } from '../planning/planStart';
import { mirrorOutline, outlineOf, solve } from '../planning/solvePlan';
import { bodyLoad } from './bodyLoad';
import { demandOf } from './restrictions';

/** What a drill set is of: a warm-up has a name only. */
export type Base = { name: string; movement: Movement | null; choices: Choices | null };

/** Where work finds what it names; undefined for what is not there any more. */
export type Finds = {
  planOf: (id: string) => { name: string; movement: string; choices: Choices } | undefined;
  movementOf: (code: string) => Movement | undefined;
};

/**
 * A movement as it is planned when nobody has chosen anything, or one of its drills.
 *
 * @example plainChoices(gaps, null).kind // 'sequence'
 */
export const plainChoices = (movement: Movement, drill: string | null): Choices =>
  drill === null ? (straightStart(movement) ?? sequenceStart()) : { ...sequenceStart(), drill };

/**
 * What a drill set is of, set out where the session is.
 *
 * @returns null when its plan or movement is not there any more
 */
export const baseOf = (
  work: Work,
  { planOf, movementOf }: Finds,
  ground: OnGround | null = null,
): Base | null => {
  if (work.kind === 'warm-up') return { name: work.name, movement: null, choices: null };
  if (work.kind === 'plan') {
    const plan = planOf(work.approachId);
    const movement = plan && movementOf(plan.movement);
    return plan && movement
      ? { name: plan.name, movement, choices: setOn(plan.choices, ground) }
      : null;
  }
  const movement = movementOf(work.movement);
  if (!movement) return null;
  const drill = movement.drills.find((drill) => drill.code === work.drill);
  if (work.drill !== null && !drill) return null;
  return {
    name: drill ? `${movement.name}: ${drill.name.toLowerCase()}` : movement.name,
    movement,
    choices: setOn(plainChoices(movement, work.drill), ground),
  };
};

/** What is run in one combination of a drill set, or why it cannot be. */
export type Varied = { movement: Movement; choices: Choices };

const chained = (base: Varied, { move, ending }: Variant): Varied | { why: string } => {
  if (move === null && ending === null) return base;
  const chainMovements = isChain(base.movement.code) ? chainParts(base.movement.code) : [];
  const parts = [
    ...(move === null ? chainMovements.slice(0, -1) : [move]),
    ...(ending === null ? chainMovements.slice(-1) : [ending]),
  ];
  const chain = chainOf(parts);
  if ('why' in chain) return chain;
  const choices = isSequence(base.choices) ? base.choices : sequenceStart();
  return { movement: chain.movement, choices: { ...choices, drill: null, reads: {} } };
};

/** Choices at the spot that a combination asks for, where the movement knows it. */
const atSpot = (movement: Movement, choices: Choices, { spot }: Variant): Choices => {
  const spotName = spotCalled(movement, spot);
  return spotName && isSequence(choices) ? { ...choices, spot: spotName } : choices;
};

/**
 * Choices in the way of teaching that a combination asks for.
 *
 * @example inWay(sequenceStart(), { way: 'turn:slide' }).schools.turn // 'slide'
 */
export const inWay = <C extends Choices>(choices: C, { way }: Pick<Variant, 'way'>): C => {
  const [school, option] = way?.split(':') ?? [];
  if (!school || !option) return choices;
  return { ...choices, schools: { ...choices.schools, [school]: option } };
};

/**
 * The movement and the choices of one combination, or why its parts cannot be joined.
 *
 * @example
 * const base = { name: 'Gaps', movement: gaps, choices: { kind: 'sequence', ...sequenceStart() } };
 * const plain = variantFrom('', 'own');
 * asVaried(base, plain).movement.code // 'gaps'
 */
export const asVaried = (base: Varied, variant: Variant): Varied | { why: string } => {
  const run = chained(base, variant);
  if ('why' in run) return run;
  const { movement } = run;
  let { choices } = run;
  choices = atSpot(movement, inWay(choices, variant), variant);
  const [phase, option] = variant.exit?.split(':') ?? [];
  if (phase && option && isSequence(choices)) {
    // A read behind another is come to by the exit that leads there.
    const isOnWay = phasesOn(movement, choices).some(({ code }) => code === phase);
    const before = isOnWay ? {} : readsTo(bySchools(movement, choices.schools), phase);
    choices = { ...choices, reads: { ...choices.reads, ...before, [phase]: option } };
  }
  if (variant.rung !== null) choices = { ...choices, rung: variant.rung as Rung };
  return { movement, choices: atPace(movement, choices, variant.pace) };
};

/**
 * Whether a combination is run as it was solved with the plan, on the one side or the other.
 *
 * @example
 * const plain = variantFrom('', 'own');
 * isAsPlanned(plain) // true
 */
export const isAsPlanned = ({ move, ending, exit, way, pace, leadFoot }: Variant): boolean =>
  [move, ending, exit, way, leadFoot].every((part) => part === null) && pace === 1;

/** What one combination comes to for a body: how it is run, and what it puts on it. */
export type VariedRun = {
  outline: Outline | null;
  load: BodyLoad | null;
  /** codes of the phases that are gone through; empty where it cannot be run */
  phases: string[];
  /** step by step, as the own side has it; empty where it cannot be run */
  steps: PlannedStep[];
  /** on the ground, as the own side has it; null where it cannot be run */
  layout: Layout | null;
};

export const NOT_RUN: VariedRun = {
  outline: null,
  load: null,
  phases: [],
  steps: [],
  layout: null,
};

const solved = new WeakMap<Body, Map<string, VariedRun>>();

/** What was solved for a body, each run by what it was solved for. */
export type Solved = [ask: string, run: VariedRun][];

/** All that was solved for a body so far. */
export const solvedOf = (body: Body): Solved => [...(solved.get(body) ?? [])];

/** Keeps what was solved for the same body elsewhere, so that it is not solved again here. */
export const keepSolved = (body: Body, runs: Solved): void => {
  solved.set(body, new Map([...(solved.get(body) ?? []), ...runs]));
};

const fingerprints = new WeakMap<Movement, string>();

/** Tells a movement from what it was before it was edited: its code and revision stay the same. */
const fingerprintOf = (movement: Movement): string => {
  const cachedPrint = fingerprints.get(movement);
  if (cachedPrint !== undefined) return cachedPrint;
  const text = JSON.stringify(movement);
  // FNV-1a, 32 bits
  let hash = 0x811c9dc5;
  for (let i = 0; i < text.length; i += 1) {
    hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  }
  const fingerprint = `${movement.code} ${text.length} ${hash >>> 0}`;
  fingerprints.set(movement, fingerprint);
  return fingerprint;
};

const solvedFor = ({ movement, choices }: Varied, body: Body): VariedRun => {
  const bodyRuns = solved.get(body) ?? new Map<string, VariedRun>();
  solved.set(body, bodyRuns);
  const key = JSON.stringify([fingerprintOf(movement), choices]);
  const before = bodyRuns.get(key);
  if (before) return before;
  let run: VariedRun;
  try {
    const solvedPlan = solve(movement, choices, body);
    run = {
      outline: outlineOf(solvedPlan),
      load: bodyLoad(solvedPlan, body),
      phases: solvedPlan.layout?.phases.map((phase) => phase.code) ?? [],
      steps: solvedPlan.layout ? plannedSteps(solvedPlan.layout) : [],
      layout: solvedPlan.layout,
    };
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    run = NOT_RUN;
  }
  bodyRuns.set(key, run);
  return run;
};

/** On which side somebody's feet go in a combination: a lead foot that is asked decides it. */
const feetSide = (outline: Outline | null, { side, leadFoot }: Variant): Side =>
  leadFoot === null || !outline ? side : outline.firstFoot === leadFoot ? 'own' : 'other';

/**
 * How somebody runs one combination of a drill set. What has been asked of a body is kept, so that it may
 * be asked at every turn.
 *
 * @example
 * const base = { name: 'Gaps', movement: gaps, choices: { kind: 'sequence', ...sequenceStart() } };
 * const plain = variantFrom('', 'own');
 * variedRun(base, plain, body).layout.footfalls.length // 11
 */
export const variedRun = (base: Base, variant: Variant, body: Body): VariedRun => {
  if (!base.movement || !base.choices) return NOT_RUN;
  const run = asVaried({ movement: base.movement, choices: base.choices }, variant);
  if ('why' in run) return NOT_RUN;
  const { outline, ...solvedRun } = solvedFor(run, body);
  return {
    ...solvedRun,
    outline: outline && feetSide(outline, variant) === 'other' ? mirrorOutline(outline) : outline,
  };
};

/** What a drill set asks of the body in any of its combinations: barred from one is barred from it. */
export const demandOfSet = (base: Base, set: Pick<DrillSet, 'vary' | 'struck'>): Load[] => {
  const { movement, choices } = base;
  if (!movement || !choices) return [];
  const loads = keptVariants(set).flatMap((variant) => {
    const run = asVaried({ movement, choices }, variant);
    return 'why' in run ? [] : demandOf(run.movement, run.choices);
  });
  return [...new Set(loads)];
};

/** Combinations that cannot be joined, each with the reason. */
export const notJoined = (
  base: Base,
  set: Pick<DrillSet, 'vary' | 'struck'>,
): { variant: Variant; why: string }[] => {
  const { movement, choices } = base;
  if (!movement || !choices) return [];
  return keptVariants(set).flatMap((variant) => {
    const run = asVaried({ movement, choices }, variant);
    return 'why' in run ? [{ variant, why: run.why }] : [];
  });
};
