import { spreadOf } from '@gravek/core/chance/spread';
import { BAND, isInBand, STEADY_SPM } from '@gravek/core/measuring/deviceCourse';
import type { Fault, Movement } from '@gravek/contract/movement';
import type { FaultFigure } from '@gravek/contract/movementParts';
import type { MeasuredReps, MeasuredRun } from '@gravek/contract/session';

/** A step, a moment or a minute of a measured run beside what was planned. */
export type MeasuredRow = {
  /** the step of the plan, the second, the minute (from 1), the metres at which a gate stands */
  at: number;
  seenSpm: number | null;
  plannedSpm: number | null;
  seenMps: number | null;
  plannedMps: number | null;
  seenM: number | null;
  plannedM: number | null;
};

export type MeasuredPer = 'step' | 'second' | 'minute' | 'gate';

const perSecond = (lengthM: number | null, intervalS: number | null): number | null =>
  lengthM === null || intervalS === null ? null : lengthM / intervalS;

/**
 * A measured run in rows, and what a row is.
 *
 * @example
 * const plan = { steps: [{ lengthM: 1.2, intervalS: 0.3 }, { lengthM: 1.5, intervalS: 0.28 }], steady: null };
 * const splits = [{ distanceM: 1.2, timeS: 0.4 }, { distanceM: 2.7, timeS: 0.7 }];
 * measuredRows(gatesMeasured(splits, plan, false)).per // 'gate'
 */
export const measuredRows = (run: MeasuredRun): { per: MeasuredPer; rows: MeasuredRow[] } => {
  if (run.steps.length > 0)
    return {
      per: 'step',
      rows: run.steps.map((step, i) => ({
        at: step.n ?? i + 1,
        seenSpm: 60 / step.intervalS,
        plannedSpm: step.plannedS === null ? null : 60 / step.plannedS,
        seenMps: perSecond(step.lengthM, step.intervalS),
        plannedMps: perSecond(step.plannedM, step.plannedS),
        seenM: step.lengthM,
        plannedM: step.plannedM,
      })),
    };
  let [wayM, beforeS] = [0, 0];
  return {
    per: run.by === 'gates' ? 'gate' : run.perMinute ? 'minute' : 'second',
    rows: run.course.map((moment) => {
      wayM += (moment.speedMps ?? 0) * (moment.atS - beforeS);
      beforeS = moment.atS;
      return {
        at: run.by === 'gates' ? wayM : run.perMinute ? moment.atS / 60 + 1 : moment.atS,
        seenSpm: moment.cadenceSpm,
        plannedSpm: moment.plannedSpm,
        seenMps: moment.speedMps,
        plannedMps: moment.plannedMps,
        seenM: null,
        plannedM: null,
      };
    }),
  };
};

/**
 * Metres and seconds of a measured run.
 *
 * @returns null for what it does not say
 * @example
 * const course = [60, 120].map((atS) => ({ atS, speedMps: 3 }));
 * ranIn({ perMinute: true, course, steps: [] }) // { ranM: 360, ranS: 120 }
 */
export const ranIn = (run: MeasuredRun): { ranM: number | null; ranS: number | null } => {
  const addUp = (figures: readonly (number | null)[]): number | null =>
    figures.length > 0 && figures.every((figure) => figure !== null)
      ? Number(figures.reduce<number>((sum, figure) => sum + figure!, 0).toFixed(2))
      : null;
  if (run.steps.length > 0)
    return {
      ranM: addUp(run.steps.map(({ lengthM }) => lengthM)),
      ranS: addUp(run.steps.map(({ intervalS }) => intervalS)),
    };
  const lengths = run.course.map(({ atS }, i) =>
    run.perMinute ? 60 : atS - (run.course[i - 1]?.atS ?? 0),
  );
  return {
    ranM: addUp(
      run.course.map(({ speedMps }, i) => (speedMps === null ? null : speedMps * lengths[i]!)),
    ),
    ranS: addUp(lengths),
  };
};

/** A mean of what was seen beside one of what was planned at the same places; null where there are none. */
const meanOf = (
  rows: readonly MeasuredRow[],
  what: 'Spm' | 'Mps' | 'M',
): { seen: number; planned: number | null } | null => {
  const seen = rows.flatMap((row) => row[`seen${what}`] ?? []);
  const both = rows.flatMap((row) => {
    const [measured, planned] = [row[`seen${what}`], row[`planned${what}`]];
    return measured === null || planned === null ? [] : [{ own: measured, planned }];
  });
  if (both.length > 0)
    return {
      seen: spreadOf(both.map(({ own }) => own)).mean,
      planned: spreadOf(both.map((step) => step.planned)).mean,
    };
  return seen.length > 0 ? { seen: spreadOf(seen).mean, planned: null } : null;
};

/** What a measured run comes to: cadence and speed on average, and how much of it lay in the band. */
export const measuredMeans = (run: MeasuredRun) => {
  const { per, rows } = measuredRows(run);
  const heldRows = rows.filter(
    ({ seenSpm, plannedSpm }) =>
      seenSpm !== null && plannedSpm !== null && isInBand(seenSpm, plannedSpm),
  );
  return {
    per,
    rows,
    cadence: meanOf(rows, 'Spm'),
    speed: meanOf(rows, 'Mps'),
    length: meanOf(rows, 'M'),
    inBand: heldRows.length,
    compared: rows.filter(({ seenSpm, plannedSpm }) => seenSpm !== null && plannedSpm !== null)
      .length,
  };
};

/** A steady run as the weeks count it; null for any other, and for what was made up. */
export const steadyRunOf = (
  run: MeasuredRun,
): Omit<MeasuredReps['steady'][number], 'takenOn'> | null => {
  const minutes = run.course.flatMap(({ cadenceSpm, ...minute }) =>
    cadenceSpm !== null && cadenceSpm >= STEADY_SPM.min && cadenceSpm <= STEADY_SPM.max
      ? [{ cadenceSpm, ...minute }]
      : [],
  );
  if (run.simulated || !run.perMinute || minutes.length === 0) return null;
  return {
    targetSpm: minutes.at(-1)!.plannedSpm,
    minutesSpm: minutes.map(({ cadenceSpm }) => cadenceSpm),
    minutesMps: minutes.map(({ speedMps }) => speedMps),
  };
};

const FIGURES = ['cadence-under', 'speed-over', 'slowed'] as const satisfies FaultFigure[];

/** What a course of cadence and speed can tell. */
export type MeasuredFigure = (typeof FIGURES)[number];

/** A fault that a measured run speaks for. */
export type MeasuredSuggestion = {
  fault: Fault;
  figure: MeasuredFigure;
  seen: number;
  planned: number;
};

/** Rows under which a mean says little. */
const LEAST_ROWS = 3;
const FASTER = 0.05;
const SLOWED = 0.04;

/** Speed over the last stretch, where the plan's own loss is allowed for; null where that cannot be told. */
const slowedIn = (rows: readonly MeasuredRow[]): { seen: number; planned: number } | null => {
  const all = rows.filter(({ seenMps, plannedMps }) => seenMps !== null && plannedMps !== null);
  const [last, before] = [all.at(-1), all.at(-2)];
  if (!last || !before || all.length < LEAST_ROWS) return null;
  const planned = (before.seenMps! * last.plannedMps!) / before.plannedMps!;
  return last.seenMps! < (1 - SLOWED) * planned ? { seen: last.seenMps!, planned } : null;
};

/** Faults of a movement that a measured run speaks for; the coach marks them or leaves them. */
export const courseSuggestions = (movement: Movement, run: MeasuredRun): MeasuredSuggestion[] => {
  const { per, rows, cadence, speed, compared } = measuredMeans(run);
  const enough = per === 'minute' ? compared > 0 : compared >= LEAST_ROWS;
  const finds: Record<MeasuredFigure, { seen: number; planned: number | null } | null> = {
    'cadence-under':
      enough && cadence && cadence.planned !== null && cadence.seen < (1 - BAND) * cadence.planned
        ? cadence
        : null,
    'speed-over':
      enough && speed && speed.planned !== null && speed.seen > (1 + FASTER) * speed.planned
        ? speed
        : null,
    slowed: per === 'gate' ? slowedIn(rows) : null,
  };
  return movement.faults.flatMap((fault) => {
    const figure = FIGURES.find((figure) => figure === fault.figure);
    const find = figure && finds[figure];
    return find && find.planned !== null
      ? [{ fault, figure, seen: find.seen, planned: find.planned }]
      : [];
  });
};
