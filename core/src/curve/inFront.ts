import { number, whole } from '../check';

export type InFrontInput = {
  /** between runner and defender when it begins, head to head, metres */
  depthM: number;
  /** less than this between them is beaten, metres */
  keepM: number;
  /** how long it is looked at, seconds */
  horizonS: number;
  runner: {
    topSpeedMps: number;
    tauS: number;
    /** how much of the top speed is run, 0.05–1.5 */
    fraction: number;
    /** straight ahead at this speed for as long as the short steps take */
    dallySpeedMps: number;
    /** how far aside the way round goes, and at which angle off straight ahead */
    sideM: number;
    releaseDeg: number;
  };
  defender: {
    reactionS: number;
    /** short steps back, 0–20 */
    steps: number;
    stepM: number;
    cadenceSpm: number;
    /** the turn takes so long and gains so much ground back */
    turnS: number;
    turnBackM: number;
    topSpeedMps: number;
    tauS: number;
  };
};

export type InFront = {
  /** the first moment with less than `keepM`: 0 when it begins so, the horizon when it never comes */
  frontS: number;
  /** when the turn begins */
  turnAtS: number;
  /** the gap after one, two and three seconds, metres; negative: the runner is past */
  gapM: [number, number, number];
  /** the fastest runner held for one, two and three seconds, as a part of top speed; null: not even a fifth */
  holds: [number | null, number | null, number | null];
};

const SECONDS = [1, 2, 3] as const;
/** Runners who are looked for, as a part of top speed. */
const SLOWEST = 0.2;
const FASTEST = 1;
/** Looked at so often between two corners, for turning points of the gap. */
const LOOKS = 16;

const bisect = (isBefore: (x: number) => boolean, from: number, to: number): number => {
  let [low, high] = [from, to];
  for (let i = 0; i < 60 && high - low > 1e-10; i += 1) {
    const middle = (low + high) / 2;
    if (isBefore(middle)) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
};

/** Way and speed of somebody who speeds up (or slows) towards a speed with a time constant. */
const speedingUp = (fromMps: number, toMps: number, tauS: number, s: number): number =>
  toMps * s - (toMps - fromMps) * tauS * (1 - Math.exp(-s / tauS));

type Race = {
  /** when the runner goes, is round, and when the defender begins and ends the turn */
  cornersS: number[];
  goesS: number;
  turnAtS: number;
  /** so far along the own way since going */
  runnerWayM: (timeS: number) => number;
  runnerForwardM: (timeS: number) => number;
  defenderBackM: (timeS: number) => number;
};

const raceOf = ({ runner, defender }: InFrontInput): Race => {
  const stepsS = (defender.steps * 60) / defender.cadenceSpm;
  const goesS = stepsS;
  const turnAtS = defender.reactionS + stepsS;
  const runsS = turnAtS + defender.turnS;
  const release = (runner.releaseDeg * Math.PI) / 180;
  const roundM = runner.sideM > 0 ? runner.sideM / Math.sin(release) : 0;
  const part = Math.cos(release);
  const topMps = runner.fraction * runner.topSpeedMps;
  const runnerWayM = (timeS: number): number =>
    timeS <= goesS ? 0 : speedingUp(runner.dallySpeedMps, topMps, runner.tauS, timeS - goesS);
  const runnerForwardM = (timeS: number): number => {
    const wayM = runnerWayM(timeS);
    return (
      runner.dallySpeedMps * Math.min(timeS, goesS) +
      (wayM <= roundM ? wayM * part : roundM * part + wayM - roundM)
    );
  };
  const backM = defender.steps * defender.stepM;
  const turnMps = defender.turnS > 0 ? defender.turnBackM / defender.turnS : 0;
  const defenderBackM = (timeS: number): number => {
    if (timeS <= defender.reactionS) return 0;
    if (timeS < turnAtS) return (backM * (timeS - defender.reactionS)) / stepsS;
    if (timeS < runsS) return backM + turnMps * (timeS - turnAtS);
    return (
      backM +
      defender.turnBackM +
      speedingUp(turnMps, defender.topSpeedMps, defender.tauS, timeS - runsS)
    );
  };
  const roundS = roundM > 0 ? bisect((t) => runnerWayM(t) < roundM, goesS, goesS + 120) : goesS;
  return {
    cornersS: [defender.reactionS, goesS, turnAtS, runsS, roundS],
    goesS,
    turnAtS,
    runnerWayM,
    runnerForwardM,
    defenderBackM,
  };
};

/** The gap at the ends of every stretch in which it only grows or only shrinks. */
const gapStretches = (input: InFrontInput, untilS: number): { timeS: number; gapM: number }[] => {
  const race = raceOf(input);
  const gap = (timeS: number): number =>
    input.depthM - race.runnerForwardM(timeS) + race.defenderBackM(timeS);
  const corners = [
    0,
    ...race.cornersS.filter((at) => at > 0 && at < untilS).sort((a, b) => a - b),
    untilS,
  ];
  const times = [0];
  for (const [i, to] of corners.slice(1).entries()) {
    const from = corners[i]!;
    if (to - from < 1e-9) continue;
    const look = (to - from) / LOOKS;
    const slope = (t: number): number => gap(t + look / 100) - gap(t - look / 100);
    for (let k = 1; k < LOOKS; k += 1) {
      const [a, b] = [from + (k - 0.5) * look, from + (k + 0.5) * look];
      if (slope(a) < 0 !== slope(b) < 0) {
        const falls = slope(a) < 0;
        times.push(bisect((t) => slope(t) < 0 === falls, a, b));
      }
    }
    times.push(to);
  }
  return times.map((timeS) => ({ timeS, gapM: gap(timeS) }));
};

const heldUntil = (input: InFrontInput, fraction: number, untilS: number): boolean =>
  gapStretches({ ...input, runner: { ...input.runner, fraction } }, untilS).every(
    ({ gapM }) => gapM >= input.keepM - 1e-9,
  );

/** The fastest runner who is held for so long: the gap only shrinks with the runner's speed. */
const fastestHeld = (input: InFrontInput, untilS: number): number | null => {
  if (!heldUntil(input, SLOWEST, untilS)) return null;
  if (heldUntil(input, FASTEST, untilS)) return FASTEST;
  return bisect((fraction) => heldUntil(input, fraction, untilS), SLOWEST, FASTEST);
};

const checked = (input: InFrontInput): InFrontInput => {
  const { runner, defender } = input;
  number('depthM', input.depthM, { min: 0, max: 60 });
  number('keepM', input.keepM, { min: 0, max: 20 });
  number('horizonS', input.horizonS, { above: 0, max: 30 });
  number('runner.topSpeedMps', runner.topSpeedMps, { above: 0, max: 13 });
  number('runner.tauS', runner.tauS, { above: 0, max: 10 });
  number('runner.fraction', runner.fraction, { min: 0.05, max: 1.5 });
  number('runner.dallySpeedMps', runner.dallySpeedMps, { min: 0, max: 13 });
  number('runner.sideM', runner.sideM, { min: 0, max: 20 });
  number('runner.releaseDeg', runner.releaseDeg, { above: 0, max: 90 });
  number('defender.reactionS', defender.reactionS, { min: 0, max: 3 });
  whole('defender.steps', defender.steps, { min: 0, max: 20 });
  number('defender.stepM', defender.stepM, { above: 0, max: 2 });
  number('defender.cadenceSpm', defender.cadenceSpm, { above: 0, max: 900 });
  number('defender.turnS', defender.turnS, { min: 0, max: 3 });
  number('defender.turnBackM', defender.turnBackM, { min: -2, max: 3 });
  number('defender.topSpeedMps', defender.topSpeedMps, { above: 0, max: 13 });
  number('defender.tauS', defender.tauS, { above: 0, max: 10 });
  return input;
};

/** Runner and defender at a moment, in metres from where the defender stands, the runner's way ahead. */
export type RaceMoment = {
  timeS: number;
  /** negative: still before the place where the defender stood */
  runnerM: number;
  /** how far aside the runner is from the line on which both began */
  runnerAsideM: number;
  defenderM: number;
  gapM: number;
};

/**
 * Where runner and defender are over time, for a drawing.
 *
 * @param points at least 2, in equal steps over the horizon
 * @throws {RangeError} naming the field that is out of range
 * @example
 * const runner = { topSpeedMps: 7.6, tauS: 1.2, fraction: 1, dallySpeedMps: 1.2, sideM: 1.4, releaseDeg: 35 };
 * const defender = { reactionS: 0.2, steps: 4, stepM: 0.15, cadenceSpm: 420, turnS: 0.45, turnBackM: 0.25,
 *   topSpeedMps: 7.4, tauS: 1.15 };
 * inFrontTracks({ depthM: 1.6, keepM: 0.3, horizonS: 3, runner, defender }).length // 61
 */
export const inFrontTracks = (input: InFrontInput, points = 61): RaceMoment[] => {
  const race = raceOf(checked(input));
  const release = (input.runner.releaseDeg * Math.PI) / 180;
  return Array.from({ length: whole('points', points, { min: 2, max: 10_000 }) }, (_, i) => {
    const timeS = (input.horizonS * i) / (points - 1);
    const runnerM = race.runnerForwardM(timeS) - input.depthM;
    const defenderM = race.defenderBackM(timeS);
    return {
      timeS,
      runnerM,
      runnerAsideM: Math.min(input.runner.sideM, race.runnerWayM(timeS) * Math.sin(release)),
      defenderM,
      gapM: defenderM - runnerM,
    };
  });
};

/**
 * Giving ground: how long a defender stays between a runner and the target, and which runner is held. The
 * runner dallies straight ahead while the short steps are made, then goes, the first metres aside; the
 * defender reacts, makes the steps that the coach asks for, turns, and runs.
 *
 * @returns seconds, metres, and parts of the runner's top speed
 * @throws {RangeError} naming the field that is out of range
 * @example
 *   inFront({
 *     depthM: 1.6, keepM: 0.3, horizonS: 3,
 *     runner: { topSpeedMps: 7.6, tauS: 1.2, fraction: 1, dallySpeedMps: 1.2, sideM: 1.4, releaseDeg: 35 },
 *     defender: { reactionS: 0.2, steps: 4, stepM: 0.15, cadenceSpm: 420, turnS: 0.45, turnBackM: 0.25,
 *       topSpeedMps: 7.4, tauS: 1.15 },
 *   }); // beaten after 1.24 s at full speed; 61 % of that speed is held for two seconds
 * Source: first-order sprint model on both sides, positions in closed form
 */
export const inFront = (input: InFrontInput): InFront => {
  const race = raceOf(checked(input));
  const { depthM, keepM, horizonS } = input;
  const stretches = gapStretches(input, horizonS);
  const beaten = stretches.findIndex(({ gapM }) => gapM < keepM);
  const gapAt = (timeS: number): number =>
    depthM - race.runnerForwardM(timeS) + race.defenderBackM(timeS);
  const frontS =
    beaten < 0
      ? horizonS
      : beaten === 0
        ? 0
        : bisect((t) => gapAt(t) >= keepM, stretches[beaten - 1]!.timeS, stretches[beaten]!.timeS);
  return {
    frontS,
    turnAtS: race.turnAtS,
    gapM: SECONDS.map(gapAt) as InFront['gapM'],
    holds: SECONDS.map((s) => fastestHeld(input, s)) as InFront['holds'],
  };
};
