import { number, whole } from '../check';
import { otherFoot, type Foot } from '../feet';
import { seeded } from '../chance/random';
import type { Beat } from '../runup/rhythm';

/** What touches are counted with aloud, from one. */
export const COUNT_WORDS = [
  ...(['one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten'] as const),
  ...(['eleven', 'twelve', 'thirteen', 'fourteen', 'fifteen', 'sixteen'] as const),
  ...(['seventeen', 'eighteen', 'nineteen', 'twenty'] as const),
] as const;

/** Words that ship as sound. */
export const WORDS = [
  ...(['ready', 'marks', 'set', 'go', 'hold', 'left', 'right'] as const),
  ...(['change', 'last-minute', 'stop'] as const),
  ...COUNT_WORDS,
] as const;
export type Word = (typeof WORDS)[number];

/** What is heard and flashes at a moment of a call. */
export type CallEvent = {
  timeS: number;
  /** count: before it begins; step: a foot; read: what is to be read; go; hold: stand still */
  kind: 'count' | 'step' | 'read' | 'go' | 'hold';
  foot: Foot | null;
  word: Word | null;
  /** of a read: which option was called, by its place in the list */
  option: number | null;
};

export type CallAsk =
  | { kind: 'tempo'; cadenceSpm: number; seconds: number }
  | { kind: 'rhythm'; beats: readonly Beat[] }
  /** `first` null where not all who go begin on the same foot: steps are counted then */
  | { kind: 'steps'; steps: number; leastS: number; mostS: number; first: Foot | null }
  | { kind: 'reads'; options: readonly { weight: number; word: Word | null }[] }
  | { kind: 'start'; leastS: number; mostS: number };

const COUNT_IN = 4;
/** After "ready" until the first thing that is called. */
const READY_S = 1;
/** "On your marks" until "set", in which everybody comes to rest. */
const MARKS_S = 2.5;
/** A read comes at some moment within these, so that nobody goes by habit. */
const READ_WAIT_S = [0.6, 2] as const;

const at = (timeS: number, kind: CallEvent['kind'], more: Partial<CallEvent> = {}): CallEvent => ({
  timeS,
  kind,
  foot: null,
  word: null,
  option: null,
  ...more,
});

const between = (least: number, most: number, next: () => number): number =>
  least + (most - least) * next();

const bounds = (leastS: number, mostS: number): void => {
  number('leastS', leastS, { above: 0, max: 60 });
  number('mostS', mostS, { min: leastS, max: 60 });
};

const counted = (intervalS: number): CallEvent[] =>
  Array.from({ length: COUNT_IN }, (_, i) => at(i * intervalS, 'count'));

const steady = (cadenceSpm: number, seconds: number): CallEvent[] => {
  const intervalS = 60 / number('cadenceSpm', cadenceSpm, { min: 30, max: 900 });
  const steps = Math.max(
    1,
    Math.floor(number('seconds', seconds, { above: 0, max: 600 }) / intervalS),
  );
  return [
    ...counted(intervalS),
    ...Array.from({ length: steps }, (_, i) =>
      at((COUNT_IN + i) * intervalS, 'step', { foot: i % 2 === 0 ? 'left' : 'right' }),
    ),
  ];
};

const rhythm = (beats: readonly Beat[]): CallEvent[] => {
  whole('beats.length', beats.length, { min: 1, max: 1000 });
  const firstS = Math.min(0.6, Math.max(0.25, beats[0]!.timeS));
  return [
    ...counted(firstS),
    ...beats.map((beat) => at(COUNT_IN * firstS + beat.timeS, 'step', { foot: beat.foot })),
  ];
};

/** Single steps at uneven gaps, every one of them within bounds, then a freeze. */
const steps = (ask: Extract<CallAsk, { kind: 'steps' }>, next: () => number): CallEvent[] => {
  whole('steps', ask.steps, { min: 1, max: 60 });
  bounds(ask.leastS, ask.mostS);
  let timeS = READY_S;
  let { first: foot } = ask;
  const events = [at(0, 'count', { word: 'ready' })];
  for (let i = 0; i < ask.steps; i += 1) {
    timeS += between(ask.leastS, ask.mostS, next);
    events.push(at(timeS, 'step', { foot, word: foot ?? COUNT_WORDS[i] ?? null }));
    foot = foot && otherFoot(foot);
  }
  return [...events, at(timeS + Math.min(0.8, ask.leastS), 'hold', { word: 'hold' })];
};

const read = (options: readonly { weight: number; word: Word | null }[], next: () => number) => {
  whole('options.length', options.length, { min: 1, max: 12 });
  const total = options.reduce(
    (sum, { weight }, i) => sum + number(`options[${i}].weight`, weight, { min: 0, max: 1e6 }),
    0,
  );
  let left = next() * total;
  // With no weight at all every option is as likely.
  let option = total > 0 ? 0 : Math.floor(next() * options.length);
  while (total > 0 && option < options.length - 1 && left >= options[option]!.weight) {
    left -= options[option]!.weight;
    option += 1;
  }
  const wait = between(READ_WAIT_S[0], READ_WAIT_S[1], next);
  return [
    at(0, 'count', { word: 'ready' }),
    at(READY_S + wait, 'read', { option, word: options[option]!.word }),
  ];
};

/**
 * What is called of one rep, moment by moment, the same for the same seed: a steady tempo or the plan's
 * own rhythm after a count-in, single steps at uneven gaps with a freeze after the last, one of several
 * reads by weight, or a start after a hold that nobody can guess.
 *
 * @returns in the order of time, seconds from the first sound
 * @throws {RangeError} naming the field that is out of range
 * @example callEvents({ kind: 'start', leastS: 1, mostS: 2.2 }, 7).map((one) => one.word)
 *   // ['marks', 'set', 'go']
 */
export const callEvents = (ask: CallAsk, seed: number): CallEvent[] => {
  const next = seeded(seed);
  switch (ask.kind) {
    case 'tempo':
      return steady(ask.cadenceSpm, ask.seconds);
    case 'rhythm':
      return rhythm(ask.beats);
    case 'steps':
      return steps(ask, next);
    case 'reads':
      return read(ask.options, next);
    case 'start':
      bounds(ask.leastS, ask.mostS);
      return [
        at(0, 'count', { word: 'marks' }),
        at(MARKS_S, 'count', { word: 'set' }),
        at(MARKS_S + between(ask.leastS, ask.mostS, next), 'go', { word: 'go' }),
      ];
  }
};
