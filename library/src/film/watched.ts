import type { Foot } from '@gravek/core/feet';
import type { Watched, WatchedStep } from '@gravek/core/film/watchedSteps';
import type { Layout } from '@gravek/core/layout/shape';
import type { Contact } from '@gravek/core/layout/walker';
import { groupBy } from '@gravek/core/session/repLog';

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
    const seenPlaces = places.filter((place) => place !== null);
    if (seenPlaces.length > 0)
      return seenPlaces.reduce((sum, value) => sum + value, 0) / seenPlaces.length;
    const shared = seen.steps.flatMap((step, i) => {
      const planned = plan[first + i];
      return planned ? [Math.abs(Math.log(Math.max(step.lengthM, 0.01) / planned.lengthM))] : [];
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

export const plainly = (off: number, sd: number, least: number): boolean =>
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
 * @example reactionIn([{ on: { atS: 1 } }, { on: { atS: 1.62 } }], 1.1, 1) // 0.52
 */
export const reactionIn = (
  contacts: readonly { on: { atS: number } }[],
  callS: number,
  firstStep: number,
): number | null => {
  const landed = contacts.slice(firstStep === 0 ? 1 : 0).find(({ on }) => on.atS > callS);
  return landed ? Number((landed.on.atS - callS).toFixed(3)) : null;
};
