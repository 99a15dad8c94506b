import { number, oneOf, whole } from '../check';
import type { Foot } from '../feet';
import type { StepModel } from './stepModel';

export type Ending =
  | { kind: 'even' }
  | { kind: 'penultimate'; longer: number; shorter: number }
  | { kind: 'short'; count: number; taperSteps: number; lengthM: number; cadenceSpm: number };

export type Absorb = 'even' | 'early' | { stepsOut: number };

export type Pin = { step: number; lengthM: number };
export type StepBound = { step: number; minM?: number | undefined; maxM?: number | undefined };

export type StraightInput = {
  model: StepModel;
  takeoffFoot: Foot;
  /** 1–60 */
  steps: number;
  /** start mark to target, metres; left out for a free start */
  distanceM?: number | undefined;
  startFoot?: Foot | undefined;
  ending?: Ending | undefined;
  absorb?: Absorb | undefined;
  /** most that any step may change, as a fraction of its length; 0–0.5, 0.08 when absent */
  tolerance?: number | undefined;
  /** fraction of full speed; 0.2–1.1, 1 when absent */
  speedFraction?: number | undefined;
  /** steps whose length is set; the others are solved exactly under them */
  pins?: readonly Pin[] | undefined;
  /** how short or long single steps may be at all, whatever the tolerance */
  bounds?: readonly StepBound[] | undefined;
  /** how many steps before the target each check mark lies */
  checkMarks?: readonly number[] | undefined;
};

export type StepRole = 'build' | 'penultimate' | 'last' | 'taper' | 'short';

export type SolvedStep = {
  n: number;
  foot: Foot;
  role: StepRole;
  pinned: boolean;
  lengthM: number;
  preferredM: number;
  fromStartM: number;
  toTargetM: number;
  cadenceSpm: number;
  intervalS: number;
  /** time from the start of step 1 to this contact */
  timeS: number;
  speedMps: number;
};

/** What the change to short steps asks of the athlete's legs. */
export type Brake = {
  /** from the target: where the first short step begins, of the steps as they are solved */
  shortenAtM: number;
  brakeZoneM: number;
  entrySpeedMps: number;
  shortSpeedMps: number;
  decelMps2: number;
};

export type StraightPlan = {
  feasible: true;
  startFoot: Foot;
  distanceM: number;
  minDistanceM: number;
  maxDistanceM: number;
  /** largest change of any step, as a fraction of its preferred length */
  maxAdjust: number;
  cost: number;
  endSpeedMps: number;
  totalTimeS: number;
  steps: SolvedStep[];
  checkMarks: { stepsOut: number; toTargetM: number; foot: Foot }[];
  brake?: Brake;
};

export type StraightFailure = {
  feasible: false;
  reason: 'wrong-foot' | 'too-short' | 'too-long';
  /** the foot that does arrive on the take-off foot */
  startFoot: Foot;
  minDistanceM: number;
  maxDistanceM: number;
};

export type StraightResult = StraightPlan | StraightFailure;

export const checkEnding = (ending: Ending, steps: number): Ending => {
  oneOf('ending.kind', ending.kind, ['even', 'penultimate', 'short']);
  if (ending.kind === 'penultimate') {
    number('ending.longer', ending.longer, { min: 0, max: 0.3 });
    number('ending.shorter', ending.shorter, { min: 0, max: 0.3 });
  }
  if (ending.kind === 'short') {
    whole('ending.count', ending.count, { min: 1, max: 20 });
    whole('ending.taperSteps', ending.taperSteps, { min: 0, max: 20 });
    number('ending.lengthM', ending.lengthM, { min: 0.03, max: 1.5 });
    number('ending.cadenceSpm', ending.cadenceSpm, { min: 60, max: 900 });
    if (ending.count + ending.taperSteps >= steps) {
      throw new RangeError(
        `ending.count plus ending.taperSteps must leave at least one step before them, got ${ending.count + ending.taperSteps} of ${steps} steps`,
      );
    }
  }
  return ending;
};

export const checkPins = (pins: readonly Pin[], n: number): readonly Pin[] => {
  const seen = new Set<number>();
  pins.forEach(({ step, lengthM }, i) => {
    whole(`pins[${i}].step`, step, { min: 1, max: n });
    number(`pins[${i}].lengthM`, lengthM, { min: 0.03, max: 4 });
    if (seen.has(step)) throw new RangeError(`pins[${i}].step is pinned twice, got ${step}`);
    seen.add(step);
  });
  return pins;
};

export const checkBounds = (bounds: readonly StepBound[], n: number): readonly StepBound[] => {
  bounds.forEach(({ step, minM, maxM }, i) => {
    whole(`bounds[${i}].step`, step, { min: 1, max: n });
    if (minM !== undefined) number(`bounds[${i}].minM`, minM, { min: 0, max: 4 });
    if (maxM !== undefined) number(`bounds[${i}].maxM`, maxM, { min: minM ?? 0.03, max: 4 });
  });
  return bounds;
};
