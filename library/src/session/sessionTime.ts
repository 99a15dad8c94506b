import type { Body } from '@gravek/core/layout/body';
import { filled } from '@gravek/core/session/rotation';
import { retriesMissed } from '@gravek/core/session/runOrder';
import { likelyTries, setDuration } from '@gravek/core/session/sets';
import { keptVariants } from '@gravek/core/session/variants';
import { runSetOf, type DrillSet } from '@gravek/contract/drillSet';
import { repsFor, type DatedRestriction } from './restrictions';
import { addTime, cycleTime, NO_TIME, type SpentTime, timesOver } from './spentTime';
import { asVaried, variedRun, type Base } from './work';

/** Getting on the mark before a rep and stepping aside after it, seconds. */
const ON_AND_OFF_S = 4;
const CHANGEOVER_S = 6;
/** A row is told what comes and takes its marks. */
const CALL_S = 6;
const USUAL_RUN_S = 3;
/** Touches of a rep and metres of one, as fast as most are. */
const TOUCHES_A_SECOND = 1.2;
const METRES_A_SECOND = 4;
/** How often somebody makes it of whom that is not known. */
export const USUAL_MAKE_RATE = 0.5;
/** So many tries say how often somebody makes it. */
export const KNOWN_FROM = 10;

type Person = { id: string; restrictions: readonly DatedRestriction[] };

/** Makes of somebody so far. */
export type Makes = { tried: number; made: number };

/** Where and for whom a session is: lanes side by side, who does fewer reps on its day. */
export type Conditions = {
  /** one where no ground says how many there are */
  lanes?: number | undefined;
  people?: readonly Person[];
  /** yyyy-mm-dd */
  on?: string;
  /** makes of an athlete in the movement of a set; undefined where none were counted */
  makesOf?: (athleteId: string, movement: string) => Makes | undefined;
};

/**
 * How often somebody makes it: as counted, a usual one until ten tries are known.
 *
 * @example makeRate({ tried: 20, made: 15 }) // 0.738
 */
export const makeRate = (makes: Makes | undefined): number =>
  makes && makes.tried >= KNOWN_FROM ? (makes.made + 0.5) / (makes.tried + 1) : USUAL_MAKE_RATE;

/** Reps of each combination in a round that somebody of a set does at most; whoever may do fewer has no second tries. */
const mostReps = (set: DrillSet, id: string, { people = [], on = '' }: Conditions): number => {
  const most = repsFor(set.reps, people.find((person) => person.id === id)?.restrictions ?? [], on);
  return retriesMissed(runSetOf(set)) && most === set.reps ? 2 * most : most;
};

/**
 * Reps that each of a set is likely to do of each combination in a round: all of them, or with makes as
 * many as it takes.
 *
 * @returns in the order of the set's athletes; not whole where makes count
 */
export const likelyReps = (set: DrillSet, base: Base | null, conditions: Conditions): number[] =>
  set.athleteIds.map((id) => {
    const most = mostReps(set, id, conditions);
    if (set.target !== 'makes') return most;
    const rate = makeRate(conditions.makesOf?.(id, base?.movement?.code ?? ''));
    return likelyTries({ makes: set.amount, most, makeRate: rate });
  });

/**
 * How many perform at once.
 *
 * @example
 * atOnce({ ...freshDrillSet('s', { kind: 'warm-up', name: '' }, []), stand: 'pairs' }, 7) // 3
 */
export const atOnce = (set: DrillSet, people: number, lanes = 1): number => {
  const used = set.lanes ?? lanes;
  switch (set.stand) {
    case 'row':
      return Math.max(1, people);
    case 'pairs':
      return Math.max(1, Math.floor(people / 2));
    case 'stations':
      return Math.max(1, Math.min(keptVariants(set).length, people));
    case 'roles':
      return filled(Math.max(1, people), used, 1 + set.helpers.length).lanes;
    case 'turns':
      return Math.max(1, Math.min(used, people));
  }
};

/** Somebody whose run times stand for those of all. */
export type Pacer = Body | undefined;

/** One rep of a set, seconds: of its plan, or as long as it is held. */
export const repSeconds = (set: DrillSet, base: Base | null, pacer: Pacer): number => {
  if (set.target === 'seconds') return set.amount;
  if (set.target === 'touches') return set.amount / TOUCHES_A_SECOND;
  if (set.target === 'minutes') return 60 * set.amount;
  if (set.target === 'metres') return set.amount / METRES_A_SECOND;
  if (set.call?.kind === 'steps') {
    return (set.call.steps * (set.call.leastS + set.call.mostS)) / 2;
  }
  const variants = keptVariants(set);
  const pacedVariants = base && pacer ? variants.slice(0, 24) : [];
  const seconds = pacedVariants.flatMap((variant) => {
    const { outline } = variedRun(base!, variant, pacer!);
    return outline ? [outline.totalTimeS] : [];
  });
  if (seconds.length > 0) return seconds.reduce((sum, value) => sum + value, 0) / seconds.length;
  const paces = variants.map((variant) => 1 / variant.pace);
  return (USUAL_RUN_S * paces.reduce((sum, pace) => sum + pace, 0)) / paces.length;
};

export type SetTime = {
  /** how often each performs in one round of turns: a rep every so many seconds */
  cycleS: number;
  totalS: number;
  /** what somebody of it does in that time; who does fewer reps stands longer */
  spent: SpentTime;
  /** reps that everybody is likely to do, together */
  reps: number;
  performing: number;
};

/**
 * How long a drill set takes, from the run times of its own plan: as many at once as stand so, each in
 * turn. Who does fewer reps makes the last rounds shorter.
 *
 * @returns null when there is nobody in it, or its figures are out of range (told at their fields)
 */
export const drillSetTime = (
  set: DrillSet,
  base: Base | null,
  pacer: Pacer,
  conditions: Conditions = {},
): SetTime | null => {
  const variants = keptVariants(set).length;
  // What is half typed may be no number at all.
  if (set.athleteIds.length === 0 || variants === 0) return null;
  if (!(set.sets >= 1 && set.reps >= 1 && set.setRestS >= 0)) return null;
  const each = likelyReps(set, base, conditions);
  const levels = [...new Set(each)].filter((level) => level > 0).sort((a, b) => a - b);
  const callS = set.stand === 'row' || set.stand === 'pairs' ? CALL_S : ON_AND_OFF_S;
  const roles = set.stand === 'pairs' ? 2 : set.stand === 'roles' ? 1 + set.helpers.length : 1;
  const performing = atOnce(set, set.athleteIds.length, conditions.lanes);
  try {
    const repS = repSeconds(set, base, pacer) + callS;
    const effort = restFor(set, base, pacer);
    // Rounds in which the same ones take part, together.
    const parts = levels.map((level, i) => {
      const inLevel = each.filter((reps) => reps >= level).length;
      const cycle = setDuration({
        sets: 1,
        reps: 1,
        repS,
        restS: set.restS,
        setRestS: 0,
        groupSize: Math.ceil(inLevel / Math.min(inLevel, performing)),
        changeoverS: set.stand === 'row' ? 0 : CHANGEOVER_S,
      });
      const cycles = (level - (levels[i - 1] ?? 0)) * variants;
      const spent = cycleTime({
        cycleS: cycle.cycleS,
        repS,
        helpers: roles - 1,
        metres: effort?.metres ?? 0,
        // The least is a pause that the way back makes up for.
        askedRestS: effort && effort.restS > LEAST_REST_S ? effort.restS : 0,
      });
      return { cycleS: cycle.cycleS, spent: timesOver(spent, cycles), setS: cycles * cycle.cycleS };
    });
    const setS = parts.reduce((sum, part) => sum + part.setS, 0);
    if (!(setS > 0)) return null;
    const rounds = timesOver(
      parts.reduce((sum, part) => addTime(sum, part.spent), NO_TIME),
      set.sets,
    );
    const pausesS = (set.sets - 1) * set.setRestS;
    return {
      cycleS: parts[0]!.cycleS,
      totalS: set.sets * setS + pausesS,
      spent: { ...rounds, restS: rounds.restS + pausesS },
      reps: set.sets * variants * each.reduce((sum, reps) => sum + reps, 0),
      performing,
    };
  } catch {
    return null;
  }
};

/** Reps of a session at most, all drill sets together; who is on reduced volume does fewer. */
export const sessionReps = (
  session: { date: string; drillSets: readonly DrillSet[] },
  people: readonly Person[],
): number =>
  session.drillSets.reduce(
    (sum, set) =>
      sum +
      set.sets *
        keptVariants(set).length *
        set.athleteIds.reduce(
          (reps, id) => reps + mostReps(set, id, { people, on: session.date }),
          0,
        ),
    0,
  );

/** Full effort over so many metres asks for so many seconds of rest a metre; less as it is slower. */
const REST_S_A_METRE = 6;
const LEAST_REST_S = 15;
const MOST_REST_S = 300;

/**
 * Rest between two reps as coaches give it: about a minute for ten metres at full speed, falling with
 * the cube of the speed, since that is how the effort falls; at least a quarter of a minute.
 *
 * @param metres of a rep
 * @param speed part of full speed
 * @returns seconds, by fives
 * @example suggestedRestS(10, 1) // 60
 */
export const suggestedRestS = (metres: number, speed: number): number =>
  Math.min(
    MOST_REST_S,
    Math.max(LEAST_REST_S, 5 * Math.round((REST_S_A_METRE * metres * speed ** 3) / 5)),
  );

/** How far a rep of a set goes and how fast at most, and the rest that this asks for; null for a warm-up. */
export const restFor = (
  set: DrillSet,
  base: Base | null,
  pacer: Pacer,
): { metres: number; speed: number; restS: number } | null => {
  const { movement, choices } = base ?? {};
  if (!movement || !choices || !pacer) return null;
  const rests = keptVariants(set).flatMap((variant) => {
    const run = asVaried({ movement, choices }, variant);
    const { load, outline } = variedRun(base!, variant, pacer);
    if ('why' in run || !load || !outline) return [];
    const metres = outline.startM ?? load.sprintM;
    const speed = variant.pace * run.choices.speedFraction;
    return [{ metres, speed, restS: suggestedRestS(metres, speed) }];
  });
  return rests.sort((a, b) => b.restS - a.restS)[0] ?? null;
};
