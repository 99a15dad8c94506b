import type { Foot } from '../feet';
import type { Span } from './body';
import type { OtherThing } from './otherThings';

export const WAYS = ['ahead', 'back', 'left', 'right'] as const;
/** Which way the feet travel, seen from where the body faces. */
export type Way = (typeof WAYS)[number];

/** One called step: where that foot goes from where it stands, and how the body turns with it. */
export type CalledStep = {
  foot: Foot;
  /** negative goes back */
  ahead: Span;
  aside: Span;
  to: Foot;
  turnDeg: number;
  turnTo: Foot;
  intervalS: number;
};

/** What a run-up arrives at: the straight solver is asked for it. */
export type RunTarget = {
  /** what the last foot lands on, as `board` */
  name: string;
  arrive: Foot;
  /** how much longer the second-last and shorter the last step is; 0 for an even end */
  longer: number;
  shorter: number;
};

/** Take-off spot and angle at a bar: the curve solver is asked for them. */
export type BarTarget = {
  alongM: number;
  outM: number;
  takeoffAngleDeg: number;
  /** how much longer the second-last and shorter the last step is; alike when left out */
  longer?: number | undefined;
  shorter?: number | undefined;
  /** how far the straight part swings out before the curve; 0 where it is left out */
  entryFlareDeg?: number | undefined;
};

/** The kinds of steps that a phase can hold, each with its parameters. */
export type PhaseSteps =
  | { kind: 'stance'; width: Span; depth: Span; front: Foot | null }
  | { kind: 'trigger'; foot: Foot; way: Way; step: Span; intervalS: number }
  | {
      kind: 'build-up';
      first: Foot | null;
      steps: number;
      /** takes more or fewer steps when the whole run-up does */
      fill: boolean;
      target: RunTarget | null;
    }
  | {
      kind: 'curve';
      to: Foot;
      steps: number;
      turnDeg: number;
      /** of a circle that is drawn on the floor, metres: how far it turns follows from the steps */
      radiusM?: number | undefined;
      step: Span;
      cadenceSpm: number;
      bar: BarTarget | null;
    }
  | {
      kind: 'crossover';
      first: Foot;
      steps: number;
      step: Span;
      /** every other step, where one side is exaggerated; alike where it is left out */
      second?: Span | null | undefined;
      /** each step is so many times the one before */
      grow: number;
      cadenceSpm: number;
      /** how far the body is turned from the way of travel, and to which side */
      sideOnDeg: number;
      to: Foot;
    }
  | {
      kind: 'short';
      first: Foot | null;
      steps: number;
      /** steps of the approach that shrink to the short length before it */
      taper: number;
      step: Span;
      cadenceSpm: number;
      width: Span;
      /** what the last short step arrives at: the straight solver is asked for the whole approach */
      target: { name: string; arrive: Foot } | null;
    }
  | {
      kind: 'give-ground';
      first: Foot | null;
      steps: number;
      step: Span;
      cadenceSpm: number;
      width: Span;
      /** stands for so long before the first step, seconds */
      waitS?: number | undefined;
    }
  | {
      kind: 'shuffle';
      to: Foot;
      steps: number;
      step: Span;
      /** time of one whole shuffle, both feet */
      intervalS: number;
      width: Span;
      /** stops after every so many shuffles; 0 for none */
      stopEvery: number;
      stopS: number;
      /** how far the toes of each foot are turned towards the way; straight on where nothing is said */
      leadToesDeg?: number | undefined;
      trailToesDeg?: number | undefined;
    }
  | {
      /** shuffles from lane to lane on an arc round the middle of a goal, with a stop in each */
      kind: 'arc';
      goalM: number;
      /** goal centre to the feet */
      depth: Span;
      lanes: number;
      /** the outermost lanes, from straight out */
      spreadDeg: number;
      /** the post from which the lanes are counted */
      post: Foot;
      fromLane: number;
      toLane: number;
      /** longest shuffle */
      step: Span;
      intervalS: number;
      width: Span;
      stopS: number;
    }
  | {
      /** the wide pass: to a lane on the other side of the same arc */
      kind: 'arc-move';
      toLane: number;
      /** angle-first: the shortest way to the new lane line, then out along it */
      way: 'straight' | 'angle-first';
      step: Span;
      cadenceSpm: number;
      width: Span;
      /** the foot that it stops on, from which the next move goes */
      stop: Foot;
    }
  | {
      kind: 'gaps';
      gaps: number;
      gap: Span;
      contacts: number;
      way: Way;
      first: Foot;
      cadenceSpm: number;
    }
  | { kind: 'pivot'; on: Foot; turn: 'front' | 'reverse'; turnDeg: number; intervalS: number }
  | {
      kind: 'gather';
      feet: 'one-two' | 'together';
      first: Foot;
      /** way to the first foot of the gather */
      ahead: Span;
      /** one-two: on to the second foot; together: between the feet */
      apart: Span;
      intervalS: number;
      /** each foot has its box on the ground */
      boxes: boolean;
    }
  | {
      kind: 'finish';
      from: Foot | 'both';
      flight: Span;
      flightS: number;
      /** none: it does not land on the feet */
      land: Foot | 'both' | 'none';
    }
  | { kind: 'hold'; holdS: number }
  | {
      /** a step and a hop on the same foot, then on the other */
      kind: 'skip';
      first: Foot;
      skips: number;
      step: Span;
      hop: Span;
      /** of both, step and hop */
      intervalS: number;
    }
  | {
      kind: 'recover';
      first: Foot | null;
      steps: number;
      step: Span;
      way: Way;
      cadenceSpm: number;
      /** between the feet; as in running where it is left out */
      width?: Span | null | undefined;
    }
  | { kind: 'called'; calls: CalledStep[] };

export type PhaseKind = PhaseSteps['kind'];

export const BALL = ['gather', 'release', 'dribble'] as const;

export type ReadOption = {
  code: string;
  /** the phase that this option goes on with */
  to: string;
  weight: number;
};

/** One phase of a sequence, as far as its footfalls go. */
export type SequencePhase = {
  code: string;
  steps: PhaseSteps;
  /** a foot may land twice running in it, as in a hop, a jab or a re-plant */
  again?: boolean | undefined;
  /** the body turns before the first step of the phase */
  turn: { deg: number; to: Foot } | null;
  /** what becomes of the ball: in hand from the first contact, gone with the last, or put down */
  ball: (typeof BALL)[number] | null;
  /** the phase after this one; null for the next in the list, 'end' for none */
  then: string | null;
  /** the way goes on by what is seen */
  read: { options: readonly ReadOption[] } | null;
};

export const OWN_SIDES = ['hand', 'take-off foot', 'neither'] as const;

/**
 * A movement as the engine sees it, written for one side: its own `left` and `right` hold for an athlete
 * whose hand or take-off foot is `side`; by neither, they hold for everybody.
 */
export type Sequence = {
  writtenFor: { by: (typeof OWN_SIDES)[number]; side: Foot };
  phases: readonly SequencePhase[];
  others: readonly OtherThing[];
};

/**
 * The phases in the order in which they are gone through.
 *
 * @param reads phase code → code of the option taken; the first option where none is named
 * @example
 * const phases = ['go', 'turn', 'stop'].map((code) => ({ code, then: null, read: null }));
 * pathOf([{ ...phases[0], then: 'stop' }, ...phases.slice(1)]).map(({ code }) => code) // ['go', 'stop']
 */
export const pathOf = <P extends SequencePhase>(
  phases: readonly P[],
  reads: Readonly<Record<string, string>> = {},
): P[] => {
  const path: P[] = [];
  let at = 0;
  while (at >= 0 && at < phases.length) {
    const phase = phases[at]!;
    if (path.includes(phase)) break;
    path.push(phase);
    const options = phase.read?.options ?? [];
    const taken = options.find((option) => option.code === reads[phase.code]) ?? options[0];
    const next = taken?.to ?? phase.then;
    if (next === 'end') break;
    at = next === null ? at + 1 : phases.findIndex((phase) => phase.code === next);
  }
  return path;
};
