import { betaBelow } from '../chance/beta';
import { normalBelow } from '../chance/normal';
import { whole } from '../check';
import type { RepCount } from '../session/repCounts';
import { groupBy, type Side } from '../session/repLog';

/** What came of reps that were taught one way. */
export type WayCounts = Pick<RepCount, 'reps' | 'clean' | 'held' | 'heldS' | 'heard' | 'heardS'>;

/** Reps of one athlete on one side, in one session and alike in all else, taught one way and another. */
export type WayStratum = { athlete: string; side: Side; a: WayCounts; b: WayCounts };

export const WAY_MEASURES = ['clean', 'held', 'reaction'] as const;
/** Share of clean reps; seconds held; seconds from a call to the first step. */
export type WayMeasure = (typeof WAY_MEASURES)[number];

/** Two ways of teaching held against each other by one measure. */
export type WayLook = {
  measure: WayMeasure;
  /** null for both sides together */
  side: Side | null;
  /** reps that were compared, and what they came to: a share, or seconds */
  a: { reps: number; value: number };
  b: { reps: number; value: number };
  /** athletes who did both */
  athletes: number;
  /** of seeing such a difference if there were none; null where there are too few to say */
  chance: number | null;
};

/** Each way in as many reps, or nothing is said. */
const LEAST_REPS = 20;
/** The sum of variances from which the normal law is near enough. */
const LEAST_VARIANCE = 2;
/** Seconds are held against each other from athlete to athlete: so many did both, or nothing is said. */
const LEAST_ATHLETES = 5;

const sumOf = <T>(list: readonly T[], figureOf: (item: T) => number): number =>
  list.reduce((sum, item) => sum + figureOf(item), 0);

const both = (chance: number): number => Math.min(1, 2 * Math.min(chance, 1 - chance));

const athletesIn = (strata: readonly WayStratum[]): number =>
  new Set(strata.map(({ athlete }) => athlete)).size;

const cleanLook = (all: readonly WayStratum[], side: Side | null): WayLook => {
  const strata = all.filter(({ a, b }) => a.reps > 0 && b.reps > 0);
  let [weight, over, variance, inA, inB] = [0, 0, 0, 0, 0];
  for (const { a, b } of strata) {
    const n = a.reps + b.reps;
    const clean = a.clean + b.clean;
    const w = (a.reps * b.reps) / n;
    weight += w;
    over += b.clean - (b.reps * clean) / n;
    variance += (a.reps * b.reps * clean * (n - clean)) / (n * n * (n - 1));
    inA += (w * a.clean) / a.reps;
    inB += (w * b.clean) / b.reps;
  }
  const reps = { a: sumOf(strata, ({ a }) => a.reps), b: sumOf(strata, ({ b }) => b.reps) };
  const enough = Math.min(reps.a, reps.b) >= LEAST_REPS && variance >= LEAST_VARIANCE;
  return {
    ...{ measure: 'clean', side },
    a: { reps: reps.a, value: weight > 0 ? inA / weight : 0 },
    b: { reps: reps.b, value: weight > 0 ? inB / weight : 0 },
    athletes: athletesIn(strata),
    chance: enough ? both(normalBelow(over / Math.sqrt(variance))) : null,
  };
};

/** Seconds from athlete to athlete, each with the mean difference of all that was alike. */
const secondsLook = (
  all: readonly WayStratum[],
  measure: 'held' | 'reaction',
  side: Side | null,
): WayLook => {
  const of = (counts: WayCounts): [reps: number, seconds: number] =>
    measure === 'held' ? [counts.held, counts.heldS] : [counts.heard, counts.heardS];
  const strata = all.filter(({ a, b }) => of(a)[0] > 0 && of(b)[0] > 0);
  const people = [...groupBy(strata, ({ athlete }) => athlete).values()].map((athleteStrata) => {
    let [weight, inA, inB] = [0, 0, 0];
    for (const { a, b } of athleteStrata) {
      const [repsA, secondsA] = of(a);
      const [repsB, secondsB] = of(b);
      const w = (repsA * repsB) / (repsA + repsB);
      weight += w;
      inA += (w * secondsA) / repsA;
      inB += (w * secondsB) / repsB;
    }
    return { a: inA / weight, b: inB / weight };
  });
  const n = people.length;
  const mean = n === 0 ? 0 : sumOf(people, ({ a, b }) => b - a) / n;
  const squares = sumOf(people, ({ a, b }) => (b - a - mean) ** 2);
  const repsOf = (way: 'a' | 'b'): number => sumOf(strata, (stratum) => of(stratum[way])[0]);
  let chance: number | null = null;
  if (n >= LEAST_ATHLETES && Math.min(repsOf('a'), repsOf('b')) >= LEAST_REPS && squares > 0) {
    const freedom = n - 1;
    const t2 = (mean * mean * n * freedom) / squares;
    chance = betaBelow(freedom / (freedom + t2), freedom / 2, 0.5);
  }
  return {
    ...{ measure, side },
    a: { reps: repsOf('a'), value: n === 0 ? 0 : sumOf(people, ({ a }) => a) / n },
    b: { reps: repsOf('b'), value: n === 0 ? 0 : sumOf(people, ({ b }) => b) / n },
    ...{ athletes: n, chance },
  };
};

/**
 * What reps say of two ways of teaching: how often they were clean, how long athletes stayed in front or held,
 * how soon they moved after a call; both sides together, and each by itself where both were done. Only reps that
 * are alike in all but the way are held against each other.
 *
 * @param strata of one athlete, session and condition each; those with one of the ways only say nothing
 * @returns clean always; seconds and reaction only where some were taken of both
 * @throws {RangeError} naming the count that is out of range
 * @example
 * const ten = { reps: 10, clean: 5, held: 0, heldS: 0, heard: 0, heardS: 0 };
 * compareWays([{ athlete: 'ana', side: 'own', a: ten, b: ten }])[0]!.chance // null: too few
 * Source: Mantel and Haenszel's test; Student's test of paired differences
 */
export const compareWays = (strata: readonly WayStratum[]): WayLook[] => {
  strata.forEach(({ a, b }, i) => {
    for (const [way, { reps, clean }] of Object.entries({ a, b })) {
      whole(`strata[${i}].${way}.reps`, reps, { min: 0, max: 1e6 });
      whole(`strata[${i}].${way}.clean`, clean, { min: 0, max: reps });
    }
  });
  const parts: [Side | null, readonly WayStratum[]][] = [
    [null, strata],
    ...(['own', 'other'] as const).map((side): [Side, WayStratum[]] => [
      side,
      strata.filter((stratum) => stratum.side === side),
    ]),
  ];
  const looks = (side: Side | null, some: readonly WayStratum[]): WayLook[] => [
    cleanLook(some, side),
    ...(['held', 'reaction'] as const)
      .map((measure) => secondsLook(some, measure, side))
      .filter(({ athletes }) => athletes > 0),
  ];
  const bySide = parts.slice(1).map(([side, some]) => looks(side, some));
  const twoSided = bySide.every(([clean]) => clean!.athletes > 0);
  return [...looks(null, strata), ...(twoSided ? bySide.flat() : [])];
};
