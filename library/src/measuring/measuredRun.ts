import {
  type DeviceReading,
  type Minute,
  minutesOf,
  runsIn,
} from '@gravek/core/measuring/deviceCourse';
import type { Outline } from '@gravek/contract/plan';
import type { MeasuredRun } from '@gravek/contract/session';
import type { PlannedStep } from '../film/watched';

/** What a run is held against: its plan step by step, or a cadence that is to be held. */
export type PlannedRun = {
  /** in order, feet that land together as one; length null where it is not known */
  steps: readonly { lengthM: number | null; intervalS: number }[];
  /** of a steady run; null for any other */
  steady: { cadenceSpm: number; speedMps: number | null } | null;
};

/** Feet that land together, or nearly so, are one step. */
const TOGETHER_S = 0.02;

/**
 * The plan of a run, from its outline as the field has it.
 *
 * @param planSteps the same plan solved here, for its lengths; empty where that cannot be
 * @returns null where there is nothing to hold a run against
 */
export const plannedRun = (
  outline: Pick<Outline, 'contacts'> | null,
  planSteps: readonly Pick<PlannedStep, 'wayM'>[],
  steady: PlannedRun['steady'],
): PlannedRun | null => {
  const times = (outline?.contacts ?? [])
    .map(({ timeS }) => timeS)
    .filter((timeS, i, all) => i === 0 || timeS - all[i - 1]! > TOGETHER_S);
  const steps = times.map((timeS, i) => ({
    lengthM: planSteps.length === times.length ? planSteps[i]!.wayM : null,
    intervalS: timeS - (times[i - 1] ?? 0),
  }));
  return steps.length > 1 || steady ? { steps, steady } : null;
};

/**
 * Cadence that a plan comes to, steps a minute: the middle one of its steps, so that a start does not count for much.
 *
 * @example
 * const plan = { steps: [{ lengthM: 1.2, intervalS: 0.3 }, { lengthM: 1.5, intervalS: 0.28 }], steady: null };
 * plannedCadence(plan) // 214.3
 */
export const plannedCadence = ({ steps, steady }: PlannedRun): number => {
  if (steady) return steady.cadenceSpm;
  const all = steps
    .slice(1)
    .map(({ intervalS }) => 60 / intervalS)
    .sort((a, b) => a - b);
  return all[Math.floor(all.length / 2)]!;
};

/** Under this part of the slowest that is planned somebody stands or walks between reps. */
const RUNS_FROM = 0.6;

/**
 * Steps a minute from which on somebody runs a plan.
 *
 * @example
 * const plan = { steps: [{ lengthM: 1.2, intervalS: 0.3 }, { lengthM: 1.5, intervalS: 0.28 }], steady: null };
 * runsFrom(plan) // 120
 */
export const runsFrom = (plan: PlannedRun | null): number =>
  !plan
    ? 0
    : RUNS_FROM *
      (plan.steady?.cadenceSpm ?? Math.min(...plan.steps.map(({ intervalS }) => 60 / intervalS)));

/** A pause between contacts begins a run anew: a step ends where the one before did, or nearly so. */
const JOINED_S = 0.02;

const contactRuns = (contacts: readonly DeviceReading[]): DeviceReading[][] => {
  const runs: DeviceReading[][] = [];
  contacts.forEach((contact) => {
    const last = runs.at(-1);
    const beganS = contact.atS - 60 / contact.cadenceSpm;
    if (last && beganS - last.at(-1)!.atS < JOINED_S) last.push(contact);
    else runs.push([contact]);
  });
  return runs;
};

/** Moments and steps that are kept of a run. */
const MOST = 180;
const MOST_STEPS = 80;

type Moment = MeasuredRun['course'][number];

/** What a rep takes; a figure of a plan beyond it, as of a flight or a wait, is of no use beside a run. */
const MOST_SPM = 500;
const MOST_MPS = 15;
const MOST_STEP = 10;
const upTo = (most: number, value: number): number | null => (value <= most ? value : null);

/** What is planned at a moment of a run; nulls after its end. */
const plannedAt = (
  plan: PlannedRun | null,
  atS: number,
): Pick<Moment, 'plannedSpm' | 'plannedMps'> => {
  if (plan?.steady) return { plannedSpm: plan.steady.cadenceSpm, plannedMps: plan.steady.speedMps };
  let endS = 0;
  const step = plan?.steps.find(({ intervalS }) => {
    endS += intervalS;
    return endS >= atS;
  });
  return {
    plannedSpm: step ? upTo(MOST_SPM, 60 / step.intervalS) : null,
    plannedMps:
      step && step.lengthM !== null ? upTo(MOST_MPS, step.lengthM / step.intervalS) : null,
  };
};

const rounded = <T extends number | null>(value: T, digits: number): T =>
  (value === null ? null : Number(value.toFixed(digits))) as T;

const momentOf = (
  atS: number,
  { cadenceSpm, speedMps }: Omit<Minute, 'at'>,
  { plannedSpm, plannedMps }: Pick<Moment, 'plannedSpm' | 'plannedMps'>,
): Moment => ({
  atS: rounded(atS, 1),
  cadenceSpm: rounded(cadenceSpm, 1),
  speedMps: rounded(speedMps, 2),
  plannedSpm: rounded(plannedSpm, 1),
  plannedMps: rounded(plannedMps, 2),
});

/** A device speaks of what it has just counted: about so long ago the first step that it speaks of began. */
const SPEAKS_AFTER_S = 0.5;

const courseBeside = (
  runs: readonly (readonly DeviceReading[])[],
  plan: PlannedRun | null,
): Pick<MeasuredRun, 'perMinute' | 'course'> => {
  const readings = plan?.steady ? runs.flat() : (runs.at(-1) ?? []);
  const beganS = readings[0]?.atS ?? 0;
  const minutes = minutesOf({
    readings: readings.map((reading) => ({ ...reading, atS: reading.atS - beganS })),
  });
  if (minutes.length > 0 && (plan?.steady || readings.length > MOST))
    return {
      perMinute: true,
      course: minutes
        .slice(-MOST)
        .map((minute) => momentOf(60 * minute.at, minute, plannedAt(plan, 60 * minute.at))),
    };
  return {
    perMinute: false,
    course: readings
      .slice(-MOST)
      .map((reading) =>
        momentOf(
          reading.atS - beganS,
          reading,
          plannedAt(plan, reading.atS - beganS + SPEAKS_AFTER_S),
        ),
      ),
  };
};

/** Places of a run that fit alike: a coach marks from the first contact on. */
const LATER = 0.01;

/** Which step of the plan the first measured one is, 0 first; by how the times fit. */
const firstFitting = (intervals: readonly number[], plan: PlannedRun): number => {
  const off = (first: number): number => {
    const shared = intervals.flatMap((intervalS, i) => {
      const planned = plan.steps[first + i];
      return planned ? [Math.abs(Math.log(intervalS / planned.intervalS))] : [];
    });
    // The first contact that is marked ends step 1: the first interval is step 2.
    return (
      shared.reduce((sum, value) => sum + value, 0) / shared.length + LATER * Math.abs(first - 1)
    );
  };
  const last = Math.max(1, plan.steps.length - intervals.length);
  return Array.from({ length: last + 1 }, (_, first) => first).sort((a, b) => off(a) - off(b))[0]!;
};

const stepsBeside = (
  contacts: readonly DeviceReading[],
  plan: PlannedRun | null,
): MeasuredRun['steps'] => {
  const intervals = contacts
    .slice(-MOST_STEPS)
    .map(({ cadenceSpm }) => Math.min(10, Math.max(0.02, 60 / cadenceSpm)));
  const first = plan && !plan.steady ? firstFitting(intervals, plan) : null;
  return intervals.map((intervalS, i) => {
    const planned = first === null ? undefined : plan?.steps[first + i];
    return {
      n: planned ? first! + i + 1 : null,
      lengthM: null,
      intervalS: rounded(intervalS, 3),
      plannedM: rounded(upTo(MOST_STEP, planned?.lengthM ?? Infinity), 3),
      plannedS: rounded(
        upTo(MOST_STEP, planned?.intervalS ?? Infinity) ??
          (plan?.steady ? 60 / plan.steady.cadenceSpm : null),
        3,
      ),
    };
  });
};

/**
 * What a device has measured of the rep that was run last, beside its plan; of a steady run all of it.
 *
 * @param device contacts: each of its readings is a foot that lands
 * @param readings since the rep before, with what was stood and walked between
 * @returns null while nothing was run
 */
export const measuredOf = (
  device: Pick<MeasuredRun, 'by' | 'simulated'> & { contacts: boolean },
  readings: readonly DeviceReading[],
  plan: PlannedRun | null,
): MeasuredRun | null => {
  const { by, simulated, contacts } = device;
  // Of contacts none is left out: a slow step is one as well.
  const runs = contacts ? contactRuns(readings) : runsIn(readings, runsFrom(plan));
  const last = runs.at(-1);
  if (!last) return null;
  // A contact is a step, unless there are more of them than anybody looks at one by one.
  const asSteps = contacts && !plan?.steady;
  return {
    by,
    simulated,
    steps: asSteps ? stepsBeside(last, plan) : [],
    ...(asSteps ? { perMinute: false, course: [] } : courseBeside(runs, plan)),
  };
};
