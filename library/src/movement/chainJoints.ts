import { type Foot, otherFoot } from '@gravek/core/feet';
import { layOut } from '@gravek/core/layout/layOut';
import { type Footfall, turned } from '@gravek/core/layout/walker';
import type { Fault, Load, MovementPhase } from '@gravek/contract/movement';
import { usualBody } from '../planning/usualBody';
import { mirrorWords } from './sides';

/** A run of phases that is joined to others: where its feet and the ball are follows from them. */
export type Link = {
  code: string;
  name: string;
  summary: string;
  phases: MovementPhase[];
  faults: Fault[];
  loads: Load[];
};
/** Between the codes of a chain's parts. */
export const JOINT = '--';

/** Where a link leaves the body: feet, facing, ball. */
type State = {
  last: Foot | 'both';
  facingDeg: number;
  ball: 'held' | 'dribbled' | 'gone';
  /** the dribble has been used and the ball picked up again */
  pickedUp: boolean;
  /** the foot that turns and stays while the ball is held */
  pivot: Foot | null;
};

export const USUAL = usualBody();
export const RIGHT_HANDED = { by: 'hand', side: 'right' } as const;

const stateAfter = (phases: readonly MovementPhase[]): State => {
  const { footfalls, track } = layOut({ writtenFor: RIGHT_HANDED, phases, others: [] }, USUAL);
  const end = footfalls.at(-1)!;
  const together = footfalls.filter((fall) => fall.n === end.n).length > 1;
  let ball: State['ball'] = 'dribbled';
  let dribbles = 0;
  let caught: Footfall | null = null;
  let pickedUp = false;
  for (const fall of footfalls) {
    if (fall.ball === 'gather') {
      ball = 'held';
      caught = fall;
      pickedUp = dribbles > 0;
    } else if (fall.ball === 'dribble') {
      ball = 'dribbled';
      dribbles += 1;
    } else if (fall.ball === 'release') ball = 'gone';
  }
  return {
    last: together ? 'both' : end.foot,
    facingDeg: turned(track.at(-1)!.facingDeg),
    ball,
    pickedUp,
    pivot: ball === 'held' && caught ? caught.foot : null,
  };
};

const swapped = (phases: readonly MovementPhase[]): MovementPhase[] =>
  phases.map((phase) => ({
    ...phase,
    steps: JSON.parse(
      JSON.stringify(phase.steps).replace(/"(left|right)"/g, (side) => mirrorWords(side)),
    ) as MovementPhase['steps'],
  }));

/** One step that makes an end and a beginning fit, the ball going down with it. */
const joining = (code: string, foot: Foot, again: boolean): MovementPhase => ({
  code,
  name: 'One dribble',
  steps: {
    kind: 'recover',
    first: foot,
    steps: 1,
    step: { value: 0.85, of: 'leg' },
    way: 'ahead',
    cadenceSpm: 180,
  },
  again,
  turn: null,
  ball: 'dribble',
  then: null,
  eyes: 'the goal, not the ball',
  checkpoints: [{ look: 'Bounce', right: 'One, ahead of the step that goes with it' }],
  read: null,
});

const firstFoot = (phases: readonly MovementPhase[]): Foot | null => {
  const { footfalls } = layOut({ writtenFor: RIGHT_HANDED, phases, others: [] }, USUAL);
  const first = footfalls.find((fall) => fall.n > 0);
  const both = footfalls.filter((fall) => fall.n === first?.n).length > 1;
  return both || !first ? null : first.foot;
};

/** Faces the goal again before what follows. */
const facingGoal = (phases: readonly MovementPhase[], facingDeg: number): MovementPhase[] => {
  const deg = Math.round(Math.abs(facingDeg));
  const [first, ...rest] = phases;
  if (!first || deg < 4) return [...phases];
  const turnDeg = first.turn ? (first.turn.to === 'right' ? 1 : -1) * first.turn.deg : 0;
  const by = turnDeg - facingDeg;
  return [
    { ...first, turn: { deg: Math.round(Math.abs(by)), to: by > 0 ? 'right' : 'left' } },
    ...rest,
  ];
};

type Joined = { phases: MovementPhase[]; says: string | null } | { why: string };

/** Puts one link after what came before, with the step between that they need, or says why it cannot be. */
export const joined = (
  before: readonly MovementPhase[],
  beforeName: string,
  next: Link,
  needs: 'dribbled' | 'either',
  skipsHeld: string | null,
  joint: string,
): Joined => {
  const state = stateAfter(before);
  if (state.ball === 'gone') return { why: `After ${beforeName.toLowerCase()} the ball is gone.` };
  const stands = state.ball === 'held' && skipsHeld !== null;
  const phasesLeft = stands ? next.phases.filter(({ code }) => code !== skipsHeld) : next.phases;
  if (stands) {
    // Off a foot that may move: the pivot stays.
    const free = state.pivot && otherFoot(state.pivot);
    const [first, ...rest] = phasesLeft;
    const steps = first!.steps;
    const led = 'first' in steps && free ? { ...first!, steps: { ...steps, first: free } } : first!;
    return { phases: facingGoal([led as MovementPhase, ...rest], state.facingDeg), says: null };
  }
  if (state.ball === 'held' && state.pickedUp) {
    return {
      why: `${beforeName} ends with the ball picked up after the dribble; from there only a shot or a pass off the feet that are down can follow.`,
    };
  }
  const free = state.pivot ? otherFoot(state.pivot) : null;
  const startFoot = firstFoot(phasesLeft);
  if (state.ball === 'held') {
    // The free foot takes the step with which the ball goes down, then the feet alternate.
    const step = joining(joint, free!, true);
    const steps = [step];
    if (startFoot !== null && startFoot === free) {
      steps.push({ ...joining(`${joint}-2`, otherFoot(free), false), name: 'And a step' });
    }
    const says = `${steps.length === 1 ? 'One dribble' : 'One dribble and a step'} joins them: ${free} foot first, before the pivot lifts.`;
    return { phases: [...facingGoal(steps, state.facingDeg), ...phasesLeft], says };
  }
  if (startFoot !== null && startFoot === state.last) {
    const foot = otherFoot(startFoot);
    if (needs === 'either') {
      return { phases: facingGoal(swapped(phasesLeft), state.facingDeg), says: null };
    }
    return {
      phases: [...facingGoal([joining(joint, foot, false)], state.facingDeg), ...phasesLeft],
      says: `A step with the ${foot} foot joins them, on the same dribble.`,
    };
  }
  return { phases: facingGoal(phasesLeft, state.facingDeg), says: null };
};
