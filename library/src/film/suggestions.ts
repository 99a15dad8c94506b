import type { PostureAngles } from '@gravek/core/body/posture';
import type { SideView } from '@gravek/core/body/sideView';
import type { Fault, Movement } from '@gravek/contract/movement';
import type { FaultFigure } from '@gravek/contract/movementParts';
import { firstPhaseOf } from '../movement/byCode';
import { plainly, type StepBeside } from './watched';

/** A body that was marked as a foot landed, with what its figures may be off by. */
export type SeenPose = PostureAngles & {
  /** step of the plan that has just ended; null where none fits */
  n: number | null;
  footToHipSdM: number;
};

/** Why a fault is suggested. */
export type Suggestion = {
  fault: Fault;
  figure: FaultFigure;
  /** the step of the plan that it was seen at; null for the run as a whole */
  n: number | null;
  /** what was measured, and what was planned or is usual; metres, metres a second or steps a minute */
  seen: number;
  planned: number;
  sd: number;
};

type Found = Omit<Suggestion, 'fault' | 'figure'> | null;

/** What was measured of a run. */
export type Measured = {
  rows: readonly StepBeside[];
  /** last foot beyond the line, metres; short of it negative; null where no line is known */
  beyond: { m: number; sdM: number } | null;
  poses: readonly SeenPose[];
  /** as the plan has the body at each contact */
  side: SideView | null;
};

const compared = (rows: readonly StepBeside[]) =>
  rows.flatMap(({ planned, seen, lengthOffM }) =>
    planned && lengthOffM !== null ? [{ planned, seen, lengthOffM }] : [],
  );

type Compared = ReturnType<typeof compared>[number];

const atStep = ({ planned, seen }: Compared): NonNullable<Found> => ({
  n: planned.n,
  seen: seen.lengthM,
  planned: planned.lengthM,
  sd: seen.lengthSdM,
});

/** Where shortening may begin: with the phase of the short steps, or else two steps before the take-off. */
const zoneFrom = (all: readonly Compared[]): number => {
  const short = all.find(({ planned }) => planned.contact === 'short');
  // Its first steps run down to the short ones.
  if (short) return all.findIndex(({ planned }) => planned.phase === short.planned.phase);
  const end = all.findIndex(({ planned }) => planned.takeOff);
  return Math.max(0, (end < 0 ? all.length : end + 1) - 2);
};

/** Last steps before the zone that are looked at for feet that were shortened to fit. */
const BEFORE_ZONE = 4;
const SHORTENED = 0.08;

/** What each figure finds in a run; null where it shows nothing, or nothing of it was seen. */
const FINDS: Record<FaultFigure, (run: Measured) => Found> = {
  'first-step-shorter': ({ rows }) => {
    const first = compared(rows).find(({ planned }) => planned.n === 1);
    return first &&
      first.lengthOffM < 0 &&
      plainly(first.lengthOffM, first.seen.lengthSdM, 0.12 * first.planned.lengthM)
      ? atStep(first)
      : null;
  },
  'shortened-before': ({ rows }) => {
    const all = compared(rows);
    const zone = zoneFrom(all);
    const found = all
      .slice(Math.max(0, zone - BEFORE_ZONE), zone)
      .find(
        ({ planned, seen, lengthOffM }) =>
          lengthOffM < 0 && plainly(lengthOffM, seen.lengthSdM, SHORTENED * planned.lengthM),
      );
    return found ? atStep(found) : null;
  },
  'short-steps-longer': ({ rows }) => {
    const short = compared(rows).filter(({ planned }) =>
      ['short', 'back'].includes(planned.contact),
    );
    if (short.length === 0) return null;
    const mean = (of: (step: Compared) => number): number =>
      short.reduce((sum, step) => sum + of(step), 0) / short.length;
    const [seen, planned] = [
      mean((step) => step.seen.lengthM),
      mean((step) => step.planned.lengthM),
    ];
    const sd = mean((step) => step.seen.lengthSdM) / Math.sqrt(short.length);
    return seen > planned && plainly(seen - planned, sd, Math.max(0.04, 0.2 * planned))
      ? { n: short[0]!.planned.n, seen, planned, sd }
      : null;
  },
  slowed: ({ rows }) => {
    const all = compared(rows.filter(({ isTimed }) => isTimed)).filter(
      ({ planned }) => !planned.landing,
    );
    const last = all.slice(-2);
    const before = all.slice(-5, -2);
    if (last.length < 2 || before.length < 2) return null;
    const speed = (part: readonly Compared[], of: 'seen' | 'planned'): number =>
      part.reduce((sum, step) => sum + step[of].lengthM, 0) /
      part.reduce((sum, step) => sum + step[of].intervalS, 0);
    // What the plan itself loses at the end is no fault.
    const planned = (speed(before, 'seen') * speed(last, 'planned')) / speed(before, 'planned');
    const seen = speed(last, 'seen');
    const part = (some: readonly Compared[]): number =>
      Math.hypot(...some.map((step) => step.seen.speedSdMps / step.seen.speedMps)) / some.length;
    const sd = seen * Math.hypot(part(last), part(before));
    return seen < planned && plainly(seen - planned, sd, 0.04 * planned)
      ? { n: last[0]!.planned.n, seen, planned, sd }
      : null;
  },
  'last-step-longer': ({ rows }) => {
    const all = compared(rows);
    const end = all.findLast(({ planned }) => !planned.landing);
    const isLast = end && (end.planned.toLineM === 0 || end.planned.takeOff || end === all.at(-1));
    return end &&
      isLast &&
      end.lengthOffM > 0 &&
      plainly(end.lengthOffM, end.seen.lengthSdM, 0.05 * end.planned.lengthM)
      ? atStep(end)
      : null;
  },
  'over-line': ({ beyond, rows }) => {
    const reached = compared(rows).at(-1)?.planned;
    return beyond && reached?.toLineM === 0 && beyond.m > 2 * beyond.sdM && beyond.m > 0.01
      ? { n: reached.n, seen: beyond.m, planned: 0, sd: beyond.sdM }
      : null;
  },
  'foot-ahead-of-hip': ({ poses, side }) => {
    for (const { n, footToHipM, footToHipSdM } of poses) {
      const planned = side?.contacts.find((contact) => contact.n === n)?.footToHipM;
      if (planned === undefined) continue;
      if (
        footToHipM > 0 &&
        plainly(footToHipM - planned, footToHipSdM, 0.08) &&
        footToHipM > planned
      )
        return { n, seen: footToHipM, planned, sd: footToHipSdM };
    }
    return null;
  },
  drifted: ({ rows }) => {
    const jump = compared(rows).find(({ planned }) => planned.landing);
    return jump && jump.lengthOffM > 0 && plainly(jump.lengthOffM, jump.seen.lengthSdM, 0.2)
      ? atStep(jump)
      : null;
  },
  'cadence-under': () => null,
  'speed-over': () => null,
};

/**
 * Faults of a movement that what was measured speaks for, in the order of their phases; the coach
 * accepts or leaves them.
 */
export const suggestions = (movement: Movement, run: Measured): Suggestion[] => {
  return movement.faults
    .flatMap((fault) => {
      const found = fault.figure ? FINDS[fault.figure](run) : null;
      return found ? [{ fault, figure: fault.figure!, ...found }] : [];
    })
    .sort((a, b) => firstPhaseOf(movement, a.fault) - firstPhaseOf(movement, b.fault));
};
