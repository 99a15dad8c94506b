import type { PhaseKind, PhaseSteps } from '@gravek/core/layout/sequence';
import { type ParameterFields, plainValues } from './parameters';
import {
  cadence,
  degrees,
  FEET,
  feetOrBoth,
  foot,
  length,
  maybeFoot,
  seconds,
  steps,
  toes,
  way,
} from './phaseFields';

/** Every kind of step a phase can hold: what it is called, and its parameters. */
export const PHASE_KINDS: Readonly<Record<PhaseKind, { name: string; fields: ParameterFields }>> = {
  stance: {
    name: 'Ready stance',
    fields: {
      width: length('Width', 0.05, 1.5),
      depth: length('Depth', 0, 1.5),
      front: maybeFoot('Front foot'),
    },
  },
  trigger: {
    name: 'Trigger step',
    fields: {
      foot: foot('Foot'),
      way: way('Way'),
      step: length('Step', 0, 1.5),
      intervalS: seconds('Time', 2),
    },
  },
  'build-up': {
    name: 'Build-up',
    fields: {
      first: maybeFoot('First foot'),
      steps: steps(),
      fill: { type: 'flag', label: 'Takes more or fewer steps when the run-up does' },
      target: {
        type: 'group',
        label: 'Arrives at a target',
        fields: {
          name: { type: 'text', label: 'Target' },
          arrive: foot('Arrives with'),
          longer: { type: 'figure', label: 'Second-last longer', min: 0, max: 0.3, unit: '' },
          shorter: { type: 'figure', label: 'Last shorter', min: 0, max: 0.3, unit: '' },
          entryFlareDeg: {
            type: 'figure',
            label: 'Entry flared by',
            min: 0,
            max: 30,
            unit: '°',
            maybe: true,
          },
        },
      },
    },
  },
  curve: {
    name: 'Curve',
    fields: {
      to: foot('Turns to the'),
      steps: steps(),
      turnDeg: degrees('Turn', 180),
      radiusM: {
        type: 'figure',
        label: 'Circle on the floor, radius (0 for none)',
        min: 0,
        max: 30,
        unit: 'm',
        maybe: true,
      },
      step: length('Step', 0.1, 4),
      cadenceSpm: cadence,
      bar: {
        type: 'group',
        label: 'Runs to a bar',
        fields: {
          alongM: { type: 'figure', label: 'Inside the upright', min: -3, max: 3, unit: 'm' },
          outM: { type: 'figure', label: 'Out from the bar', min: 0.2, max: 3, unit: 'm' },
          takeoffAngleDeg: { type: 'figure', label: 'Take-off angle', min: 5, max: 60, unit: '°' },
          longer: { type: 'figure', label: 'Second-last longer', min: 0, max: 0.3, unit: '' },
          shorter: { type: 'figure', label: 'Last shorter', min: 0, max: 0.3, unit: '' },
        },
      },
    },
  },
  crossover: {
    name: 'Crossovers',
    fields: {
      first: foot('First foot'),
      steps: steps(),
      step: length('Step', 0.02, 3),
      second: { type: 'span', label: 'Every other step', minM: 0.02, maxM: 3, maybe: true },
      grow: { type: 'figure', label: 'Each step times', min: 0.5, max: 2, unit: '' },
      cadenceSpm: cadence,
      sideOnDeg: degrees('Body turned', 110),
      to: foot('Turned to the'),
    },
  },
  short: {
    name: 'Short steps',
    fields: {
      first: maybeFoot('First foot'),
      steps: steps(),
      taper: { type: 'count', label: 'Steps to shorten over', min: 0, max: 20 },
      step: length('Step', 0, 1.5),
      cadenceSpm: cadence,
      width: length('Width', 0, 1.5),
      target: {
        type: 'group',
        label: 'Arrives at a target',
        fields: { name: { type: 'text', label: 'Target' }, arrive: foot('Arrives with') },
      },
    },
  },
  'give-ground': {
    name: 'Giving ground',
    fields: {
      first: maybeFoot('First foot'),
      steps: steps(),
      step: length('Step', 0.01, 1.5),
      cadenceSpm: cadence,
      width: length('Width', 0, 1.5),
    },
  },
  shuffle: {
    name: 'Shuffle',
    fields: {
      to: foot('To the'),
      steps: steps('Shuffles'),
      step: length('Step', 0.05, 2),
      intervalS: seconds('Time of one'),
      width: length('Width', 0.05, 1.5),
      stopEvery: { type: 'count', label: 'Stop after every', min: 0, max: 20 },
      stopS: { type: 'figure', label: 'Stop for', min: 0, max: 10, unit: 's' },
      leadToesDeg: toes('Toes of the leading foot, towards the way'),
      trailToesDeg: toes('Toes of the trailing foot, towards the way'),
    },
  },
  arc: {
    name: 'Lanes of an arc',
    fields: {
      goalM: { type: 'figure', label: 'Goal width', min: 1, max: 12, unit: 'm' },
      depth: length('Depth', 0.3, 15),
      lanes: { type: 'count', label: 'Lanes', min: 2, max: 15 },
      spreadDeg: { type: 'figure', label: 'Outermost lane', min: 5, max: 85, unit: '°' },
      post: foot('Lanes counted from the post'),
      fromLane: { type: 'count', label: 'From lane', min: 1, max: 15 },
      toLane: { type: 'count', label: 'To lane', min: 1, max: 15 },
      step: length('Longest shuffle', 0.05, 2),
      intervalS: seconds('Time of one'),
      width: length('Width', 0.05, 1.5),
      stopS: { type: 'figure', label: 'Stop for', min: 0, max: 10, unit: 's' },
    },
  },
  'arc-move': {
    name: 'Wide move on the arc',
    fields: {
      toLane: { type: 'count', label: 'To lane', min: 1, max: 15 },
      way: {
        type: 'choice',
        label: 'Way',
        options: [
          ['angle-first', 'on angle first'],
          ['straight', 'straight to the spot'],
        ],
      },
      step: length('Step', 0.05, 2),
      cadenceSpm: cadence,
      width: length('Width', 0.05, 1.5),
      stop: foot('Stops on the'),
    },
  },
  gaps: {
    name: 'Gaps',
    fields: {
      gaps: steps('Gaps'),
      gap: length('Gap', 0.1, 5),
      contacts: { type: 'count', label: 'Contacts per gap', min: 1, max: 4 },
      way: way('Way'),
      first: foot('First foot'),
      cadenceSpm: cadence,
    },
  },
  pivot: {
    name: 'Pivot',
    fields: {
      on: foot('On the'),
      turn: {
        type: 'choice',
        label: 'Turn',
        options: [
          ['front', 'front'],
          ['reverse', 'reverse'],
        ],
      },
      turnDeg: degrees('Angle'),
      intervalS: seconds('Time'),
    },
  },
  gather: {
    name: 'Gather and close',
    fields: {
      feet: {
        type: 'choice',
        label: 'Feet',
        options: [
          ['one-two', 'one, then the other'],
          ['together', 'both together'],
        ],
      },
      first: foot('First foot'),
      ahead: length('To the first foot', 0, 3),
      apart: length('Between the feet', 0, 2),
      intervalS: seconds('Time of each', 2),
      boxes: { type: 'flag', label: 'A marked box for each foot' },
    },
  },
  finish: {
    name: 'Finish',
    fields: {
      from: feetOrBoth('Takes off from'),
      flight: length('Flight', -1, 10),
      flightS: seconds('Time in the air', 2),
      land: {
        type: 'choice',
        label: 'Lands on',
        options: [...FEET, ['both', 'both'], ['none', 'not on the feet']],
      },
    },
  },
  hold: { name: 'Hold', fields: { holdS: seconds('Held for', 60) } },
  skip: {
    name: 'Skips',
    fields: {
      first: foot('First foot'),
      skips: { type: 'count', label: 'Skips', min: 1, max: 40 },
      step: length('Step', 0.05, 2),
      hop: length('Hop', 0.02, 2),
      intervalS: seconds('Time of step and hop', 2),
    },
  },
  recover: {
    name: 'Go on',
    fields: {
      first: maybeFoot('First foot'),
      steps: steps(),
      step: length('Step', 0, 3),
      way: way('Way'),
      cadenceSpm: cadence,
      width: { type: 'span', label: 'Between the feet', minM: 0.02, maxM: 1.5, maybe: true },
    },
  },
  called: {
    name: 'Called steps',
    fields: {
      calls: {
        type: 'list',
        label: 'Calls',
        max: 12,
        fields: {
          foot: foot('Foot'),
          ahead: length('Ahead', -2, 2),
          aside: length('Aside', 0, 3),
          to: foot('To the'),
          turnDeg: degrees('Body turns', 180),
          turnTo: foot('Turns to the'),
          intervalS: seconds('Time', 3),
        },
      },
    },
  },
};

/** Steps of a kind with something to begin with. */
export const plainSteps = (kind: PhaseKind): PhaseSteps =>
  ({ kind, ...plainValues(PHASE_KINDS[kind].fields) }) as unknown as PhaseSteps;
