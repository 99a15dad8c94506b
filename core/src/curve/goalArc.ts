import { number, whole } from '../check';

const toRad = (deg: number): number => (deg * Math.PI) / 180;

/** A place in front of a goal, from its centre: across to the right, and out. */
export type ArcPlace = { acrossM: number; outM: number };

/**
 * The place at an angle from straight out, right positive, and a distance from the goal's centre.
 *
 * @example onArc(30, 1.6) // { acrossM: 0.8, outM: 1.39 }
 */
export const onArc = (angleDeg: number, radiusM: number): ArcPlace => ({
  acrossM: radiusM * Math.sin(toRad(angleDeg)),
  outM: radiusM * Math.cos(toRad(angleDeg)),
});

export type ArcLanes = {
  marks: ({ angleDeg: number } & ArcPlace)[];
  gapM: number;
  stepsPerGap: number;
  stepM: number;
};

/**
 * Lanes for a goalkeeper: marks at equal angles on a circle round the goal centre, and how many
 * shuffle steps lie between two neighbours.
 *
 * @param input depth (radius) and shuffle step in metres; spread is the angle from the middle to the
 *   outermost lane, degrees
 * @throws {RangeError} naming the field that is out of range
 * @example arcLanes({ depthM: 1.6, lanes: 5, spreadDeg: 60, shuffleStepM: 0.45 }).stepsPerGap // 2
 * Source: circle geometry, chord = 2r·sin(Δ/2)
 */
export const arcLanes = (input: {
  depthM: number;
  lanes: number;
  spreadDeg: number;
  shuffleStepM: number;
}): ArcLanes => {
  const depthM = number('depthM', input.depthM, { above: 0, max: 20 });
  const lanes = whole('lanes', input.lanes, { min: 2, max: 15 });
  const spreadDeg = number('spreadDeg', input.spreadDeg, { above: 0, max: 90 });
  const shuffleStepM = number('shuffleStepM', input.shuffleStepM, { above: 0, max: 2 });
  const between = (2 * spreadDeg) / (lanes - 1);
  const marks = Array.from({ length: lanes }, (_, i) => {
    const angleDeg = -spreadDeg + i * between;
    return { angleDeg, ...onArc(angleDeg, depthM) };
  });
  const gapM = 2 * depthM * Math.sin(toRad(between / 2));
  const stepsPerGap = Math.ceil(gapM / shuffleStepM - 1e-9);
  return { marks, gapM, stepsPerGap, stepM: gapM / stepsPerGap };
};

export type ArcMove = {
  straight: { onAngleS: number; setS: number };
  angleFirst: { onAngleS: number; setS: number };
};

/**
 * The wide move by both schools: straight to the new spot (on angle only on arrival), or first the
 * shortest way to the new lane line and then out along it.
 *
 * @param input depth in metres, lane angles in degrees, speed in metres a second
 * @throws {RangeError} naming the field that is out of range
 * @example
 * arcMove({ depthM: 1.7, fromDeg: -40, toDeg: 35, speedMps: 2.6 }).straight // { onAngleS: 0.796, setS: 0.796 }
 * Source: circle geometry; past a quarter turn the shortest way to the line is to the goal centre
 */
export const arcMove = (input: {
  depthM: number;
  fromDeg: number;
  toDeg: number;
  speedMps: number;
}): ArcMove => {
  const depthM = number('depthM', input.depthM, { above: 0, max: 20 });
  const fromDeg = number('fromDeg', input.fromDeg, { min: -90, max: 90 });
  const toDeg = number('toDeg', input.toDeg, { min: -90, max: 90 });
  const speed = number('speedMps', input.speedMps, { above: 0, max: 13 });
  const delta = toRad(Math.abs(toDeg - fromDeg));
  const straightS = (2 * depthM * Math.sin(delta / 2)) / speed;
  const quarter = Math.min(delta, Math.PI / 2);
  const onAngleS = (depthM * Math.sin(quarter)) / speed;
  return {
    straight: { onAngleS: straightS, setS: straightS },
    angleFirst: { onAngleS, setS: onAngleS + (depthM * (1 - Math.cos(quarter))) / speed },
  };
};

const mix = (a: ArcPlace, b: ArcPlace, part: number): ArcPlace => ({
  acrossM: a.acrossM + (b.acrossM - a.acrossM) * part,
  outM: a.outM + (b.outM - a.outM) * part,
});

/**
 * Where each school has the keeper at a moment of the wide move: straight along the chord, or on angle
 * first (over the corner where the new lane line is nearest) and then out along it.
 *
 * @param timeS seconds from the start of the move
 * @throws {RangeError} as `arcMove`
 * @example
 * keepersAt({ depthM: 1.7, fromDeg: -40, toDeg: 35, speedMps: 2.6 }, 0.5).straight
 * // { acrossM: 0.206, outM: 1.36 }
 */
export const keepersAt = (
  move: { depthM: number; fromDeg: number; toDeg: number; speedMps: number },
  timeS: number,
): { straight: ArcPlace; angleFirst: ArcPlace; corner: ArcPlace } => {
  const { depthM, fromDeg, toDeg } = move;
  const { straight, angleFirst } = arcMove(move);
  const [from, to] = [onArc(fromDeg, depthM), onArc(toDeg, depthM)];
  const turnDeg = Math.min(Math.abs(toDeg - fromDeg), 90);
  const corner = onArc(toDeg, depthM * Math.cos((turnDeg * Math.PI) / 180));
  const part = (t: number, whole: number): number => (whole > 0 ? Math.min(1, t / whole) : 1);
  const { onAngleS, setS } = angleFirst;
  return {
    corner,
    straight: mix(from, to, part(timeS, straight.setS)),
    angleFirst:
      timeS < onAngleS
        ? mix(from, corner, part(timeS, onAngleS))
        : mix(corner, to, part(timeS - onAngleS, setS - onAngleS)),
  };
};
