import type { CurvePlan } from '../curve/solveCurve';
import type { StraightFailure } from '../runup/straightPlan';
import { arcOf, standOnArc } from './arc';
import { type Body, spanM } from './body';
import { type Ground, mark, runWidthM } from './ground';
import type { LayoutChoices } from './layoutChoices';
import { groundLines } from './lines';
import type { OtherPath, OtherThing } from './otherThings';
import { LAYING } from './phases';
import { type Bar, layRunUp } from './runUp';
import { pathOf, type Sequence, type SequencePhase } from './sequence';
import type { Layout, PhaseSpan } from './shape';
import { runLength } from './straightRun';
import {
  between,
  type Footfall,
  moved,
  newWalker,
  note,
  type Place,
  sign,
  type TrackPoint,
  type Walker,
} from './walker';

type Frame = Place & { facingDeg: number; timeS: number };

const laidOther = (other: OtherThing, body: Body, frame: Frame): OtherPath => {
  const place = (from: Place, ahead: number, aside: number): Place =>
    moved(moved(from, frame.facingDeg, ahead), frame.facingDeg + 90, aside);
  const at = place(frame, spanM(other.ahead, body), sign(other.to) * spanM(other.aside, body));
  if (other.wideM > 0) {
    const across = frame.facingDeg + 90 + sign(other.to) * (other.angleDeg ?? 0);
    const ends = [-1, 1].map((side) => moved(at, across, (side * other.wideM) / 2));
    return {
      kind: other.kind,
      name: other.name,
      line: true,
      points: ends.map((end) => ({ ...end, timeS: 0 })),
    };
  }
  if (other.way) {
    const points = other.way.map(({ timeS, ahead, aside }) => ({
      besideM: sign(other.to) * spanM(aside, body),
      aheadM: spanM(ahead, body),
      timeS,
    }));
    return { kind: other.kind, name: other.name, line: false, points };
  }
  const points: OtherPath['points'] = [];
  if (other.comes) {
    const { comes } = other;
    const from = place(at, spanM(comes.ahead, body), sign(comes.to) * spanM(comes.aside, body));
    const wayS = between(from, at) / comes.speedMps;
    // What would have set out before the athlete is on its way already when it begins.
    const part = wayS > frame.timeS ? 1 - frame.timeS / wayS : 0;
    points.push({
      besideM: from.besideM + (at.besideM - from.besideM) * part,
      aheadM: from.aheadM + (at.aheadM - from.aheadM) * part,
      timeS: Math.max(0, frame.timeS - wayS),
    });
    points.push({ ...at, timeS: frame.timeS });
  } else {
    points.push({ ...at, timeS: 0 });
  }
  if (other.moves) {
    const { moves } = other;
    const to = place(at, spanM(moves.ahead, body), sign(moves.to) * spanM(moves.aside, body));
    const fromS = frame.timeS + moves.afterS;
    if (fromS > points.at(-1)!.timeS) points.push({ ...at, timeS: fromS });
    points.push({ ...to, timeS: fromS + between(to, at) / moves.speedMps });
  }
  return { kind: other.kind, name: other.name, line: false, points };
};

/** Lays one phase that is no run-up; the engine knows every kind. */
const layPhase = (ground: Ground, phase: SequencePhase): void => {
  const { steps } = phase;
  if (steps.kind === 'build-up') throw new RangeError('a build-up is laid as a run-up');
  // Each kind is laid by the function of its own name, which takes exactly that kind.
  (LAYING[steps.kind] as (ground: Ground, phase: SequencePhase, kindSteps: typeof steps) => void)(
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

const still = (ends: readonly Place[]): OtherPath['points'] =>
  ends.map((end) => ({ ...end, timeS: 0 }));

/** Where and when something is set out from; null where its phase is not on the way. */
const frameOf = (from: string, walker: Walker, phases: readonly PhaseSpan[]): Frame | null => {
  const at = (point: TrackPoint): Frame => ({ ...point });
  if (from === 'start') return at(walker.track[0]!);
  if (from === 'end') {
    return { ...walker.centre, facingDeg: walker.facingDeg, timeS: walker.timeS };
  }
  const phase = phases.find((phase) => phase.code === from);
  if (!phase) return null;
  const turnFalls = walker.footfalls.filter((fall) => fall.phase === from && fall.n > 0);
  // A ball is taken with both feet of the gather down.
  const first = turnFalls[0]?.contact === 'gather' ? turnFalls.at(-1) : turnFalls[0];
  const timeS = first?.timeS ?? phase.fromS;
  // As the foot lands: a turn that follows at once comes after it.
  return at(walker.track.find((point) => point.timeS >= timeS - 1e-9) ?? walker.track.at(-1)!);
};

/** Walks through a sequence: its layout, and the walker at the end of it. */
const walked = (
  sequence: Sequence,
  athlete: Body,
  choices: LayoutChoices,
): { layout: Layout; walker: Walker; phases: PhaseSpan[] } => {
  const full = choices.speedFraction ?? 1;
  const path = pathOf(sequence.phases, choices.reads);
  const walker = newWalker(sequence.writtenFor.side);
  const half = runWidthM(athlete) / 2;
  walker.feet.left = { besideM: -half, aheadM: 0 };
  walker.feet.right = { besideM: half, aheadM: 0 };
  const keeper = arcOf(path, athlete, choices.arc ?? {});
  const ground: Ground = {
    walker,
    marks: [],
    things: [],
    body: athlete,
    speed: full,
    path,
    at: 0,
    arc: keeper && keeper.arc,
    arcAsk: choices.arc ?? {},
  };
  standOnArc(ground);
  const phases: PhaseSpan[] = [];
  const others: OtherPath[] = [];
  let failure: StraightFailure | null = null;
  let curve: CurvePlan | null = null;
  let bar: Bar | null = null;
  mark(ground, 'start', 'start');

  while (ground.at < path.length) {
    const { at } = ground;
    const phase = path[at]!;
    ground.speed = Math.max(SLOWEST, full * (choices.speeds?.[phase.code] ?? 1));
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
        bar = laid.bar;
        const { from, to, apron } = laid.bar;
        others.push({ kind: 'bar', name: 'bar', line: true, points: still([from, to]) });
        for (const edge of apron) {
          others.push({ kind: 'edge', name: 'apron', line: true, points: still(edge) });
        }
      }
    } else {
      layPhase(ground, phase);
    }
    let since = fromS;
    together.forEach((phase, i) => {
      const contacts = walker.footfalls.filter((fall) => fall.phase === phase.code && fall.n > 0);
      const toS = i === together.length - 1 ? walker.timeS : (contacts.at(-1)?.timeS ?? since);
      phases.push({ code: phase.code, fromS: since, toS, read: phase.read !== null });
      since = toS;
      markBall(ground, phase);
    });
    if (together.at(-1)!.read) mark(ground, 'read', 'read');
    ground.at += together.length;
  }

  if (ground.arc) {
    const { centre, goalM } = ground.arc;
    const posts = [-goalM / 2, goalM / 2].map((off) => moved(centre, 90, off));
    others.push({ kind: 'goal', name: 'goal', line: true, points: still(posts) });
  }
  others.push(...ground.things);
  others.push(...groundLines(choices.lines ?? [], { arc: ground.arc, bar, marks: ground.marks }));
  const usual =
    sequence.others.some((other) => other.usual) && choices.reads
      ? walked({ ...sequence, others: [] }, athlete, { ...choices, reads: undefined })
      : { walker, phases };
  for (const other of sequence.others) {
    if (other.only && !phases.some(({ code }) => code === other.only)) continue;
    const at = other.usual ? usual : { walker, phases };
    const frame = frameOf(other.from, at.walker, at.phases);
    if (!frame) continue;
    const { twin } = other;
    others.push({ ...laidOther(other, athlete, frame), ...(twin && { twin }) });
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
    held: [],
  };
  return { layout, walker, phases };
};

export const lay = (sequence: Sequence, athlete: Body, choices: LayoutChoices): Layout =>
  walked(sequence, athlete, choices).layout;

/** Contacts after which the body was in the air, or in which it is stamped against on purpose. */
export const isThrown = (fall: Footfall, next: Footfall): boolean =>
  fall.takeOff ||
  next.takeOff ||
  next.landing ||
  next.ball === 'release' ||
  fall.ball === 'release';

/** A body or a foot that turns by more than this from one contact to the next braces, degrees. */
const TURNS_DEG = 15;

/** A foot that is put down no farther away than this stands where the one before did, metres. */
export const ON_THE_SPOT_M = 0.01;

export const turns = (from: Footfall, to: Footfall): boolean =>
  [to.facingDeg - from.facingDeg, to.headingDeg - from.headingDeg].some(
    (deg) => Math.abs(deg) > TURNS_DEG,
  );

/** Slower than this part of full speed nobody runs. */
export const SLOWEST = 0.2;
