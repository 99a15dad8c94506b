import { cadencePlan, type CadenceWeek } from '@gravek/core/curve/cadencePlan';
import { dayNumber } from '@gravek/core/days';
import { steadyRun, type SteadyRun } from '@gravek/core/measuring/deviceCourse';
import { spanM, type Body } from '@gravek/core/layout/body';
import { groupBy } from '@gravek/core/session/repLog';
import { spreadOf } from '@gravek/core/chance/spread';
import type { SequenceChoices } from '@gravek/contract/approach';
import type { Movement, MovementPhase } from '@gravek/contract/movement';

type Chosen = NonNullable<SequenceChoices['cadence']>;
type Steady = Extract<MovementPhase['steps'], { kind: 'recover' }>;

const USUAL_BASELINE_SPM = 164;
/** From so many steps on a stretch is run at a steady cadence. */
const STRETCH = 10;

const stretchOf = ({ phases }: Pick<Movement, 'phases'>): number =>
  phases.findIndex(({ steps }) => steps.kind === 'recover' && steps.steps >= STRETCH);

/**
 * A run at a steady cadence: a long stretch of steps of one length, without a target.
 *
 * @example isSteady(steadyCadence) // true
 */
export const isSteady = (movement: Pick<Movement, 'phases'>): boolean => stretchOf(movement) >= 0;

/** A raised cadence as it is usual: at the pace that the movement's own step and cadence make. */
export const usualCadence = (movement: Movement, body: Body): Chosen | null => {
  const at = stretchOf(movement);
  if (at < 0) return null;
  const { step, cadenceSpm } = movement.phases[at]!.steps as Steady;
  return {
    baselineSpm: null,
    increasePct: 6,
    weeks: 6,
    week: 1,
    speedMps: Number(((spanM(step, body) * cadenceSpm) / 60).toFixed(2)),
  };
};

/** The weeks of a raised cadence, from what was counted where no baseline is set by hand. */
export const cadenceWeeks = (
  chosen: Chosen,
  body: Body,
): { weeks: CadenceWeek[]; baselineSpm: number; target: CadenceWeek } => {
  const baselineSpm = chosen.baselineSpm ?? Math.round(body.cadenceSpm ?? USUAL_BASELINE_SPM);
  const weeks = cadencePlan({ ...chosen, baselineSpm });
  return { weeks, baselineSpm, target: weeks[Math.min(chosen.week ?? 1, chosen.weeks)]! };
};

/**
 * The beat of easy days in a week: what was counted on one, raised as the others are.
 *
 * @param easySpm counted on an easy day, steps a minute
 * @example easyBeat({ increasePct: 6, weeks: 6, week: 3 }, 158) // 163
 */
export const easyBeat = (
  { increasePct, weeks, week }: Pick<Chosen, 'increasePct' | 'weeks' | 'week'>,
  easySpm: number,
): number =>
  cadencePlan({ baselineSpm: easySpm, increasePct, weeks, speedMps: 1 })[
    Math.min(week ?? 1, weeks)
  ]!.cadenceSpm;

/**
 * The movement in a week of a raised cadence: the stretch at that week's cadence and step, the one before
 * it at the baseline, the rest in proportion.
 */
export const inWeek = (
  movement: Movement,
  body: Body,
  chosen: SequenceChoices['cadence'] | undefined,
): Movement => {
  const at = stretchOf(movement);
  if (!chosen || at < 0) return movement;
  const { weeks, target } = cadenceWeeks(chosen, body);
  const written = movement.phases.map((phase) => phase.steps);
  const to = (i: number, from: number, week: CadenceWeek): MovementPhase['steps'] => {
    const [steady, of] = [written[i] as Steady, written[from] as Steady];
    return {
      ...steady,
      cadenceSpm: Math.round((week.cadenceSpm * steady.cadenceSpm) / of.cadenceSpm),
      step: { value: (week.stepM * spanM(steady.step, body)) / spanM(of.step, body), of: 'm' },
    };
  };
  return {
    ...movement,
    phases: movement.phases.map((phase, i) => {
      if (phase.steps.kind !== 'recover') return phase;
      const before = i < at;
      return { ...phase, steps: before ? to(i, at - 1, weeks[0]!) : to(i, at, target) };
    }),
  };
};

/**
 * What a steady run is to be held at for an athlete; null for any other movement.
 *
 * @example steadyTarget(steadyCadence, undefined, body) // { cadenceSpm: 166, speedMps: 2.66 }
 */
export const steadyTarget = (
  movement: Movement,
  chosen: SequenceChoices['cadence'] | undefined,
  body: Body,
): { cadenceSpm: number; speedMps: number } | null => {
  const cadence = chosen ?? usualCadence(movement, body);
  return (
    cadence && {
      cadenceSpm: cadenceWeeks(cadence, body).target.cadenceSpm,
      speedMps: cadence.speedMps,
    }
  );
};

/** A week of steady runs beside what was asked. */
export type SteadyWeek = {
  /** its Monday, yyyy-mm-dd */
  from: string;
  targetSpm: number | null;
  /** mean of all its minutes */
  meanSpm: number;
  /** metres a second of those minutes of which it is known, and the step that comes of it */
  meanMps: number | null;
  stepM: number | null;
  minutes: number;
  /** minutes in the band of the target; null without one */
  inBand: number | null;
};

const dayText = (number: number): string =>
  new Date(number * 86_400_000).toISOString().slice(0, 10);

/** A steady run, whatever measured it. */
export type DatedSteadyRun = SteadyRun & {
  takenOn: string;
  minutesMps?: readonly (number | null)[] | null | undefined;
};

/** Two records of one run begin at most so many minutes apart, and differ by so little. */
const MOST_APART_MIN = 2;
const ALIKE_SPM = 4;

const isSameRun = (a: DatedSteadyRun, b: DatedSteadyRun): boolean => {
  const [long, short] = a.minutesSpm.length < b.minutesSpm.length ? [b, a] : [a, b];
  if (a.takenOn !== b.takenOn) return false;
  const later = long.minutesSpm.length - short.minutesSpm.length;
  if (later > MOST_APART_MIN) return false;
  return Array.from({ length: later + 1 }, (_, from) => from).some((from) => {
    const off = short.minutesSpm.map((spm, i) => Math.abs(spm - long.minutesSpm[from + i]!));
    return off.reduce((sum, spm) => sum + spm, 0) / off.length <= ALIKE_SPM;
  });
};

/**
 * Steady runs each once, though a file tells of one that was measured on the field too, or two watches of
 * the same.
 *
 * @param measured on the field: each is a run by itself
 * @param told by files or typed
 * @returns in the order of days
 */
export const distinctRuns = (
  measured: readonly DatedSteadyRun[],
  told: readonly DatedSteadyRun[],
): DatedSteadyRun[] => {
  const runs = [...measured];
  for (const run of told) if (!runs.some((knownRun) => isSameRun(knownRun, run))) runs.push(run);
  return runs.sort((a, b) => (a.takenOn < b.takenOn ? -1 : a.takenOn > b.takenOn ? 1 : 0));
};

/**
 * Steady runs week by week, earliest first.
 *
 * @example
 * const run = { targetSpm: 174, minutesSpm: [172, 174], minutesMps: [2.6, 2.6], shareIn: 1 };
 * steadyWeeks([{ ...run, takenOn: '2026-03-05' }, { ...run, takenOn: '2026-03-11' }]).length // 2
 */
export const steadyWeeks = (runs: readonly DatedSteadyRun[]): SteadyWeek[] => {
  // Day 0 was a Thursday.
  const mondayOf = (day: string): number => {
    const n = dayNumber('day', day);
    return n - ((((n + 3) % 7) + 7) % 7);
  };
  const weeks = groupBy(runs, ({ takenOn }) => dayText(mondayOf(takenOn)));
  return [...weeks]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([from, fromRuns]) => {
      const minutes = fromRuns.flatMap((run) => run.minutesSpm);
      // A step is of minutes of which both are known.
      const figures = fromRuns.flatMap((run) =>
        run.minutesSpm.flatMap((spm, i) => {
          const mps = run.minutesMps?.[i] ?? null;
          return mps === null ? [] : [{ mps, stepM: (60 * mps) / spm }];
        }),
      );
      const targetRuns = fromRuns.filter((run) => run.targetSpm !== null);
      return {
        from,
        targetSpm: targetRuns.at(-1)?.targetSpm ?? null,
        meanSpm: spreadOf(minutes).mean,
        meanMps: figures.length > 0 ? spreadOf(figures.map(({ mps }) => mps)).mean : null,
        stepM: figures.length > 0 ? spreadOf(figures.map((reading) => reading.stepM)).mean : null,
        minutes: minutes.length,
        inBand:
          targetRuns.length === 0
            ? null
            : targetRuns.reduce((sum, run) => sum + (steadyRun(run).inBand ?? 0), 0),
      };
    });
};
