import { counted } from '@gravek/core/words';
import { otherFoot } from '@gravek/core/feet';
import type { Body } from '@gravek/core/layout/body';
import type { Layout } from '@gravek/core/layout/shape';
import type { BodyLoad, Side } from '@gravek/core/session/repLog';
import { retriesMissed } from '@gravek/core/session/runOrder';
import { keptVariants, variantsOf, type Variant } from '@gravek/core/session/variants';
import type { Choices, Outline } from '@gravek/contract/approach';
import { isSequence } from '@gravek/contract/choices';
import type { OnGround } from '@gravek/contract/ground';
import type { Load, Movement } from '@gravek/contract/movement';
import type { Rung } from '@gravek/contract/rungs';
import type { RunAthlete, RunPlan } from '@gravek/contract/run';
import { runSetOf, type DrillSet, type Work } from '@gravek/contract/drillSet';
import { bodyLoad } from './bodyLoad';
import { chainOf, chainParts, ENDINGS, isChain, MOVES } from '../movement/chains';
import { drillOf } from '../movement/byCode';
import { setOn } from '../planning/onGround';
import { atPace } from '../planning/pace';
import {
  mirrorOutline,
  outlineOf,
  sequenceStart,
  solve,
  straightStart,
  phasesOn,
  readsTo,
} from '../planning/plan';
import { spotCalled } from '../planning/place';
import { bySchools } from '../movement/schools';
import { demandOf } from './restrictions';
import { sideWord } from '../movement/sides';
import { plannedSteps, type PlannedStep } from '../film/watched';

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
  const own = isChain(base.movement.code) ? chainParts(base.movement.code) : [];
  const parts = [
    ...(move === null ? own.slice(0, -1) : [move]),
    ...(ending === null ? own.slice(-1) : [ending]),
  ];
  const chain = chainOf(parts);
  if ('why' in chain) return chain;
  const choices = isSequence(base.choices) ? base.choices : sequenceStart();
  return { movement: chain.movement, choices: { ...choices, drill: null, reads: {} } };
};

/** Choices at the spot that a combination asks for, where the movement knows it. */
const atSpot = (movement: Movement, choices: Choices, { spot }: Variant): Choices => {
  const named = spotCalled(movement, spot);
  return named && isSequence(choices) ? { ...choices, spot: named } : choices;
};

/** Choices in the way of teaching that a combination asks for. */
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

const NOT_RUN: VariedRun = { outline: null, load: null, phases: [], steps: [], layout: null };

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
  const known = fingerprints.get(movement);
  if (known !== undefined) return known;
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
  const known = solved.get(body) ?? new Map<string, VariedRun>();
  solved.set(body, known);
  const key = JSON.stringify([fingerprintOf(movement), choices]);
  const before = known.get(key);
  if (before) return before;
  let run: VariedRun;
  try {
    const own = solve(movement, choices, body);
    run = {
      outline: outlineOf(own),
      load: bodyLoad(own, body),
      phases: own.layout?.phases.map((phase) => phase.code) ?? [],
      steps: own.layout ? plannedSteps(own.layout) : [],
      layout: own.layout,
    };
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    run = NOT_RUN;
  }
  known.set(key, run);
  return run;
};

/** On which side somebody's feet go in a combination: a lead foot that is asked decides it. */
const feetSide = (own: Outline | null, { side, leadFoot }: Variant): Side =>
  leadFoot === null || !own ? side : own.firstFoot === leadFoot ? 'own' : 'other';

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
  const { outline, ...own } = solvedFor(run, body);
  return {
    ...own,
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

/** Rungs as a coach calls them. */
export const RUNG_NAMES: Record<Rung, string> = {
  stand: 'stand',
  walk: 'walk',
  half: 'half speed',
  full: 'full speed',
  object: 'with ball or tool',
  opponent: 'with opponent',
};

const PACE_WORDS: Record<number, string> = {
  1: 'full',
  0.75: 'three quarters',
  0.5: 'half',
  0.25: 'a quarter',
};

/**
 * A part of the planned speed in a word.
 *
 * @example paceWord(0.5) // 'half'
 */
export const paceWord = (pace: number): string => PACE_WORDS[pace] ?? `${Math.round(100 * pace)} %`;

const nameIn = (list: readonly { code: string; name: string }[], code: string): string =>
  list.find((item) => item.code === code)?.name ?? code;

/**
 * An exit by its name in the movement.
 *
 * @example exitName(giveGround, 'give:left') // 'To the left'
 */
export const exitName = (movement: Movement | null, exit: string): string => {
  const [phase, option] = exit.split(':');
  const read = movement?.phases.find((other) => other.code === phase)?.read;
  return read?.options.find((other) => other.code === option)?.name ?? exit;
};

/**
 * A way of teaching by its name in the movement.
 *
 * @example wayName(giveGround, 'turn:open') // 'Open at once'
 */
export const wayName = (movement: Movement | null, way: string): string => {
  const [school, option] = way.split(':');
  const options = movement?.schools.find((other) => other.code === school)?.options;
  return options?.find((other) => other.code === option)?.name ?? way;
};

/**
 * What differs in a combination, in words, the side left out; empty where nothing does.
 *
 * @example
 * const variant = variantFrom('spot=wing lead=left pace=0.5', 'own');
 * variantWords({ movement: jabAndGo }, variant) // ['wing', 'left foot first', 'half speed']
 */
export const variantWords = (base: Pick<Base, 'movement'>, variant: Variant): string[] => [
  ...(variant.move === null ? [] : [nameIn(MOVES, variant.move)]),
  ...(variant.ending === null ? [] : [nameIn(ENDINGS, variant.ending).toLowerCase()]),
  ...(variant.exit === null ? [] : [exitName(base.movement, variant.exit).toLowerCase()]),
  ...(variant.way === null ? [] : [wayName(base.movement, variant.way).toLowerCase()]),
  ...(variant.spot === null ? [] : [variant.spot]),
  ...(variant.leadFoot === null ? [] : [`${variant.leadFoot} foot first`]),
  ...(variant.rung === null ? [] : [RUNG_NAMES[variant.rung as Rung] ?? variant.rung]),
  ...(variant.pace === 1 ? [] : [`${paceWord(variant.pace)} speed`]),
];

/**
 * A side in words: for somebody, or for a whole set where all have the same.
 *
 * @example sideWords(straightRunUp, [body, leftHander], 'own') // 'take-off foot'
 */
export const sideWords = (
  movement: Movement | null,
  athletes: readonly Pick<Body, 'hand' | 'takeoffFoot'>[],
  side: Side,
): string => {
  if (!movement) return '';
  const { by, side: written } = movement.writtenFor;
  if (by === 'neither') return side === 'own' ? written : otherFoot(written);
  const words = new Set(athletes.map((athlete) => sideWord(movement, athlete, side)));
  if (words.size === 1) return [...words][0]!;
  if (by === 'hand') return side === 'own' ? 'strong hand' : 'weak hand';
  return side === 'own' ? 'take-off foot' : 'other foot';
};

/**
 * How a drill set varies, in a line: the axes, how many combinations they make, in which order.
 *
 * @example
 * variesWords({ movement: giveGround }, { ...AS_PLANNED, vary: { ...AS_PLANNED.vary, sides: ['own', 'other'] } })
 * // 'both sides'
 */
export const variesWords = (
  base: Pick<Base, 'movement'>,
  set: Pick<DrillSet, 'vary' | 'struck' | 'order'>,
): string => {
  const { moves, endings, exits, ways, spots, sides, leadFeet, paces, rungs } = set.vary;
  const axes = [
    ...(moves.length > 0 ? [counted(moves.length, 'move')] : []),
    ...(endings.length > 0 ? [counted(endings.length, 'ending')] : []),
    ...(exits.length === 1 ? [exitName(base.movement, exits[0]!).toLowerCase()] : []),
    ...(exits.length > 1 ? [counted(exits.length, 'exit')] : []),
    ...(ways.length === 1 ? [wayName(base.movement, ways[0]!).toLowerCase()] : []),
    ...(ways.length > 1 ? [`${counted(ways.length, 'way')} of teaching`] : []),
    ...(spots.length === 1 ? [spots[0]!] : []),
    ...(spots.length > 1 ? [counted(spots.length, 'spot')] : []),
    ...(sides.length === 2
      ? ['both sides']
      : sides[0] === 'other'
        ? [sideWords(base.movement, [], 'other')]
        : []),
    ...(leadFeet.length === 2 ? ['both lead feet'] : leadFeet.map((foot) => `${foot} foot first`)),
    ...(rungs.length === 1 ? [RUNG_NAMES[rungs[0] as Rung]] : []),
    ...(rungs.length > 1 ? [counted(rungs.length, 'rung')] : []),
    ...(paces.length > 1 || paces[0] !== 1
      ? [
          [...paces]
            .sort((a, b) => a - b)
            .map(paceWord)
            .join(', '),
        ]
      : []),
  ];
  const all = variantsOf(set.vary).length;
  const kept = keptVariants(set).length;
  if (axes.length === 0) return '';
  const size = axes.length > 1 || kept < all ? `: ${kept}` : '';
  return `${axes.join(' × ')}${size}${kept > 1 && set.order === 'mixed' ? ', mixed' : ''}`;
};

/**
 * What counts in a drill set, in a line.
 *
 * @example
 * targetWords({ ...freshDrillSet('s', { kind: 'warm-up', name: '' }, []), target: 'makes', amount: 3, reps: 6 })
 * // '3 makes, on after 6'
 */
export const targetWords = (set: DrillSet): string => {
  const each = keptVariants(set).length > 1 ? ' of each' : '';
  switch (set.target) {
    case 'makes':
      return [
        `${counted(set.amount, 'make')}${each}, on after ${set.reps}`,
        ...(retriesMissed(runSetOf(set)) ? ['what was missed once more'] : []),
      ].join('; ');
    case 'touches':
      if (set.work.kind === 'warm-up') return `${set.reps} × ${set.amount} times`;
      return `${set.reps} × ${set.amount} touches${each}`;
    case 'seconds':
      return `${set.reps} × ${set.amount} s held${each}`;
    case 'metres':
      return `${set.reps} × ${set.amount} m${each}`;
    case 'minutes':
      return `${set.reps} × ${set.amount} min${each}`;
    case 'attempts':
      return `${counted(set.reps, 'rep')}${each}`;
  }
};

/** The drill that a base is of, in words of the movement; undefined for the whole. */
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
