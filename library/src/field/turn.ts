import { mirrorLayout } from '@gravek/core/layout/mirror';
import { type Layout, stepFalls } from '@gravek/core/layout/shape';
import type { Turn } from '@gravek/core/session/runOrder';
import { type Variant, variantFrom } from '@gravek/core/session/variants';
import { isSequence } from '@gravek/contract/choices';
import type { Drill, Fault, Movement } from '@gravek/contract/movement';
import type { Outline } from '@gravek/contract/plan';
import type { RunAthlete, RunBundle, RunCue } from '@gravek/contract/run';
import { plannedRun, type PlannedRun } from '../measuring/measuredRun';
import { faultOf } from '../movement/byCode';
import { sidePhrase, toldTo } from '../movement/sides';
import { taughtTo } from '../planning/plan';
import { exitsOf } from '../planning/branches';
import { steadyTarget } from '../planning/steadyCadence';
import { drillOfBase, fieldRun } from '../session/fieldRun';
import { variantWords } from '../session/setWords';
import { inWay } from '../session/work';
import { cueIn, type FieldRow } from './log';
import { askedExit, type Exit, exitsToCall, exitsToRead } from './reads';
import type { SetRun } from './sets';
import { faultsToShow, likelyFirst, phasesOfRep } from './shows';

/** Whose turn it is and in which words: nothing of it needs to be solved for the athlete's body. */
export type TurnWords = {
  athlete: RunAthlete;
  variant: Variant;
  /** as it is taught here, in the athlete's words for right and left; null for a warm-up */
  movement: Movement | null;
  drill: Drill | undefined;
  /** how the drill goes, in the athlete's words; empty where nothing is said */
  how: string;
  /** exits of its read, each of which may be taken */
  exits: Exit[];
  /** exits that may be called */
  callable: Exit[];
  /** the exit that is asked without a call; null where the athlete reads it */
  askedExit: string | null;
  /** code of the fault that the one cue is for; null where nothing is said */
  cue: string | null;
  /** what was counted before the session */
  before: RunCue | undefined;
};

/** A turn as the field shows it: whose it is, how they run it, and what may be said of it. */
export type TurnView = TurnWords & {
  /** as the athlete runs it; null where no plan fits */
  outline: Outline | null;
  /** where the feet go, on the side that is asked; null where no plan fits */
  layout: Layout | null;
  /** what a measured run is held against */
  planned: PlannedRun | null;
  /** what is done, part by part, in words */
  what: string[];
  /** on which foot or side, where the set has both; empty where it has one */
  sideSaid: string;
};

type Asked = Pick<SetRun, 'set' | 'plan' | 'base' | 'athleteOf' | 'movementOf'>;

/**
 * Whose turn it is and in which words.
 *
 * @param at its drill set
 * @param log rows of the session; the cue that was given last holds
 */
export const turnWords = (
  { cues }: Pick<RunBundle, 'cues'>,
  log: readonly FieldRow[],
  { base, ...at }: Asked,
  turn: Turn,
): TurnWords => {
  const athlete = at.athleteOf(turn.athleteId);
  const variant = variantFrom(turn.variant, turn.side);
  const written = base && at.movementOf(variant);
  const choices = base?.choices ? inWay(base.choices, variant) : null;
  const drill = choices && isSequence(choices) ? choices.drill : null;
  const movement =
    written &&
    taughtTo(
      written,
      {
        drill,
        schools: choices?.schools,
        spot: choices && 'spot' in choices ? choices.spot : null,
      },
      athlete,
      turn.side,
    );
  const exits = exitsToRead(movement, choices, variant.exit);
  const before = cues.find(
    (cue) => cue.athleteId === athlete.id && cue.movement === movement?.code,
  );
  return {
    athlete,
    variant,
    movement,
    drill: base ? drillOfBase(base) : undefined,
    how: movement?.drills.find(({ code }) => code === drill)?.how ?? '',
    exits,
    callable: exitsToCall(exits, choices, variant),
    askedExit: askedExit(choices, variant),
    cue: cueIn(log, athlete.id, movement?.code ?? '', before),
    before,
  };
};

/** A layout, which is of the own side, on the side of an outline. */
const onSideOf = (layout: Layout, outline: Outline | null): Layout => {
  const [first] = stepFalls(layout);
  return outline && first && first.foot !== outline.firstFoot ? mirrorLayout(layout) : layout;
};

/**
 * A turn as the field shows it.
 *
 * @param at its drill set
 * @param log rows of the session; the cue that was given last holds
 * @example
 * const set = setOfWork('s', { kind: 'movement', movement: 'give-ground', drill: null }, ['ana'], giveGround);
 * const base = { name: '', movement: giveGround, choices: plainChoices(giveGround, null) };
 * const ana = { id: 'ana', name: 'Ana', hand: 'right', takeoffFoot: 'left', body };
 * const at = { set, base, plan: undefined, athleteOf: () => ana, movementOf: () => giveGround };
 * turnView({ cues: [] }, [], at, { athleteId: 'ana', side: 'own', variant: '' }).callable.map(({ code }) => code)
 * // ['give:right', 'give:left']
 */
export const turnView = (
  bundle: Pick<RunBundle, 'cues'>,
  log: readonly FieldRow[],
  at: Asked,
  turn: Turn,
): TurnView => {
  const { set, plan, base } = at;
  const words = turnWords(bundle, log, at, turn);
  const { athlete, variant, movement, drill } = words;
  const choices = base?.choices ?? null;
  const run = plan && base ? fieldRun(plan, base, variant, athlete) : null;
  const outline = run?.outline ?? null;
  // A steady run is to be held at its week's target; of any other the plan's own steps say it.
  const cadence = choices && isSequence(choices) ? choices.cadence : null;
  const steady = movement && athlete.body && steadyTarget(movement, cadence, athlete.body);
  return {
    ...words,
    outline,
    layout: run?.layout ? onSideOf(run.layout, outline) : null,
    planned: plannedRun(outline, run?.steps ?? [], steady || null),
    what: [
      movement?.name ?? base?.name ?? 'Drill set',
      ...(drill ? [drill.name] : []),
      ...(base?.movement && choices && variant.exit === null
        ? exitsOf(toldTo(base.movement, athlete, turn.side), choices)
        : []),
      ...variantWords({ movement }, variant).filter(
        (word) => variant.move === null || !movement?.name.includes(word),
      ),
    ],
    sideSaid:
      movement && (turn.side === 'other' || set.vary.sides.length > 1)
        ? outline && outline.startM !== null
          ? `take off ${outline.lastFoot}`
          : sidePhrase(movement, athlete, turn.side)
        : '',
  };
};

/**
 * Faults to offer for a turn, the likeliest first: those that it can show on the way that was taken, else
 * called, else planned.
 *
 * @param read `asked`: the exit that a read asked for, null where none was called; `taken`: null until it
 *   is said
 * @param cue code of the fault that is cued
 */
export const faultsOffered = (
  { base }: Pick<SetRun, 'base'>,
  { movement, variant, athlete, drill, before, askedExit: planned }: TurnWords,
  { asked, taken }: { asked: string | null; taken: string | null },
  cue: string | null,
): Fault[] => {
  if (!base || !movement) return [];
  const way = taken ?? asked ?? planned;
  const phases = phasesOfRep(base, variant, way, athlete.body ?? undefined);
  return likelyFirst(faultsToShow(movement, phases, asked), drill?.code ?? null, {
    fault: cue,
    likely: before?.likely ?? [],
  });
};

/** Reps under which nobody knows yet whether something is to be mended. */
const KNOWN_FROM = 10;

/**
 * What the coach says: the one cue, or that there is none.
 *
 * @example cueSaid({ movement: gaps, before: null }, gaps.faults[0].code) // 'Read the wall ahead'
 */
export const cueSaid = ({ movement, before }: TurnWords, cue: string | null): string =>
  (cue !== null && movement && faultOf(movement, cue)?.cue) ||
  (before && before.reps >= KNOWN_FROM ? 'Nothing to fix: let it run' : 'Watch first, say nothing');
