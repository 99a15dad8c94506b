import { number } from './check';

export type CushionInput = {
  /** distance between runner and defender when the runner starts, metres */
  depthM: number;
  /** who must go round the defender (so far aside, leaving at that angle) loses ground by it */
  attacker: {
    topSpeedMps: number;
    tauS: number;
    sideM?: number | undefined;
    releaseDeg?: number | undefined;
  };
  defender: {
    reactionS: number;
    stepM: number;
    cadenceSpm: number;
    turnS: number;
    topSpeedMps: number;
    tauS: number;
  };
  /** distance that must stay between them */
  keepM: number;
  horizonS: number;
};

export type CushionPlan = {
  /** when the runner draws even with a defender who never turns; null if never */
  evenAtS: number | null;
  /** latest moment to turn and run that keeps the distance; null if none does */
  openByS: number | null;
  /** whole short steps before that moment */
  stepsBeforeOpen: number | null;
  /** depth that keeps the distance when turning right at the reaction */
  minDepthM: number;
};

/** Root of a function that changes sign between a and b. */
const bisect = (f: (x: number) => number, a: number, b: number): number => {
  let low = a;
  let high = b;
  const rising = f(a) < 0;
  for (let i = 0; i < 60 && high - low > 1e-10; i += 1) {
    const mid = (low + high) / 2;
    if (f(mid) < 0 === rising) low = mid;
    else high = mid;
  }
  return (low + high) / 2;
};

type Attacker = CushionInput['attacker'];

/** Way along the runner's own path. */
const pathAt = ({ topSpeedMps, tauS }: Attacker, t: number): number =>
  topSpeedMps * (t - tauS * (1 - Math.exp(-t / tauS)));

/** Length of the path round, and how much of it counts forward. */
const roundOf = ({ sideM = 0, releaseDeg = 0 }: Attacker): { wayM: number; part: number } => {
  const release = (releaseDeg * Math.PI) / 180;
  return sideM > 0 && releaseDeg > 0
    ? { wayM: sideM / Math.sin(release), part: Math.cos(release) }
    : { wayM: 0, part: 1 };
};

/** How far forward the runner is. */
const runnerAt = (attacker: Attacker, t: number): number => {
  const { wayM, part } = roundOf(attacker);
  const way = pathAt(attacker, t);
  return way <= wayM ? way * part : wayM * part + way - wayM;
};

/** When the runner has gone round. */
const roundS = (attacker: Attacker): number => {
  const { wayM } = roundOf(attacker);
  return wayM > 0 ? bisect((t) => pathAt(attacker, t) - wayM, 0, 120) : 0;
};

const retreatSpeed = ({ stepM, cadenceSpm }: CushionInput['defender']): number =>
  (stepM * cadenceSpm) / 60;

/** Way that the defender has made at time t when turning at time `openS`. */
const defenderAt = (d: CushionInput['defender'], openS: number, t: number): number => {
  if (t <= d.reactionS) return 0;
  const back = retreatSpeed(d);
  const runsFrom = openS + d.turnS;
  if (t <= runsFrom) return back * (t - d.reactionS);
  const s = t - runsFrom;
  return (
    back * (runsFrom - d.reactionS) +
    d.topSpeedMps * s -
    (d.topSpeedMps - back) * d.tauS * (1 - Math.exp(-s / d.tauS))
  );
};

/**
 * Least of (defender − runner) over the horizon. Between the corners (reaction, end of the turn) the
 * speed difference has at most two zeros, split by its own extremum, which is known in closed form; a
 * runner who has gone round is suddenly faster forward, which is one corner more.
 */
const leastGain = (input: CushionInput, openS: number): number => {
  const { attacker: a, defender: d, horizonS } = input;
  const back = retreatSpeed(d);
  const gain = (t: number): number => defenderAt(d, openS, t) - runnerAt(a, t);
  const runsFrom = openS + d.turnS;
  let least = Math.min(gain(0), gain(Math.min(d.reactionS, horizonS)), gain(horizonS));
  if (runsFrom < horizonS) {
    least = Math.min(least, gain(runsFrom));
    const round = Math.min(horizonS, Math.max(runsFrom, roundS(a)));
    for (const [begin, end, part] of [
      [runsFrom, round, roundOf(a).part],
      [round, horizonS, 1],
    ] as const) {
      if (end <= begin) continue;
      least = Math.min(least, gain(end));
      const topMps = a.topSpeedMps * part;
      const speedGain = (t: number): number =>
        d.topSpeedMps -
        (d.topSpeedMps - back) * Math.exp(-(t - runsFrom) / d.tauS) -
        topMps * (1 - Math.exp(-t / a.tauS));
      const corners = [begin, end];
      const ratio =
        ((d.topSpeedMps - back) * Math.exp(runsFrom / d.tauS) * a.tauS) / (topMps * d.tauS);
      if (ratio > 0 && Math.abs(1 / a.tauS - 1 / d.tauS) > 1e-12) {
        const turn = Math.log(ratio) / (1 / d.tauS - 1 / a.tauS);
        if (turn > begin && turn < end) corners.splice(1, 0, turn);
      }
      for (let i = 1; i < corners.length; i += 1) {
        const [from, to] = [corners[i - 1]!, corners[i]!];
        if (speedGain(from) < 0 !== speedGain(to) < 0) {
          least = Math.min(least, gain(bisect(speedGain, from, to)));
        }
      }
    }
  }
  return least;
};

/**
 * How far forward the runner of a race is at a moment, metres from where the run began.
 *
 * @throws {RangeError} when the moment is before the start
 */
export const runnerForwardM = (input: CushionInput, timeS: number): number =>
  runnerAt(input.attacker, number('timeS', timeS, { min: 0 }));

/**
 * Where runner and defender are over time, for a drawing: metres from where the defender stands, the way
 * the runner goes positive.
 *
 * @param openS when the defender turns; null for never
 * @param points at least 2, in equal steps over the horizon
 */
export const cushionTracks = (
  input: CushionInput,
  openS: number | null,
  points = 61,
): { timeS: number; runnerM: number; defenderM: number; gapM: number }[] =>
  Array.from({ length: points }, (_, i) => {
    const timeS = (input.horizonS * i) / (points - 1);
    const runnerM = runnerAt(input.attacker, timeS) - input.depthM;
    const defenderM = defenderAt(input.defender, openS ?? Infinity, timeS);
    return { timeS, runnerM, defenderM, gapM: defenderM - runnerM };
  });

/**
 * Giving ground: a runner starts at a defender who backs off in short steps and has to turn and run
 * in time. Runner speed is v(1 − e^(−t/τ)); the defender is still for the reaction, then backs off at
 * step × cadence, keeps that speed through the turn, and then speeds up to the own top.
 *
 * @returns seconds, metres and whole steps
 * @throws {RangeError} naming the field that is out of range
 * Source: first-order sprint model, positions in closed form
 */
export const cushion = (input: CushionInput): CushionPlan => {
  const { attacker, defender } = input;
  const depthM = number('depthM', input.depthM, { min: 0, max: 60 });
  number('attacker.topSpeedMps', attacker.topSpeedMps, { above: 0, max: 13 });
  number('attacker.tauS', attacker.tauS, { above: 0, max: 10 });
  number('attacker.sideM', attacker.sideM ?? 0, { min: 0, max: 20 });
  number('attacker.releaseDeg', attacker.releaseDeg ?? 0, { min: 0, max: 89 });
  const reactionS = number('defender.reactionS', defender.reactionS, { min: 0, max: 3 });
  number('defender.stepM', defender.stepM, { above: 0, max: 2 });
  number('defender.cadenceSpm', defender.cadenceSpm, { above: 0, max: 900 });
  number('defender.turnS', defender.turnS, { min: 0, max: 3 });
  number('defender.topSpeedMps', defender.topSpeedMps, { above: 0, max: 13 });
  number('defender.tauS', defender.tauS, { above: 0, max: 10 });
  const keepM = number('keepM', input.keepM, { min: 0, max: 20 });
  const horizonS = number('horizonS', input.horizonS, { above: 0, max: 30 });

  const neverOpens = (t: number): number =>
    depthM + retreatSpeed(defender) * Math.max(0, t - reactionS) - runnerAt(attacker, t);
  const LATEST_EVEN_S = 120;
  const evenAtS = neverOpens(LATEST_EVEN_S) < 0 ? bisect(neverOpens, 0, LATEST_EVEN_S) : null;

  const keeps = (openS: number): number => depthM + leastGain(input, openS) - keepM;
  let openByS: number | null = null;
  if (keeps(reactionS) >= 0) {
    openByS =
      reactionS >= horizonS || keeps(horizonS) >= 0
        ? Math.max(reactionS, horizonS)
        : bisect(keeps, reactionS, horizonS);
  }
  const stepS = 60 / defender.cadenceSpm;
  return {
    evenAtS,
    openByS,
    stepsBeforeOpen: openByS === null ? null : Math.floor((openByS - reactionS) / stepS + 1e-9),
    minDepthM: keepM - leastGain(input, reactionS),
  };
};
