import { type Foot, otherFoot } from '../feet';
import type { Body } from './body';
import type { OtherPath } from './otherThings';
import type { PhaseKind, PhaseSteps, SequencePhase } from './sequence';
import { nextFoot, type Place, type Walker } from './walker';

export type MarkKind =
  'start' | 'check' | 'target' | 'shorten' | 'curve' | 'box' | 'gap' | 'lane' | 'read' | 'take-off';

/** A spot to set out on the ground. */
export type Mark = Place & {
  kind: MarkKind;
  label: string;
  /** the way through it, degrees */
  headingDeg: number;
  /** the step that it goes with */
  n: number;
};

/** What may be asked of a keeper's arc beyond what the movement says. */
export type ArcAsk = {
  goalM?: number | undefined;
  depthM?: number | undefined;
  lanes?: number | undefined;
  spreadDeg?: number | undefined;
  /** the lane in which the shuffles end, and the one that the wide pass asks for */
  atLane?: number | undefined;
  wideLane?: number | undefined;
};

/** Lanes on an arc round the middle of a goal, on the ground; straight out of it is ahead. */
export type GoalArc = {
  centre: Place;
  goalM: number;
  radiusM: number;
  angles: number[];
  /** the lane that the feet are in, counted from 1 */
  lane: number;
};

export type Ground = {
  walker: Walker;
  marks: Mark[];
  /** what lies on the ground because the steps are laid round it, such as bags */
  things: OtherPath[];
  body: Body;
  /** fraction of full speed, of the phase that is being laid */
  speed: number;
  /** the phases on the way, and the one that is being laid */
  path: readonly SequencePhase[];
  at: number;
  /** the arc round a goal that the feet are on, once there is one */
  arc: GoalArc | null;
  arcAsk: ArcAsk;
};

/** Between the lines that left and right foot run on, as a fraction of height. */
const RUN_WIDTH_OF_HEIGHT = 0.1;
/**
 * @example
 * const athlete = { trials: [], heightM: 1.75, legM: null, shoeM: null, hand: 'right', takeoffFoot: 'left' };
 * runWidthM(bodyOf(athlete)) // 0.175
 */
export const runWidthM = (body: Body): number => RUN_WIDTH_OF_HEIGHT * body.heightM;

export const mark = (
  { marks, walker }: Ground,
  kind: MarkKind,
  label: string,
  at: Place = walker.centre,
): void => {
  marks.push({
    kind,
    label,
    besideM: at.besideM,
    aheadM: at.aheadM,
    headingDeg: walker.facingDeg,
    n: walker.n,
  });
};

export type Of<K extends PhaseKind> = Extract<PhaseSteps, { kind: K }>;
export type Laying<K extends PhaseKind> = (
  ground: Ground,
  phase: SequencePhase,
  steps: Of<K>,
) => void;

/** How many contacts a phase alternates through, and whether it leaves open which foot begins. */
const alternating = ({ steps }: SequencePhase): { first: Foot | null; count: number } | null => {
  switch (steps.kind) {
    case 'build-up':
    case 'give-ground':
    case 'recover':
      return { first: steps.first, count: steps.steps };
    case 'short':
      return { first: steps.first, count: steps.steps + steps.taper };
    case 'curve':
      return { first: null, count: steps.steps };
    case 'crossover':
      return { first: steps.first, count: steps.steps };
    case 'gaps':
      return { first: steps.first, count: steps.gaps * steps.contacts };
    case 'gather':
      return { first: steps.first, count: 2 };
    case 'trigger':
      return { first: steps.foot, count: 1 };
    case 'called':
      return { first: steps.calls[0]!.foot, count: steps.calls.length };
    case 'shuffle':
      return { first: steps.to, count: steps.steps * 2 };
    case 'finish':
      return steps.from === 'both' ? null : { first: otherFoot(steps.from), count: 0 };
    case 'skip':
      // The last foot hops: the next to land is the other, as after a step.
      return { first: steps.first, count: steps.skips };
    case 'arc':
    case 'arc-move':
    case 'hold':
    case 'pivot':
    case 'stance':
      return null;
  }
};

/**
 * The foot that begins a phase which leaves it open. Out of a stance either may: the one is taken with
 * which the feet come out right at the next phase that names its foot.
 */
export const openFoot = ({ walker, path, at }: Ground): Foot => {
  if (!walker.free) return nextFoot(walker, null);
  let steps = 0;
  for (const phase of path.slice(at)) {
    const way = alternating(phase);
    if (!way) break;
    if (way.first) return steps % 2 === 0 ? way.first : otherFoot(way.first);
    steps += way.count;
  }
  return nextFoot(walker, null);
};
