import { SIDE_JOINTS, type SideJoint } from '@gravek/core/body/posture';
import { type Foot, otherFoot } from '@gravek/core/feet';
import { bodyOf } from '@gravek/core/layout/body';
import type { StraightChoices } from '@gravek/contract/approach';
import { plannedSteps } from '@gravek/library/film/watched';
import { movementOf } from '@gravek/library/movement/movements';
import { solve } from '@gravek/library/planning/solvePlan';
import { FILMED } from './filmed';
import { makeSeason } from './season';

/**
 * The film that ships: a made-up jumper on a marked lane, drawn from a laid-out plan with some of its steps
 * changed, seen by a camera that stands off the side. All of it is known, so what is measured on the
 * film can be held against the truth. `npm run film` renders it.
 */

/** Metres: along the run with the line at 0, to the right of it, up. */
type Space = { alongM: number; acrossM: number; upM: number };
type Flat = { x: number; y: number };

export const FILM_SIZE = { width: 1920, height: 880 };

const CAMERA = {
  at: { alongM: -3.2, acrossM: 9.4, upM: 2.5 },
  to: { alongM: -5.4, acrossM: 0, upM: 0.75 },
};
const FOCAL_PX = 1180;

const minus = (a: Space, b: Space): Space => ({
  alongM: a.alongM - b.alongM,
  acrossM: a.acrossM - b.acrossM,
  upM: a.upM - b.upM,
});
const dot = (a: Space, b: Space): number =>
  a.alongM * b.alongM + a.acrossM * b.acrossM + a.upM * b.upM;
const unit = (a: Space): Space => {
  const length = Math.sqrt(dot(a, a));
  return { alongM: a.alongM / length, acrossM: a.acrossM / length, upM: a.upM / length };
};
/** What the camera has ahead, to its right and above it. */
const AHEAD = unit(minus(CAMERA.to, CAMERA.at));
const RIGHT = unit({ alongM: -AHEAD.acrossM, acrossM: AHEAD.alongM, upM: 0 });
const ABOVE = unit({
  alongM: -AHEAD.upM * AHEAD.alongM,
  acrossM: -AHEAD.upM * AHEAD.acrossM,
  upM: 1 - AHEAD.upM ** 2,
});

/** Where a place is seen, and pixels of a metre there. */
const seenAt = (place: Space): Flat & { perM: number } => {
  const off = minus(place, CAMERA.at);
  const depth = dot(off, AHEAD);
  return {
    x: FILM_SIZE.width / 2 + (FOCAL_PX * dot(off, RIGHT)) / depth,
    y: FILM_SIZE.height / 2 - (FOCAL_PX * dot(off, ABOVE)) / depth,
    perM: FOCAL_PX / depth,
  };
};

/** The plan that is run: a short run-up to the board. */
const CHOICES = FILMED.choices as StraightChoices;

/** What the athlete did otherwise than planned: step → metres longer. */
const OTHERWISE: Record<number, number> = { 5: -0.2, 8: 0.17 };
/** Still before the first step, seconds. */
const STILL_S = 0.5;
const AFTER_S = 0.5;

export type TrueContact = {
  foot: Foot;
  alongM: number;
  acrossM: number;
  onS: number;
  offS: number;
};

/** Who is filmed, and how she ran. */
const run = () => {
  const file = makeSeason(new Date('2031-05-14T12:00:00Z'), 'nobody knows');
  const athlete = file.athletes.find(({ name }) => name === FILMED.athlete)!;
  const trials = file.trials.filter(({ athleteId }) => athleteId === athlete.id);
  const body = bodyOf({ ...athlete, trials });
  const { layout } = solve(movementOf(FILMED.movement), CHOICES, body);
  const steps = plannedSteps(layout!);
  const start = layout!.footfalls.find(({ n, foot }) => n === 0 && foot !== steps[0]!.foot)!;
  let alongM = -(steps[0]!.toLineM! + steps[0]!.lengthM);
  let atS = STILL_S;
  const contacts: TrueContact[] = steps.map((step, i) => {
    const longerM = OTHERWISE[step.n] ?? 0;
    alongM += step.lengthM + longerM;
    // A longer step takes longer at the same speed.
    atS += step.intervalS * (1 + longerM / step.lengthM);
    const across = step.foot === 'right' ? 0.09 : -0.09;
    return {
      foot: step.foot,
      alongM,
      acrossM: across,
      onS: atS,
      offS: atS + 0.165 - 0.06 * (i / (steps.length - 1)),
    };
  });
  const standing: TrueContact = {
    foot: otherFoot(steps[0]!.foot),
    alongM: -(steps[0]!.toLineM! + steps[0]!.lengthM),
    acrossM: Math.sign(start.besideM || 1) * 0.09,
    onS: 0,
    offS: STILL_S,
  };
  return { body, standing, contacts, endS: contacts.at(-1)!.offS + AFTER_S };
};

/** Frames of a phone that leaves some out: sixty a second, every seventh missing from the second second on. */
const frameTimes = (endS: number): number[] =>
  Array.from({ length: Math.floor(endS * 60) }, (_, i) => i)
    .filter((i) => i < 60 || i % 7 !== 0)
    // A film says its times in whole milliseconds.
    .map((i) => Math.round((i * 1000) / 60) / 1000);

const mix = (a: number, b: number, part: number): number => a + (b - a) * part;
const smooth = (part: number): number => part * part * (3 - 2 * part);

type Shape =
  | { kind: 'area'; points: Flat[]; fill: string }
  | { kind: 'line'; points: Flat[]; width: number; stroke: string }
  | { kind: 'disc'; at: Flat; radius: number; fill: string };

const GROUND = '#b9795c';
const GRASS = '#7f9467';
const SKY = '#dfe6e4';
const CHALK = '#f7f3ea';
const TAPE = '#244f6b';
const SKIN = '#3a2f2a';
const FAR = '#5c6b77';
const SHIRT = '#1f3a34';

const LANE_M = 1.22;
/** Tape across the lane, metres before the line. */
const TAPES_M = [-15, -12, -9, -6, -3, 0];

const onGround = (alongM: number, acrossM: number): Flat => seenAt({ alongM, acrossM, upM: 0 });

const area = (fill: string, ...corners: [number, number][]): Shape => ({
  kind: 'area',
  fill,
  points: corners.map(([along, across]) => onGround(along, across)),
});
const strip = (fill: string, fromM: number, toM: number, half: number): Shape =>
  area(fill, [fromM, -half], [toM, -half], [toM, half], [fromM, half]);

const band = (fill: string, top: number, bottom: number): Shape => ({
  kind: 'area',
  fill,
  points: [
    { x: 0, y: top },
    { x: FILM_SIZE.width, y: top },
    { x: FILM_SIZE.width, y: bottom },
    { x: 0, y: bottom },
  ],
});
/** Level with the camera, however far away. */
const HORIZON =
  FILM_SIZE.height / 2 + (FOCAL_PX * AHEAD.upM) / Math.hypot(AHEAD.alongM, AHEAD.acrossM);
/** Nothing is drawn farther along: it would lie behind the camera. */
const END_M = 5;

const scenery = (): Shape[] => [
  band(SKY, 0, HORIZON),
  band(GRASS, HORIZON, FILM_SIZE.height),
  strip(GROUND, -60, END_M, 1.9),
  ...[-LANE_M / 2, LANE_M / 2].map((across) =>
    area(
      CHALK,
      [-60, across - 0.025],
      [0.3, across - 0.025],
      [0.3, across + 0.025],
      [-60, across + 0.025],
    ),
  ),
  ...TAPES_M.slice(0, -1).map((along) =>
    strip(TAPE, along - 0.025, along + 0.025, LANE_M / 2 + 0.12),
  ),
  strip(CHALK, -0.2, 0, LANE_M / 2),
  strip('#e2d3a8', 0.6, END_M, 1.4),
];

type Leg = { toe: Space; ankle: Space };

/** Where a leg is at a moment: planted while its contact lasts, on its way to the next one otherwise. */
const legAt = (own: readonly TrueContact[], atS: number, heightM: number): Leg => {
  const i = own.findLastIndex((contact) => contact.onS <= atS);
  const last = own[Math.max(0, i)]!;
  const next = own[i + 1];
  const foot = (toe: Space, lift: number): Leg => ({
    toe,
    // The heel rises with the foot: from flat to on the toes.
    ankle: {
      ...toe,
      alongM: toe.alongM - mix(0.092, 0.05, lift) * heightM,
      upM: toe.upM + mix(0.045, 0.1, lift) * heightM,
    },
  });
  if (atS <= last.offS || !next) {
    const part = Math.max(0, Math.min(1, (atS - last.onS) / Math.max(0.01, last.offS - last.onS)));
    const up = next || atS <= last.offS ? 0 : Math.min(0.7, (atS - last.offS) * 1.6);
    return foot({ alongM: last.alongM + up * 1.4, acrossM: last.acrossM, upM: up }, part ** 2);
  }
  const part = (atS - last.offS) / (next.onS - last.offS);
  const way = smooth(part);
  return foot(
    {
      alongM: mix(last.alongM, next.alongM, way),
      acrossM: mix(last.acrossM, next.acrossM, way),
      upM: 0.26 * heightM * Math.sin(Math.PI * part) ** 1.2,
    },
    1 - part ** 3,
  );
};

/** Knee between hip and ankle, bent to the front. */
const kneeOf = (hip: Space, ankle: Space, thighM: number, shinM: number): Space => {
  const [dx, dz] = [ankle.alongM - hip.alongM, ankle.upM - hip.upM];
  const far = Math.min(Math.hypot(dx, dz), (thighM + shinM) * 0.999);
  const along = (thighM ** 2 - shinM ** 2 + far ** 2) / (2 * far);
  const off = Math.sqrt(Math.max(0, thighM ** 2 - along ** 2));
  const [ux, uz] = [dx / Math.hypot(dx, dz), dz / Math.hypot(dx, dz)];
  return {
    alongM: hip.alongM + ux * along - uz * off,
    acrossM: (hip.acrossM + ankle.acrossM) / 2,
    upM: hip.upM + uz * along + ux * off,
  };
};

/** How far the hip is behind the foot that lands: under it at first, behind it at speed. */
const hipBehindM = (i: number, of: number): number => mix(-0.12, 0.24, Math.min(1, i / (of - 1)));

const drawn = (truth: ReturnType<typeof run>) => {
  const { contacts, standing, body } = truth;
  const { heightM } = body;
  const [thighM, shinM] = [0.245 * heightM, 0.246 * heightM];
  const knots = [
    { atS: 0, alongM: standing.alongM + 0.05 },
    { atS: STILL_S, alongM: standing.alongM + 0.12 },
    ...contacts.map((contact, i) => ({
      atS: contact.onS,
      alongM: contact.alongM - hipBehindM(i, contacts.length),
    })),
  ];
  const lastSpeed =
    (knots.at(-1)!.alongM - knots.at(-2)!.alongM) / (knots.at(-1)!.atS - knots.at(-2)!.atS);
  knots.push({ atS: knots.at(-1)!.atS + 2, alongM: knots.at(-1)!.alongM + lastSpeed * 1.7 });
  const hipAlong = (atS: number): number => {
    const i = Math.max(
      0,
      knots.findLastIndex((knot) => knot.atS <= atS),
    );
    const [a, b] = [knots[i]!, knots[Math.min(i + 1, knots.length - 1)]!];
    if (a === b) return a.alongM;
    const slope = (k: number): number => {
      const [from, to] = [knots[Math.max(0, k - 1)]!, knots[Math.min(knots.length - 1, k + 1)]!];
      return k <= 1 ? 0 : (to.alongM - from.alongM) / (to.atS - from.atS);
    };
    const h = b.atS - a.atS;
    const t = (atS - a.atS) / h;
    return (
      (1 + 2 * t) * (1 - t) ** 2 * a.alongM +
      t * (1 - t) ** 2 * h * slope(i) +
      t ** 2 * (3 - 2 * t) * b.alongM +
      t ** 2 * (t - 1) * h * slope(i + 1)
    );
  };
  const own = (foot: Foot): TrueContact[] => {
    const waiting =
      foot === standing.foot
        ? standing
        : { ...standing, foot, alongM: standing.alongM - 0.28, acrossM: -standing.acrossM };
    return [waiting, ...contacts.filter((contact) => contact.foot === foot)];
  };
  const legs = { left: own('left'), right: own('right') };
  const bodyAt = (atS: number) => {
    const flying = Math.max(0, atS - contacts.at(-1)!.offS);
    const bob = 0.02 * Math.sin((atS - STILL_S) * 24);
    const hip: Space = {
      alongM: hipAlong(atS),
      acrossM: 0,
      upM: 0.488 * heightM + bob + 1.4 * flying - 2.4 * flying ** 2,
    };
    const lean = mix(0.42, 0.06, smooth(Math.max(0, Math.min(1, (atS - STILL_S) / 1.6))));
    const shoulder: Space = {
      alongM: hip.alongM + 0.288 * heightM * Math.sin(lean),
      acrossM: 0,
      upM: hip.upM + 0.288 * heightM * Math.cos(lean),
    };
    const head: Space = {
      alongM: shoulder.alongM + 0.1 * heightM * Math.sin(lean * 0.6),
      acrossM: 0,
      upM: shoulder.upM + 0.1 * heightM * Math.cos(lean * 0.6),
    };
    const legOf = (foot: Foot) => {
      const { toe, ankle } = legAt(legs[foot], atS, heightM);
      const joint = { ...hip, acrossM: foot === 'right' ? 0.08 : -0.08 };
      return { toe, ankle, hip: joint, knee: kneeOf(joint, ankle, thighM, shinM) };
    };
    return { hip, shoulder, head, legOf };
  };
  const shapesAt = (atS: number): Shape[] => {
    const { hip, shoulder, head, legOf } = bodyAt(atS);
    const line = (stroke: string, widthM: number, ...points: Space[]): Shape => ({
      kind: 'line',
      stroke,
      width: widthM * seenAt(points[0]!).perM,
      points: points.map(seenAt),
    });
    const limb = (foot: Foot, stroke: string): Shape[] => {
      const { toe, ankle, hip: joint, knee } = legOf(foot);
      const side = joint.acrossM;
      const heel: Space = {
        ...ankle,
        alongM: ankle.alongM - 0.03,
        upM: Math.max(0, ankle.upM - 0.05),
      };
      const other = legOf(otherFoot(foot)).ankle.alongM - hip.alongM;
      const elbow: Space = {
        alongM: shoulder.alongM + other * 0.28,
        acrossM: side * 2.4,
        upM: shoulder.upM - 0.15 * heightM,
      };
      const hand: Space = {
        alongM: elbow.alongM + 0.12 * heightM,
        acrossM: side * 2.2,
        upM: elbow.upM + Math.max(-0.05, other * 0.3) * 0.4 * heightM,
      };
      return [
        line(stroke, 0.11, joint, knee, ankle),
        line(stroke, 0.06, heel, toe),
        line(stroke, 0.07, { ...shoulder, acrossM: side * 1.6 }, elbow, hand),
      ];
    };
    // The camera stands on the right: the left limbs lie behind the body.
    return [
      ...scenery(),
      area(
        'rgba(40,25,18,0.25)',
        ...Array.from({ length: 16 }, (_, i): [number, number] => [
          hip.alongM + 0.3 * Math.cos((i * Math.PI) / 8),
          0.16 * Math.sin((i * Math.PI) / 8),
        ]),
      ),
      ...limb('left', FAR),
      line(SHIRT, 0.19, hip, shoulder),
      { kind: 'disc', at: seenAt(head), radius: 0.075 * heightM * seenAt(head).perM, fill: SKIN },
      ...limb('right', SKIN),
    ];
  };
  return { shapesAt, bodyAt };
};

/** Where marks of the lane are seen: tape and lane lines cross there. */
const laneMarks = () =>
  TAPES_M.flatMap((alongM) =>
    [LANE_M / 2, -LANE_M / 2].map((acrossM) => {
      const { x, y } = onGround(alongM, acrossM);
      return { px: { x, y }, ground: { alongM, acrossM } };
    }),
  ).filter(
    ({ px }) => px.x > 8 && px.x < FILM_SIZE.width - 8 && px.y > 8 && px.y < FILM_SIZE.height - 8,
  );

export type FilmTruth = {
  marks: ReturnType<typeof laneMarks>;
  /** where the athlete stands, then every foot that lands; with where its toe and joints are seen as it does */
  contacts: (TrueContact & { px: Flat; joints: Record<SideJoint, Flat> })[];
  /** moments of the frames, seconds */
  frames: number[];
};

/** Every frame of the film as shapes from back to front, and the truth behind it. */
export const filmScene = (): { frames: { atS: number; shapes: Shape[] }[]; truth: FilmTruth } => {
  const truth = run();
  const { shapesAt, bodyAt } = drawn(truth);
  const times = frameTimes(truth.endS);
  return {
    frames: times.map((atS) => ({ atS, shapes: shapesAt(atS) })),
    truth: {
      marks: laneMarks(),
      contacts: [truth.standing, ...truth.contacts].map((contact) => {
        const { x, y } = onGround(contact.alongM, contact.acrossM);
        const { shoulder, legOf } = bodyAt(contact.onS);
        const joints = { shoulder, ...legOf(contact.foot) };
        return {
          ...contact,
          px: { x, y },
          joints: Object.fromEntries(
            SIDE_JOINTS.map((joint) => {
              const seen = seenAt(joints[joint]);
              return [joint, { x: seen.x, y: seen.y }];
            }),
          ) as Record<SideJoint, Flat>,
        };
      }),
      frames: times,
    },
  };
};
