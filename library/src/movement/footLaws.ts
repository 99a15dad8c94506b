import type { Body } from '@gravek/core/layout/body';
import type { Layout } from '@gravek/core/layout/shape';
import type { Footfall } from '@gravek/core/layout/walker';
import type { Movement } from '@gravek/contract/movement';

/** Each way of a movement on the ground. */
export type Way = {
  /** with the steps of the drill that is drawn, where it has its own */
  movement: Movement;
  body: Body;
  layout: Layout;
  drill: Movement['drills'][number] | null;
  where: string;
};

export type Law = (way: Way) => string[];

export const nameOf = ({ phases }: Movement, code: string): string =>
  phases.find((phase) => phase.code === code)?.name ?? code;

export const stepsOf = ({ footfalls }: Layout): Footfall[] =>
  footfalls.filter((fall) => fall.n > 0 && fall.contact !== 'stand');

// Prints.

type Point = [beside: number, ahead: number];
export type Print = [heel: Point, toe: Point];

/** A sole is so much of the height long between the middles of its round ends, metres. */
const soleM = ({ heightM }: Body): number => 0.15 * heightM - 0.08;
const HAND_BREADTH_M = 0.08;

/** A print as a line from heel to toe. */
export const printOf = (fall: Footfall, body: Body): Print => {
  const turn = (fall.headingDeg * Math.PI) / 180;
  return [-0.5, 0.5].map((part): Point => [
    fall.besideM + part * soleM(body) * Math.sin(turn),
    fall.aheadM + part * soleM(body) * Math.cos(turn),
  ]) as Print;
};

const toLine = ([x, y]: Point, [[x1, y1], [x2, y2]]: Print): number => {
  const [dx, dy] = [x2 - x1, y2 - y1];
  const t = Math.max(0, Math.min(1, ((x - x1) * dx + (y - y1) * dy) / (dx * dx + dy * dy)));
  return Math.hypot(x - x1 - t * dx, y - y1 - t * dy);
};

const cross = ([o, p]: Print, b: Print): boolean => {
  const turn = ([from, to]: Print, at: Point): number =>
    Math.sign((to[0] - from[0]) * (at[1] - from[1]) - (to[1] - from[1]) * (at[0] - from[0]));
  const a: Print = [o, p];
  return turn(a, b[0]) !== turn(a, b[1]) && turn(b, a[0]) !== turn(b, a[1]);
};

export const apartM = (a: Print, b: Print): number =>
  cross(a, b) ? 0 : Math.min(...a.map((end) => toLine(end, b)), ...b.map((end) => toLine(end, a)));

/** Feet that stand so soon after one another are on the ground together, seconds. */
const TOGETHER_S = 0.6;

export const onEachOther: Law = ({ movement, layout, body }) =>
  layout.footfalls.slice(1).flatMap((fall, i) => {
    const before = layout.footfalls[i]!;
    return fall.foot !== before.foot &&
      fall.timeS - before.timeS < TOGETHER_S &&
      apartM(printOf(before, body), printOf(fall, body)) < HAND_BREADTH_M
      ? [`In “${nameOf(movement, fall.phase)}” one foot lands on the other.`]
      : [];
  });

/** Phases that say by their code that feet cross or that somebody runs. */
const MAY_CROSS = /cross|run|chase|curve/;
const CROSSED_M = 0.06;

export const feetCrossed: Law = ({ movement, layout }) =>
  layout.footfalls.slice(1).flatMap((fall, i) => {
    const before = layout.footfalls[i]!;
    const may =
      fall.foot === before.foot ||
      fall.contact === 'cross' ||
      before.contact === 'cross' ||
      fall.contact === 'pivot' ||
      MAY_CROSS.test(fall.phase);
    const facing = (fall.facingDeg * Math.PI) / 180;
    const across =
      (fall.besideM - before.besideM) * Math.cos(facing) -
      (fall.aheadM - before.aheadM) * Math.sin(facing);
    return !may && (fall.foot === 'right' ? across : -across) < -CROSSED_M
      ? [`In “${nameOf(movement, fall.phase)}” the feet cross, though it is no crossing step.`]
      : [];
  });

export const landsTwice: Law = ({ movement, layout }) => {
  const steps = stepsOf(layout);
  return steps.slice(1).flatMap((fall, i) => {
    const before = steps[i]!;
    const phase = movement.phases.find((phase) => phase.code === fall.phase);
    const onBoth =
      layout.footfalls.filter((footfall) => footfall.n === fall.n || footfall.n === before.n)
        .length > 2;
    return before.n !== fall.n &&
      before.foot === fall.foot &&
      !fall.landing &&
      !onBoth &&
      phase?.steps.kind !== 'skip' &&
      !phase?.again
      ? [`The same foot lands twice from “${nameOf(movement, before.phase)}” to “${phase?.name}”.`]
      : [];
  });
};
