import type { ReadingKind, ReadingResult } from '@gravek/core/measuring/measures';
import { formatLength, formatSpeed, type LengthStyle } from '@gravek/core/units';

export type TestInfo = {
  name: string;
  /** what it is for */
  use: string;
  /** how it is done, in a few lines */
  protocol: string[];
  who: string;
};

/** The tests beside the measured run: what each is for, how it is done and who counts. */
export const TESTS: Record<ReadingKind, TestInfo> = {
  sprint: {
    name: 'Times over 5, 10 and 20 m',
    use: 'Top speed and how fast it builds up; the race of a defender with a runner goes by it.',
    protocol: [
      'Standing start, front toe on the line, warm.',
      'The clock starts with the first movement, not with a call.',
      'Two runs with a full rest; write down the better one.',
    ],
    who: 'A partner with a stopwatch at each mark, or gates.',
  },
  curve: {
    name: 'Stride on a curve',
    use: 'The radius of a curved run-up.',
    protocol: [
      'Chalk a circle of known radius and run round it at approach speed.',
      'Tape straight from toe to toe of neighbouring prints, four or more.',
    ],
    who: 'Two people with a tape.',
  },
  cadence: {
    name: 'Cadence by counting',
    use: 'The baseline of a cadence plan.',
    protocol: [
      'Easy run, two minutes in.',
      'Count one foot for the chosen time; repeat three times.',
      'The runner does not count: who counts changes step.',
    ],
    who: 'Somebody beside the runner, or the tap counter on a phone.',
  },
  'easy-cadence': {
    name: 'Cadence on an easy day',
    use: 'The beat of easy days in a cadence plan; the rate sags on them.',
    protocol: [
      'The pace of an easy day, two minutes in.',
      'Count one foot for the chosen time; repeat three times.',
      'The runner does not count: who counts changes step.',
    ],
    who: 'Somebody beside the runner, or the tap counter on a phone.',
  },
  stop: {
    name: 'Stop from a run',
    use: 'The limit of what a close-and-shorten may ask of the legs.',
    protocol: [
      'Run at a known speed through a gate of two cones.',
      'From the second cone stop in as little ground as can be, upright.',
      'Tape from the cone to the standing feet; three times.',
    ],
    who: 'A partner tapes.',
  },
  reaction: {
    name: 'Reaction',
    use: 'How soon a defender begins to give ground.',
    protocol: ['Hand sign at an uneven delay; first movement of a foot counts.', 'Five times.'],
    who: 'A device, or film counted frame by frame.',
  },
  'short-step': {
    name: 'Short step',
    use: 'The size of the short steps.',
    protocol: ['Quick short steps over chalk for five metres.', 'Tape toe to toe, five or more.'],
    who: 'A partner tapes.',
  },
  lane: {
    name: 'Steps across a lane',
    use: 'Own steps for one crossing in a slide.',
    protocol: ['Cross the lane from line to line, feet never together.', 'Count the pushes.'],
    who: 'A partner counts.',
  },
  'run-through': {
    name: 'Run-throughs at the board',
    use: 'Whether the start mark must move, and how far behind the line to aim.',
    protocol: [
      'Full run-up through the board, no jump.',
      'Mark where the toe of the take-off foot came down; tape to the line.',
      'Six runs or more in one day.',
    ],
    who: 'A partner at the board.',
  },
  'take-offs': {
    name: 'Take-offs at the bar',
    use: 'Whether the marks of a curved run-up must move, and how much take-offs differ.',
    protocol: [
      'Full run-up and take-off; somebody marks the toe of the take-off foot.',
      'Two lengths: along the bar from the near upright inwards (minus outside it), and straight out from the bar.',
      'Six runs or more in one day.',
    ],
    who: 'A partner at the upright.',
  },
  steady: {
    name: 'A steady run',
    use: 'Whether a raised cadence is held, and whether its ramp may go on.',
    protocol: [
      'Ten minutes or more at an even pace, the beat in the ear.',
      'Steps a minute for each minute, from a pod or a watch; or take the file of the run.',
    ],
    who: 'A device; who counts changes step.',
  },
};

/** The figure that is followed over time. */
export const mainFigure = (result: ReadingResult): number =>
  result.kind === 'sprint'
    ? result.topSpeedMps
    : result.kind === 'run-through'
      ? result.meanM
      : result.mean;

const small = (style: LengthStyle): LengthStyle => ({ ...style, small: true });

const signed = (m: number, style: LengthStyle): string =>
  `${formatLength(Math.abs(m), small(style))} ${m > 0 ? 'over' : 'short'}`;

/** A reading in words. */
export const resultText = (result: ReadingResult, style: LengthStyle): string => {
  const spread = (write: (value: number) => string, sd: number | null, n: number): string =>
    sd === null ? ', once' : ` ± ${write(sd)}, ${n} times`;
  switch (result.kind) {
    case 'sprint':
      return `top speed ${formatSpeed(result.topSpeedMps, style.unit, 2)}, time constant ${result.tauS.toFixed(2)} s; the times are met within ${result.worstS.toFixed(2)} s`;
    case 'curve':
    case 'short-step': {
      const write = (m: number): string => formatLength(m, style);
      return `${write(result.mean)} a step${spread((m) => formatLength(m, small(style)), result.sd, result.n)}`;
    }
    case 'cadence':
    case 'easy-cadence':
      return `${result.mean.toFixed(0)} steps/min${spread((v) => v.toFixed(0), result.sd, result.n)}`;
    case 'stop':
      return `${result.mean.toFixed(1)} m/s² of braking${spread((v) => v.toFixed(1), result.sd, result.n)}`;
    case 'reaction':
      return `${result.mean.toFixed(2)} s${spread((v) => v.toFixed(2), result.sd, result.n)}`;
    case 'lane':
      return `${result.mean.toFixed(1)} steps a crossing${spread((v) => v.toFixed(1), result.sd, result.n)}`;
    case 'steady':
      return `${result.mean.toFixed(0)} steps/min over ${result.n} min${result.inBand === null ? '' : `, ${result.inBand} of them at ${result.targetSpm}`}`;
    case 'take-offs':
      return `${formatLength(result.along.mean, style)} inside the upright, ${formatLength(result.mean, style)} out${result.sd === null || result.along.sd === null ? ', once' : `; spread ${formatLength(result.along.sd, small(style))} along and ${formatLength(result.sd, small(style))} out, ${result.n} runs`}`;
    case 'run-through':
      return `${result.n === 1 ? '' : 'on average '}${signed(result.meanM, style)}${result.sdM === null ? ', once' : `, spread ${formatLength(result.sdM, small(style))}, ${result.n} runs`}`;
  }
};
