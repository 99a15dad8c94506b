import type { Foot } from '@gravek/core/feet';
import type { Layout } from '@gravek/core/layout/shape';
import type { Contact } from '@gravek/core/layout/walker';
import type { PostureAngles } from '@gravek/core/body/posture';
import { groupBy } from '@gravek/core/session/repLog';
import type { SideView } from '@gravek/core/body/sideView';
import type { Watched, WatchedStep } from '@gravek/core/film/watchedSteps';
import type { Fault, FaultFigure, Movement } from '@gravek/contract/movement';
import { firstPhaseOf } from '../movement/byCode';

/** A step of a plan as it can be seen: feet that land together are one. */
export type PlannedStep = {
  n: number;
  foot: Foot;
  phase: string;
  contact: Contact;
  /** straight from the contact before, as a film measures it, metres */
  lengthM: number;
  /** along the run, feet set apart or not, metres */
  wayM: number;
  intervalS: number;
  cadenceSpm: number;
  speedMps: number;
  timeS: number;
  /** left to the line that the run is aimed at; null where there is none */
  toLineM: number | null;
  takeOff: boolean;
  landing: boolean;
};

/**
 * The steps of a plan in order, from the first that lands.
 *
 * @example plannedSteps(laidOut(straightRunUp, body)).length // 14
 */
export const plannedSteps = (layout: Layout): PlannedStep[] => {
  const groups = [
    ...groupBy(
      layout.footfalls.filter((fall) => fall.n > 0),
      ({ n }) => String(n),
    ).values(),
  ].sort((a, b) => a[0]!.timeS - b[0]!.timeS);
  const middle = (falls: readonly { besideM: number; aheadM: number }[]) => ({
    besideM: falls.reduce((sum, fall) => sum + fall.besideM, 0) / falls.length,
    aheadM: falls.reduce((sum, fall) => sum + fall.aheadM, 0) / falls.length,
  });
  return groups.map((falls, i) => {
    const fall = falls[0]!;
    const before = groups[i - 1];
    const [from, to] = [before && middle(before), middle(falls)];
    const lengthM = from
      ? Math.hypot(to.besideM - from.besideM, to.aheadM - from.aheadM)
      : fall.lengthM;
    const intervalS = fall.timeS - (before?.[0]!.timeS ?? 0);
    return {
      n: fall.n,
      foot: fall.foot,
      phase: fall.phase,
      contact: fall.contact,
      lengthM,
      wayM: fall.lengthM,
      intervalS,
      cadenceSpm: 60 / intervalS,
      speedMps: lengthM / intervalS,
      timeS: fall.timeS,
      toLineM: fall.toLineM,
      takeOff: falls.some((footfall) => footfall.takeOff),
      landing: falls.some((footfall) => footfall.landing),
    };
  });
};

/** How far a place on the ground is short of the line; beyond it negative. Way and marks run the same way. */
const shortOf = (lineM: number, alongM: number): number => lineM - alongM;

/**
 * Which step of the plan ends at the first contact that was seen; 0: the athlete still stands at the
 * start there. By where the line is, where that is known, else by how the steps fit, and by the foot
 * where that can be: a film often shows the end of a run only.
 */
export const firstStepOf = (
  plan: readonly PlannedStep[],
  seen: Pick<Watched, 'contacts' | 'steps'>,
  lineM: number | null,
): number => {
  const feet = (first: number): number =>
    seen.contacts.filter(({ foot }, i) => {
      const step = plan[first + i - 1];
      return step !== undefined && step.foot !== foot;
    }).length;
  const off = (first: number): number => {
    const places = seen.contacts.map((contact, i) => {
      const step = plan[first + i - 1];
      return lineM === null || !step || step.toLineM === null
        ? null
        : Math.abs(step.toLineM - shortOf(lineM, contact.alongM));
    });
    const known = places.filter((place) => place !== null);
    if (known.length > 0) return known.reduce((sum, value) => sum + value, 0) / known.length;
    const shared = seen.steps.flatMap((step, i) => {
      const own = plan[first + i];
      return own ? [Math.abs(Math.log(Math.max(step.lengthM, 0.01) / own.lengthM))] : [];
    });
    return shared.reduce((sum, value) => sum + value, 0) / Math.max(1, shared.length);
  };
  const last = Math.max(0, plan.length - seen.contacts.length + 1);
  const candidates = Array.from({ length: last + 1 }, (_, first) => ({
    first,
    feet: feet(first),
    // Of places that fit alike the end is the likelier one: that is what is filmed.
    off: off(first) + 0.002 * (last - first),
  }));
  // The foot decides, unless feet were marked the wrong way round all through.
  return candidates.sort((a, b) => a.feet - b.feet || a.off - b.off)[0]?.first ?? 0;
};

/** A step beside the plan's. */
export type StepBeside = {
  /** in the plan; null beyond its ends */
  planned: PlannedStep | null;
  seen: WatchedStep;
  /** longer than planned positive */
  lengthOffM: number | null;
  /**
   * whether its time may be held against the plan's. The plan's first step counts from the first movement; a
   * foot at the start that was marked while the athlete still stood counts from before that.
   */
  isTimed: boolean;
  /** plainly another one than planned: by more than the marks may be off, and more than a step scatters */
  longer: boolean;
  shorter: boolean;
  wrongFoot: boolean;
};

/** A step scatters by so much of its length from run to run; under twice that nothing is said. */
const USUAL_SCATTER = 0.022;

const plainly = (off: number, sd: number, least: number): boolean =>
  Math.abs(off) > Math.max(2 * sd, least);

/** A first step that seems to take so many times as long as planned began while the athlete still stood. */
const STOOD_FOR = 1.6;

/** Every step that was seen beside the plan's own. */
export const besidePlan = (
  plan: readonly PlannedStep[],
  seen: Pick<Watched, 'steps'>,
  firstStep: number,
): StepBeside[] =>
  seen.steps.map((step) => {
    const planned = plan[firstStep + step.n - 1] ?? null;
    const lengthOffM = planned && step.lengthM - planned.lengthM;
    const told =
      lengthOffM !== null &&
      planned !== null &&
      plainly(lengthOffM, step.lengthSdM, 2 * USUAL_SCATTER * planned.lengthM);
    return {
      planned,
      seen: step,
      lengthOffM,
      isTimed:
        planned === null ||
        planned.n > 1 ||
        firstStep + step.n > 1 ||
        step.intervalS <= STOOD_FOR * planned.intervalS,
      longer: told && lengthOffM > 0,
      shorter: told && lengthOffM < 0,
      wrongFoot: planned !== null && planned.foot !== step.foot,
    };
  });

/**
 * How soon after the call the first foot landed in a film, seconds; the foot at the start stands already.
 *
 * @param callS moment of the film at which it was called
 * @param firstStep the plan's step that ends at the first contact; 0 where that is the foot at the start
 * @returns null where no foot lands after the call
 */
export const reactionIn = (
  contacts: readonly { on: { atS: number } }[],
  callS: number,
  firstStep: number,
): number | null => {
  const landed = contacts.slice(firstStep === 0 ? 1 : 0).find(({ on }) => on.atS > callS);
  return landed ? Number((landed.on.atS - callS).toFixed(3)) : null;
};

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
