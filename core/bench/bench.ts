import { chooseCue } from '../src/cue/chooseCue';
import { probImproved } from '../src/cue/cueEffect';
import { cueState } from '../src/cue/cueState';
import { rateBand } from '../src/cue/rateBand';
import { cadencePlan } from '../src/curve/cadencePlan';
import { arcLanes } from '../src/curve/goalArc';
import { inFront } from '../src/curve/inFront';
import { solveCurve } from '../src/curve/solveCurve';
import { parseLength } from '../src/lengthText';
import { fitStepModel } from '../src/runup/fitStepModel';
import { simulateRunUps } from '../src/runup/simulateRunUps';
import { solveStraight } from '../src/runup/solveStraight';
import { compareStepCounts, nearbyPlans } from '../src/runup/stepCounts';
import { modelCadenceSpm, modelLengthM } from '../src/runup/stepModel';
import type { StraightFailure } from '../src/runup/straightPlan';
import { runState, turnOrder } from '../src/session/runOrder';
import { AS_PLANNED } from '../src/session/variants';
import { againstGeneralSolver } from './generalSolver';
import { measure } from './measure';

/** How long each computation takes for 20 steps. */
const model = {
  firstLengthM: 1.22,
  topLengthM: 2.26,
  lengthRate: 3.1,
  firstCadenceSpm: 208,
  topCadenceSpm: 250,
  cadenceRate: 2.4,
};
const ask = {
  model,
  takeoffFoot: 'left',
  steps: 20,
  distanceM: 42,
  absorb: 'early',
  tolerance: 0.1,
} as const;
const steps = Array.from({ length: 20 }, (_, i) => ({
  lengthM: modelLengthM(model, i + 1) + (i % 3) * 0.01,
  intervalS: 60 / modelCadenceSpm(model, i + 1),
}));
const sessions = Array.from({ length: 20 }, (_, i) => ({
  date: new Date(Date.UTC(2031, 0, 1 + 3 * i)).toISOString().slice(0, 10),
  reps: 8,
  faults: i % 5,
  cued: true,
}));
const far = { ...ask, distanceM: 60 };
const set = {
  ...AS_PLANNED,
  makes: null,
  stand: 'turns' as const,
  drillSetId: 's',
  athleteIds: ['a', 'b', 'c', 'd', 'e', 'f'],
  sets: 3,
  reps: 8,
  restS: 60,
  setRestS: 120,
};
const log = turnOrder(set)
  .slice(0, 100)
  .map((turn, i) => ({
    ...turn,
    id: `r${i}`,
    outcome: 'clean' as const,
    voids: null,
    made: null,
    watched: true,
    device: 'phone',
    deviceNo: i + 1,
    arrival: i + 1,
    atMs: i,
  }));

const cases: Record<string, () => unknown> = {
  solveStraight: () => solveStraight(ask),
  'compareStepCounts, 15 counts': () => compareStepCounts({ ...ask }, 8, 22),
  nearbyPlans: () => nearbyPlans(far, solveStraight(far) as StraightFailure),
  fitStepModel: () => fitStepModel({ trials: [{ steps }] }),
  solveCurve: () =>
    solveCurve({
      side: 'right',
      takeoff: { alongM: 0.5, outM: 0.95 },
      takeoffAngleDeg: 25,
      curveSteps: 5,
      curveStepM: 1.82,
      straightSteps: 15,
      straightStepM: 1.88,
      speedMps: 6.6,
    }),
  inFront: () =>
    inFront({
      depthM: 1.6,
      keepM: 0.3,
      horizonS: 3,
      runner: {
        topSpeedMps: 7.6,
        tauS: 1.2,
        fraction: 1,
        dallySpeedMps: 1.2,
        sideM: 1.4,
        releaseDeg: 35,
      },
      defender: {
        reactionS: 0.2,
        steps: 4,
        stepM: 0.15,
        cadenceSpm: 420,
        turnS: 0.45,
        turnBackM: 0.25,
        topSpeedMps: 7.4,
        tauS: 1.15,
      },
    }),
  arcLanes: () => arcLanes({ depthM: 1.6, lanes: 5, spreadDeg: 60, shuffleStepM: 0.45 }),
  cadencePlan: () => cadencePlan({ baselineSpm: 162, increasePct: 8, weeks: 6, speedMps: 3.4 }),
  rateBand: () => rateBand({ sessions, onDate: '2031-03-01' }),
  probImproved: () =>
    probImproved({ before: { reps: 44, faults: 25 }, now: { reps: 20, faults: 5 } }),
  'cueState, 20 sessions': () => cueState({ sessions }),
  chooseCue: () =>
    chooseCue({
      faults: ['a', 'b', 'c', 'd', 'e', 'f'].map((code, i, all) => ({
        code,
        phase: i,
        severity: 2,
        rate: 0.4,
        leadsTo: all.slice(i + 1, i + 3),
        safety: false,
      })),
    }),
  'runState, 144 turns, 100 logged': () => runState(set, log),
  'simulateRunUps, 20,000 of 20 steps': () =>
    simulateRunUps({
      lengthsM: Array.from({ length: 20 }, (_, i) => modelLengthM(model, i + 1)),
      stepFraction: 0.022,
      runFraction: 0.01,
      startSdM: 0.02,
      marginM: 0.1,
      steering: { steps: 4, gain: 0.8, limit: 0.08 },
      runs: 20_000,
      seed: 1,
    }),
  'squad of 60, 15 counts each': () => {
    for (let i = 0; i < 60; i += 1) {
      compareStepCounts({ ...ask, distanceM: 40 + i / 20 }, 8, 22);
    }
  },
  parseLength: () => parseLength(`40' 8 1/2"`, { unit: 'imperial' }),
};

const slow = /^(simulate|squad)/;
measure(Object.fromEntries(Object.entries(cases).filter(([name]) => !slow.test(name))));
measure(Object.fromEntries(Object.entries(cases).filter(([name]) => slow.test(name))), 12);
againstGeneralSolver();
