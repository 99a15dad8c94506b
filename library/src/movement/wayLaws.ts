import {
  BODY_FIGURE_NAMES,
  BODY_FIGURE_UNITS,
  bodyFigure,
  type BodyFigure,
} from '@gravek/core/body/bodyFigures';
import { figureOf } from '@gravek/core/body/posture';
import { brakesOver } from '@gravek/core/layout/layOut';
import type { Layout } from '@gravek/core/layout/shape';
import { between, type Place } from '@gravek/core/layout/walker';
import {
  apartM,
  feetCrossed,
  landsTwice,
  type Law,
  nameOf,
  onEachOther,
  type Print,
  printOf,
  stepsOf,
} from './footLaws';
import { saidOtherwise } from './saidNumbers';

// Things and people.

/** Lines that are there to be crossed or stood in. */
const CROSSED_LINES = new Set([
  'apron',
  'bag',
  'lane',
  'block',
  '3 m line',
  'low box',
  'base line',
]);
const BEYOND_M = 0.02;

/** A foot beyond a line that nobody crosses. */
const beyondLine: Law = ({ movement, layout }) =>
  layout.others
    .filter((other) => other.line && !CROSSED_LINES.has(other.name))
    .flatMap(({ name, points: [p, q] }) => {
      const [x, y] = [q!.besideM - p!.besideM, q!.aheadM - p!.aheadM];
      const off = (at: Place): number =>
        (x * (at.aheadM - p!.aheadM) - y * (at.besideM - p!.besideM)) / Math.hypot(x, y);
      const along = (at: Place): number =>
        (x * (at.besideM - p!.besideM) + y * (at.aheadM - p!.aheadM)) / (x * x + y * y);
      const here = Math.sign(off(layout.track[0]!));
      return layout.footfalls
        .filter((fall) => !fall.landing && off(fall) * here < -BEYOND_M)
        .filter((fall) => along(fall) > -0.3 && along(fall) < 1.3)
        .map((fall) => `In “${nameOf(movement, fall.phase)}” a foot lands beyond the ${name}.`);
    });

const BAG_HALF_M = 0.08;

const onBag: Law = ({ movement, layout, body }) =>
  layout.others
    .filter(({ name, line }) => line && name === 'bag')
    .flatMap(({ points: [p, q] }) =>
      stepsOf(layout)
        .filter((fall) => {
          const bag: Print = [
            [p!.besideM, p!.aheadM],
            [q!.besideM, q!.aheadM],
          ];
          return (
            layout.others.filter(({ name }) => name === 'bag').length > 1 &&
            apartM(printOf(fall, body), bag) < BAG_HALF_M
          );
        })
        .map((fall) => `In “${nameOf(movement, fall.phase)}” a foot lands on a bag.`),
    );

const placeAt = (points: Layout['others'][number]['points'], timeS: number): Place => {
  const i = points.findLastIndex((point) => point.timeS <= timeS + 1e-9);
  const [from, to] = [points[Math.max(0, i)]!, points[i + 1]];
  const part = to && to.timeS > from.timeS ? (timeS - from.timeS) / (to.timeS - from.timeS) : 0;
  return {
    besideM: from.besideM + (to ? (to.besideM - from.besideM) * Math.max(0, part) : 0),
    aheadM: from.aheadM + (to ? (to.aheadM - from.aheadM) * Math.max(0, part) : 0),
  };
};

/** Between a foot and somebody else at the least, metres. */
const CLEAR_M = 0.22;

const runsThrough: Law = ({ movement, layout }) =>
  layout.others
    .filter(({ kind }) => kind === 'opponent' || kind === 'teammate')
    .flatMap((other) =>
      stepsOf(layout)
        .filter((fall) => between(fall, placeAt(other.points, fall.timeS)) < CLEAR_M)
        .map((fall) => `In “${nameOf(movement, fall.phase)}” a foot lands on the ${other.name}.`),
    );

const HEAD_TO_HEAD = /neither side|head to head|middle of (him|her|them)/i;
const HEAD_TO_HEAD_M = 0.12;

/** Whoever is met head to head stands so at the start. */
const startsAside: Law = ({ movement, layout }) =>
  movement.phases.some(({ checkpoints }) =>
    checkpoints.some(({ right }) => HEAD_TO_HEAD.test(right)),
  )
    ? layout.others
        .filter((other) => other.kind === 'opponent' && !other.line)
        .filter(
          ({ points }) => Math.abs(points[0]!.besideM - layout.track[0]!.besideM) > HEAD_TO_HEAD_M,
        )
        .map(({ name }) => `The ${name} is met head to head by the words, and starts to one side.`)
    : [];

/** A ball that comes is where the feet take it: before the foot, at its moment. */
const missesBall: Law = ({ movement, layout, body, drill }) =>
  drill
    ? []
    : movement.others.flatMap((other) => {
        if (other.kind !== 'ball' || !other.comes) return [];
        const falls = stepsOf(layout).filter((fall) => fall.phase === other.from);
        const took = falls[0]?.contact === 'gather' ? falls.at(-1) : falls[0];
        if (!took) return [];
        const reachM = 0.3 + 0.45 * body.legM;
        const isThere = layout.others
          .filter(({ kind }) => kind === 'ball')
          .some(({ points }) =>
            points.some(
              (point) => Math.abs(point.timeS - took.timeS) < 0.15 && between(point, took) < reachM,
            ),
          );
        return isThere
          ? []
          : [`In “${nameOf(movement, other.from)}” there is no ball at the feet.`];
      });

/** How far the line of the feet may point past what is thrown at, degrees. */
const OFF_TARGET_DEG = 15;

const headingDeg = (from: Place, to: Place): number =>
  (Math.atan2(to.besideM - from.besideM, to.aheadM - from.aheadM) * 180) / Math.PI;

/** The feet of a throw point at its base. */
const throwsPast: Law = ({ movement, layout }) => {
  const release = layout.footfalls.find((fall) => fall.ball === 'release');
  const base = layout.others.find((other) => other.kind === 'base');
  const steps = stepsOf(layout);
  const back = release && steps[steps.indexOf(release) - 1];
  if (!release || !base || !back) return [];
  const off = Math.abs(
    ((headingDeg(back, release) - headingDeg(release, base.points[0]!) + 540) % 360) - 180,
  );
  return off > OFF_TARGET_DEG
    ? [
        `In “${nameOf(movement, release.phase)}” the feet point ${Math.round(off)} degrees past the ${base.name}.`,
      ]
    : [];
};

// Speed.

const tooFast: Law = ({ movement, layout, body }) => {
  const topMps = (body.model.topLengthM * body.model.topCadenceSpm) / 60;
  return stepsOf(layout)
    .filter((fall) => !fall.landing && fall.speedMps > topMps * 1.02)
    .map((fall) => `“${nameOf(movement, fall.phase)}” is faster than anybody of that body runs.`);
};

/** Hardest braking of somebody who was never measured, m/s². */
const USUAL_BRAKE_MPS2 = 4.5;

const brakesTooHard: Law = ({ movement, layout, body }) =>
  brakesOver(layout, body.brakeMps2 ?? USUAL_BRAKE_MPS2).map(
    ({ from, fall }) =>
      `From “${nameOf(movement, from.phase)}” to “${nameOf(movement, fall.phase)}” it brakes harder than anybody can.`,
  );

// Drills.

const NUMBERS = 'zero one two three four five six seven eight nine ten eleven twelve'.split(' ');

/** A drill that is named after so many steps has so many; in a drill without a step there is a figure to look at. */
const drillSteps: Law = ({ movement, layout, drill }) => {
  if (!drill) return [];
  const steps = stepsOf(layout);
  if (steps.length === 0) {
    const seen = layout.phases.some(
      ({ code }) => movement.phases.find((phase) => phase.code === code)?.posture,
    );
    return seen ? [] : [`The drill “${drill.name}” has no step and no figure: nothing is drawn.`];
  }
  const countWord = /\b(\w+)[- ](steps?|switch(?:es)?|touch(?:es)?|contacts?)\b/i.exec(
    drill.name,
  )?.[1];
  const inWords = NUMBERS.indexOf(countWord?.toLowerCase() ?? '');
  const stepCount = inWords > 0 ? inWords : Number(countWord);
  const laid = new Set(steps.filter((fall) => !fall.landing).map((fall) => fall.n)).size;
  return stepCount > 0 && stepCount !== laid
    ? [`The drill “${drill.name}” is named after ${stepCount} steps and has ${laid}.`]
    : [];
};

/** A drill lays out its phases, as far as the way of teaching has them, and nothing else. */
const otherPhases: Law = ({ movement, layout, drill }) => {
  const part = drill?.part;
  if (!drill || part?.kind !== 'phases' || drill.phases?.length) return [];
  const order = movement.phases.map((phase) => phase.code);
  const drillPhases = order.slice(order.indexOf(part.from), order.indexOf(part.to) + 1);
  const laid = layout.phases.map((phase) => phase.code);
  if (laid.length === 0) return [`The drill “${drill.name}” lays out nothing.`];
  return laid
    .filter((code) => !drillPhases.includes(code))
    .map((code) => `The drill “${drill.name}” lays out “${nameOf(movement, code)}” as well.`);
};

// The body.

/** A figure of the body with two decimals where it is a part of something. */
const asText = (value: number, what: BodyFigure): string =>
  BODY_FIGURE_UNITS[what] === '°' ? value.toFixed(0) : value.toFixed(2);

/** What the words of a checkpoint say of the body is how it is drawn. */
const drawnOtherwise: Law = ({ movement, body }) =>
  movement.phases.flatMap(({ name, posture, checkpoints }) =>
    checkpoints.flatMap(({ look, drawn }) => {
      if (!drawn) return [];
      const { figure, of, from, to } = drawn;
      const pose = posture?.[of];
      const value = pose ? bodyFigure(figure, figureOf(pose, body), body) : null;
      if (value === null) {
        return [`“${look}” in “${name}” is to be seen on the body, and nothing is drawn of it.`];
      }
      return value < from || value > to
        ? [
            `In “${name}”, “${look}” asks for ${asText(from, figure)} to ${asText(to, figure)} ${BODY_FIGURE_UNITS[figure]} (${BODY_FIGURE_NAMES[figure]}); ${asText(value, figure)} is drawn.`,
          ]
        : [];
    }),
  );

/** Laws that hold on each way of a movement: each gives a sentence for what breaks it. */
export const WAY_LAWS: readonly Law[] = [
  onEachOther,
  feetCrossed,
  landsTwice,
  beyondLine,
  onBag,
  runsThrough,
  startsAside,
  missesBall,
  throwsPast,
  tooFast,
  brakesTooHard,
  drillSteps,
  otherPhases,
  ({ drill, layout }) => (drill ? saidOtherwise(drill, layout) : []),
  drawnOtherwise,
];
