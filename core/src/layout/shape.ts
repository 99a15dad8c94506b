import type { CurvePlan } from '../curve/solveCurve';
import type { StraightFailure } from '../runup/straightPlan';
import type { Mark } from './ground';
import type { OtherPath } from './otherThings';
import type { Footfall, TrackPoint } from './walker';

export type PhaseSpan = {
  code: string;
  fromS: number;
  toS: number;
  /** the way went on by what was seen at its end */
  read: boolean;
};

/** A sequence on the ground: metres, seconds and degrees, `ahead` is the way the athlete faces first. */
export type Layout = {
  /** for the other side than the one the movement was written for */
  mirrored: boolean;
  footfalls: Footfall[];
  marks: Mark[];
  track: TrackPoint[];
  phases: PhaseSpan[];
  others: OtherPath[];
  totalTimeS: number;
  /** why the asked run-up cannot be run; a free start is laid out instead */
  failure: StraightFailure | null;
  /** runs that are slower than asked, since nobody could brake from more: how much of it is left */
  held: { phase: string; part: number }[];
  /** the curve by its tapes, where the run goes to a bar */
  curve: CurvePlan | null;
};

/**
 * The contacts of a layout that a coach counts as steps: no stance before it, no landing.
 *
 * @example
 * const footfalls = [{ n: 0 }, { n: 1 }, { n: 2, landing: true }];
 * stepFalls({ footfalls }).map(({ n }) => n) // [1]
 */
export const stepFalls = ({ footfalls }: Pick<Layout, 'footfalls'>): Footfall[] =>
  footfalls.filter((fall) => fall.n > 0 && !fall.landing && fall.contact !== 'stand');

/**
 * Steps as a coach counts them: feet that land together are one, landings are none.
 *
 * @example countSteps({ footfalls: [] }) // 0
 */
export const countSteps = (layout: Pick<Layout, 'footfalls'>): number =>
  new Set(stepFalls(layout).map((fall) => fall.n)).size;
