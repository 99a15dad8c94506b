import { number } from '../check';
import { USUAL_BRAKING_MPS2 } from '../runup/closingSpeed';
import type { Side } from '../session/repLog';
import type { CurvePlan } from '../curve/solveCurve';
import type { StraightFailure } from '../runup/solveStraight';
import { spanM, type Body } from './body';
import { arcOf, standOnArc } from './arc';
import type { Layout, PhaseSpan } from './shape';
import type { OtherPath } from './sequence';
import { mirrorLayout } from './mirror';
import { cutPart, type Part } from './part';
import { mark, runWidthM, type ArcAsk, type Ground } from './ground';
import { groundLines, type GroundLine } from './lines';
import { LAYING } from './phases';
import { layRunUp, runLength, type Bar, type BarAsk, type RunAsk } from './runUp';
import { pathOf, type OtherThing, type Sequence, type SequencePhase } from './sequence';
import {
  between,
  moved,
  newWalker,
  note,
  sign,
  type Footfall,
  type Place,
  type TrackPoint,
  type Walker,
} from './walker';

/** Changes when the same sequence could be laid out differently; stored with every plan. */
export const LAYOUT_VERSION = 5;

export type LayoutChoices = {
  /** other: the whole sequence seen in a mirror, feet swapped */
  side?: Side | undefined;
  /** phase code → code of the option taken */
  reads?: Readonly<Record<string, string>> | undefined;
  /** 0.2–1.1 of full speed, 1 when absent */
  speedFraction?: number | undefined;
  /** phase code → how much of that speed this phase is run at; 1 where none is named */
  speeds?: Readonly<Record<string, number>> | undefined;
  part?: Part | undefined;
  /** what is asked of a run-up with a target: steps, start mark, ending … */
  run?: RunAsk | undefined;
  /** what is asked of a curved run-up: take-off spot, angle, steps, apron … */
  bar?: BarAsk | undefined;
  /** what is asked of a keeper's arc: goal, depth, lanes */
  arc?: ArcAsk | undefined;
  /** lines that are on the ground already */
  lines?: readonly GroundLine[] | undefined;
};

/** Slower than this part of full speed nobody runs. */
const SLOWEST = 0.2;

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
  const own = walker.footfalls.filter((fall) => fall.phase === from && fall.n > 0);
  // A ball is taken with both feet of the gather down.
  const first = own[0]?.contact === 'gather' ? own.at(-1) : own[0];
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

const lay = (sequence: Sequence, athlete: Body, choices: LayoutChoices): Layout =>
  walked(sequence, athlete, choices).layout;

/** Contacts after which the body was in the air, or in which it is stamped against on purpose. */
const isThrown = (fall: Footfall, next: Footfall): boolean =>
  fall.takeOff ||
  next.takeOff ||
  next.landing ||
  next.ball === 'release' ||
  fall.ball === 'release';

/** A body or a foot that turns by more than this from one contact to the next braces, degrees. */
const TURNS_DEG = 15;

/** A foot that is put down no farther away than this stands where the one before did, metres. */
const ON_THE_SPOT_M = 0.01;

const turns = (from: Footfall, to: Footfall): boolean =>
  [to.facingDeg - from.facingDeg, to.headingDeg - from.headingDeg].some(
    (deg) => Math.abs(deg) > TURNS_DEG,
  );

/**
 * Where a layout asks for harder braking from one running step to the next than a body has, by `brakeDemand`:
 * m/s², and the contact that brakes. Feet that brace for a jump, a throw, a turn or a stop on both are no running steps; who comes
 * to rest brakes over the time until then.
 */
export const brakesOver = (
  layout: Pick<Layout, 'footfalls'>,
  limitMps2: number,
): { fall: Footfall; from: Footfall; decelMps2: number }[] => {
  const steps = layout.footfalls.filter((fall, i, all) => fall.n > 0 && fall.n !== all[i - 1]?.n);
  const onBoth = new Set(
    layout.footfalls.flatMap(({ n }, i, all) => (n === all[i - 1]?.n ? [n] : [])),
  );
  return steps.slice(1).flatMap((fall, i) => {
    const from = steps[i]!;
    if (isThrown(from, fall) || fall.contact === 'stand' || from.contact === 'stand') return [];
    const stillS = fall.timeS - from.timeS - fall.intervalS;
    const decelMps2 =
      stillS > 0.01
        ? from.speedMps / (from.intervalS / 2 + stillS)
        : fall.lengthM < ON_THE_SPOT_M
          ? from.speedMps / ((from.intervalS + fall.intervalS) / 2)
          : turns(from, fall) || onBoth.has(fall.n)
            ? 0
            : (from.speedMps ** 2 - fall.speedMps ** 2) / (2 * fall.lengthM);
    return decelMps2 > limitMps2 * (1 + 1e-6) ? [{ fall, from, decelMps2 }] : [];
  });
};

/**
 * Lays out, and slows each run that has to brake harder than the body can for what follows it: the close
 * is as fast as can still be braked.
 */
const laidWithin = (sequence: Sequence, athlete: Body, choices: LayoutChoices): Layout => {
  const limit = athlete.brakeMps2 ?? USUAL_BRAKING_MPS2;
  const path = pathOf(sequence.phases, choices.reads);
  const runs = sequence.phases.flatMap(({ code, steps }) =>
    steps.kind === 'build-up' || steps.kind === 'arc-move' ? [code] : [],
  );
  const taken = lay(sequence, athlete, choices);
  // What a solver was asked for is run as asked.
  if (choices.run || choices.bar) return taken;
  /** The run on the way that a layout brakes out of too hard. */
  const brokenRuns = (layout: Layout): (string | undefined)[] => {
    const order = layout.phases.map((phase) => phase.code);
    return brakesOver(layout, limit).map(({ from }) =>
      order.slice(0, order.indexOf(from.phase) + 1).findLast((code) => runs.includes(code)),
    );
  };
  // Who does not know yet which way it will go must be able to brake for each.
  const ways = [
    choices.reads,
    ...path.flatMap(({ code, read }) =>
      (read?.options ?? []).map((option) => ({ ...choices.reads, [code]: option.code })),
    ),
  ].filter(
    (reads, i) =>
      brokenRuns(i === 0 ? taken : lay(sequence, athlete, { ...choices, reads })).length,
  );
  const speeds: Record<string, number> = { ...choices.speeds };
  const held: Layout['held'] = [];
  const brokenAt = (reads: LayoutChoices['reads']): (string | undefined)[] =>
    brokenRuns(lay(sequence, athlete, { ...choices, reads, speeds }));
  for (const code of new Set(ways.flatMap(brokenAt))) {
    if (!path.some((phase) => phase.code === code) || code === undefined) continue;
    const asked = speeds[code] ?? 1;
    const within = (part: number): boolean => {
      speeds[code] = asked * part;
      return !ways.some((reads) => brokenAt(reads).includes(code));
    };
    let [low, high] = [SLOWEST, 1];
    for (let i = 0; i < 9; i += 1) {
      const middle = (low + high) / 2;
      if (within(middle)) low = middle;
      else high = middle;
    }
    speeds[code] = asked * low;
    held.push({ phase: code, part: low });
  }
  return held.length === 0 ? taken : { ...lay(sequence, athlete, { ...choices, speeds }), held };
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
 * const athlete = { trials: [], heightM: 1.75, legM: null, shoeM: null };
 * const body = bodyOf({ ...athlete, hand: 'right', takeoffFoot: 'left' });
 * const steps = { kind: 'build-up', first: 'left', steps: 4, fill: false, target: null };
 * const phase = { code: 'run', name: 'Run', steps, next: null, read: null, turn: null, ball: null };
 * const sequence = { writtenFor: { by: 'neither', side: 'left' }, phases: [phase], others: [] };
 * layOut(sequence, body).footfalls.map(({ n, foot }) => `${n} ${foot}`).at(-1) // '4 right'
 * Source: plane geometry; step model and solvers as in their own files
 */
export const layOut = (sequence: Sequence, athlete: Body, choices: LayoutChoices = {}): Layout => {
  number('speedFraction', choices.speedFraction ?? 1, { min: 0.2, max: 1.1 });
  for (const [code, part] of Object.entries(choices.speeds ?? {})) {
    number(`speeds.${code}`, part, { min: 0.05, max: 1.1 });
  }
  const layout = laidWithin(sequence, athlete, choices);
  const { by, side } = sequence.writtenFor;
  const ownSide = by === 'neither' ? side : by === 'hand' ? athlete.hand : athlete.takeoffFoot;
  const mirrored = (ownSide !== side) !== (choices.side === 'other');
  const cut = choices.part ? cutPart(layout, choices.part) : layout;
  return mirrored ? mirrorLayout(cut) : cut;
};
