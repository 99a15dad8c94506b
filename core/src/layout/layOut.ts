import { number } from '../check';
import type { Side } from '../repLog';
import type { CurvePlan } from '../solveCurve';
import type { StraightFailure } from '../solveStraight';
import { spanM, type Body } from './body';
import type { Layout, OtherPath, PhaseSpan } from './shape';
import { mirrorLayout } from './mirror';
import { cutPart, type Part } from './part';
import { LAYING, mark, runWidthM, type Ground } from './phases';
import { layRunUp, runLength, type BarAsk, type RunAsk } from './runUp';
import { pathOf, type OtherThing, type Sequence, type SequencePhase } from './sequence';
import { moved, newWalker, note, sign, type Place } from './walker';

/** Changes when the same sequence could be laid out differently; stored with every plan. */
export const LAYOUT_VERSION = 1;

export type LayoutChoices = {
  /** other: the whole sequence seen in a mirror, feet swapped */
  side?: Side | undefined;
  /** phase code → code of the option taken */
  reads?: Readonly<Record<string, string>> | undefined;
  /** 0.2–1.1 of full speed, 1 when absent */
  speedFraction?: number | undefined;
  part?: Part | undefined;
  /** what is asked of a run-up with a target: steps, start mark, ending … */
  run?: RunAsk | undefined;
  /** what is asked of a curved run-up: take-off spot, angle, steps, apron … */
  bar?: BarAsk | undefined;
};

const laidOther = (
  other: OtherThing,
  body: Body,
  frame: Place & { facingDeg: number; timeS: number },
): OtherPath => {
  const place = (from: Place, ahead: number, aside: number): Place =>
    moved(moved(from, frame.facingDeg, ahead), frame.facingDeg + 90, aside);
  const at = place(frame, spanM(other.ahead, body), sign(other.to) * spanM(other.aside, body));
  if (other.wideM > 0) {
    const ends = [-1, 1].map((side) => place(at, 0, (side * other.wideM) / 2));
    return {
      kind: other.kind,
      name: other.name,
      line: true,
      points: ends.map((end) => ({ ...end, timeS: 0 })),
    };
  }
  const points = [{ ...at, timeS: 0 }];
  if (other.moves) {
    const { moves } = other;
    const to = place(at, spanM(moves.ahead, body), sign(moves.to) * spanM(moves.aside, body));
    const wayM = Math.hypot(to.besideM - at.besideM, to.aheadM - at.aheadM);
    if (moves.afterS > 0) points.push({ ...at, timeS: moves.afterS });
    points.push({ ...to, timeS: moves.afterS + wayM / moves.speedMps });
  }
  return { kind: other.kind, name: other.name, line: false, points };
};

/** Lays one phase that is no run-up; the engine knows every kind. */
const layPhase = (ground: Ground, phase: SequencePhase): void => {
  const { steps } = phase;
  if (steps.kind === 'build-up') throw new RangeError('a build-up is laid as a run-up');
  // Each kind is laid by the function of its own name, which takes exactly that kind.
  (LAYING[steps.kind] as (ground: Ground, phase: SequencePhase, own: typeof steps) => void)(
    ground,
    phase,
    steps,
  );
};

/**
 * What becomes of the ball in a phase shows at its first contact, or at its last when it leaves; in a
 * jump it leaves between take-off and landing, so it shows at the take-off.
 */
const markBall = (ground: Ground, phase: SequencePhase): void => {
  const { footfalls } = ground.walker;
  const inPhase = footfalls.filter((fall) => fall.phase === phase.code && fall.n > 0);
  const leaves =
    phase.steps.kind === 'finish' ? footfalls.findLast((fall) => fall.takeOff) : inPhase.at(-1);
  const at = phase.ball === 'release' ? leaves : inPhase[0];
  if (phase.ball && at) at.ball = phase.ball;
};

/**
 * Lays a sequence out on the ground for one athlete: every footfall with place, time and phase, the
 * marks to set out, and where opponent, ball or bar are. One engine for all movements; run-ups with a
 * target on the ground or a bar go through the straight and the curve solver.
 *
 * Speed scales run steps and their cadence by its root each, as the straight solver does; all other
 * footwork keeps its lengths and slows down.
 *
 * @param athlete own measures in metres; hand and take-off foot decide whether it is mirrored
 * @returns metres, seconds, degrees clockwise from where the athlete faces at the start
 * @throws {RangeError} naming what is out of range
 * @example
 *   const { footfalls } = layOut(sequence, body, { side: 'other', reads: { give: 'left' } });
 *   // each with place, foot, phase and time; n is 0 for the feet that stand at the start
 * Source: plane geometry; step model and solvers as in their own files
 */
export const layOut = (sequence: Sequence, athlete: Body, choices: LayoutChoices = {}): Layout => {
  const speed = number('speedFraction', choices.speedFraction ?? 1, { min: 0.2, max: 1.1 });
  const path = pathOf(sequence.phases, choices.reads);
  const walker = newWalker(sequence.writtenFor.side);
  const half = runWidthM(athlete) / 2;
  walker.feet.left = { besideM: -half, aheadM: 0 };
  walker.feet.right = { besideM: half, aheadM: 0 };
  const ground: Ground = { walker, marks: [], body: athlete, speed };
  const phases: PhaseSpan[] = [];
  const others: OtherPath[] = [];
  let failure: StraightFailure | null = null;
  let curve: CurvePlan | null = null;
  mark(ground, 'start', 'start');

  let at = 0;
  while (at < path.length) {
    const phase = path[at]!;
    if (phase.turn) {
      walker.facingDeg += sign(phase.turn.to) * phase.turn.deg;
      note(walker);
    }
    const run = runLength(path, at);
    const together = path.slice(at, at + Math.max(1, run));
    const fromS = walker.timeS;
    if (run > 0) {
      const laid = layRunUp(ground, together, choices.run ?? {}, choices.bar ?? {});
      failure ??= laid.failure;
      curve ??= laid.curve;
      if (laid.bar) {
        const { from, to, apron } = laid.bar;
        const still = (ends: readonly Place[]): OtherPath['points'] =>
          ends.map((end) => ({ ...end, timeS: 0 }));
        others.push({ kind: 'bar', name: 'bar', line: true, points: still([from, to]) });
        for (const edge of apron) {
          others.push({ kind: 'line', name: 'apron', line: true, points: still(edge) });
        }
      }
    } else {
      layPhase(ground, phase);
    }
    let since = fromS;
    together.forEach((one, i) => {
      const contacts = walker.footfalls.filter((fall) => fall.phase === one.code && fall.n > 0);
      const toS = i === together.length - 1 ? walker.timeS : (contacts.at(-1)?.timeS ?? since);
      phases.push({ code: one.code, fromS: since, toS, read: one.read !== null });
      since = toS;
      markBall(ground, one);
    });
    if (together.at(-1)!.read) mark(ground, 'read', 'read');
    at += together.length;
  }

  const start = walker.track[0]!;
  const end = { ...walker.centre, facingDeg: walker.facingDeg, timeS: walker.timeS };
  for (const other of sequence.others) {
    others.push(laidOther(other, athlete, other.from === 'start' ? start : end));
  }
  const layout: Layout = {
    mirrored: false,
    footfalls: walker.footfalls,
    marks: ground.marks,
    track: walker.track,
    phases,
    others,
    totalTimeS: walker.timeS,
    failure,
    curve,
  };
  const { by, side } = sequence.writtenFor;
  const ownSide = by === 'hand' ? athlete.hand : athlete.takeoffFoot;
  const mirrored = (ownSide !== side) !== (choices.side === 'other');
  const cut = choices.part ? cutPart(layout, choices.part) : layout;
  return mirrored ? mirrorLayout(cut) : cut;
};
