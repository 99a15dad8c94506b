import { silentCues } from '@gravek/core/session/silentCues';
import type { Shown, SilentRead, SilentRound } from './silentExit';

const shown = (option: string, weight: number, shows: string, mirrored?: string): Shown => ({
  ...{ option, weight, shows },
  ...(mirrored && { mirrored }),
});

/**
 * What a partner shows for each read of the movements that ship, so that a phone knows it without network. A code
 * counts on its place here: what is new comes last.
 */
export const SILENT_READS: readonly SilentRead[] = [
  {
    ...{ movement: 'close-and-shorten', phase: 'sprint', name: 'Close and shorten' },
    shown: [
      shown('square', 3, 'Face them square'),
      shown('unsure', 2, 'Half turned, ready for both sides'),
      shown('side-on', 1, 'Side-on, and run across'),
    ],
  },
  {
    ...{ movement: 'give-ground', phase: 'give', name: 'Give ground' },
    shown: [
      shown('right', 1, 'Run past on your left', 'left'),
      shown('left', 1, 'Run past on your right', 'right'),
      shown('stops', 1, 'Break your stride and stop'),
    ],
  },
  {
    ...{ movement: 'stutter-read-go', phase: 'fake', name: 'Stutter, read, go' },
    shown: [
      shown('outside', 3, 'Lean to the fake'),
      shown('inside', 2, 'Do not buy it: wait outside'),
      shown('between', 2, 'Sit back on your heels'),
      shown('change', 1, 'Reach for the ball'),
      shown('spin', 1, 'Come close, a hand on them'),
    ],
  },
  {
    ...{ movement: 'jab-and-go', phase: 'jab', name: 'Jab and go' },
    shown: [
      shown('drops', 3, 'Slide with the jab'),
      shown('stays', 3, 'Do not move'),
      shown('jumps-back', 1, 'Jump back a step'),
    ],
  },
  {
    ...{ movement: 'goal-arc', phase: 'lanes', name: 'Goal arc' },
    shown: [shown('shot', 2, 'Shoot'), shown('wide', 1, 'Pass to the far side')],
  },
  {
    ...{ movement: 'block-jump', phase: 'ready', name: 'Two-foot block' },
    shown: [
      shown('middle', 2, 'Toss straight up in front'),
      shown('right', 1, 'Toss to your left, near', 'left'),
      shown('left', 1, 'Toss to your right, near', 'right'),
      shown('far-right', 1, 'Toss to your left, far', 'far-left'),
      shown('far-left', 1, 'Toss to your right, far', 'far-right'),
    ],
  },
  {
    ...{ movement: 'corner-fielder', phase: 'prep', name: 'Corner fielder' },
    shown: [
      shown('glove-near', 3, 'Hard, a step to your right', 'throw-near'),
      shown('throw-near', 3, 'Hard, a step to your left', 'glove-near'),
      shown('drop', 2, 'Hard and straight at them'),
      shown('line', 1, 'Flat along the line'),
      shown('slow', 2, 'Slow, so that it dies'),
      shown('relay', 1, 'Over them, for a relay'),
      shown('tag', 1, 'Throw to the base, with a runner'),
    ],
  },
  {
    ...{ movement: 'corner-fielder', phase: 'charge', name: 'Corner fielder: the charge' },
    shown: [
      shown('forward', 2, 'Roll it for two or three bounces'),
      shown('near', 2, 'Roll it for five bounces'),
      shown('run', 1, 'Let it die: they have no time'),
    ],
  },
  {
    ...{ movement: 'four-step-approach', phase: 'second', name: 'Four-step approach' },
    shown: [
      shown('expected', 3, 'Toss as they expect it'),
      shown('inside', 1, 'Toss a metre short'),
      shown('wide', 1, 'Toss a metre out'),
      shown('tight', 1, 'Toss tight to the net'),
      shown('deep', 1, 'Toss well off the net'),
    ],
  },
  {
    ...{ movement: 'gaps', phase: 'at-mark', name: 'Gaps' },
    shown: [
      shown('one', 2, 'Show one finger'),
      shown('two', 2, 'Show two fingers'),
      shown('three', 1, 'Show three fingers'),
      shown('sideways', 2, 'Stretch an arm to the side'),
      shown('open-kick', 1, 'Open a hand like a door'),
      shown('kick-slide', 1, 'Push a flat hand aside'),
    ],
  },
  {
    ...{ movement: 'line-first-steps', phase: 'down', name: 'First steps on the line' },
    shown: [
      shown('short', 3, 'Hands close together: short'),
      shown('long', 3, 'Hands wide apart: long'),
      shown('pull', 2, 'Draw a fist to your side: pull'),
      shown('over', 1, 'Hold up three fingers: count and over'),
    ],
  },
  {
    ...{ movement: 'post-footwork', phase: 'land', name: 'Post footwork' },
    shown: [
      shown('behind', 3, 'Push in the back, leave the side by your right open', 'behind-left'),
      shown('behind-left', 2, 'Push in the back, leave the side by your left open', 'behind'),
      shown('low', 2, 'Lean on the end-line side'),
      shown('high', 2, 'Lean on the middle side'),
      shown('gives', 2, 'Touch, but give way'),
      shown('off', 2, 'Stand off by an arm'),
    ],
  },
  {
    ...{ movement: 'post-footwork', phase: 'lean', name: 'Post footwork: the lean' },
    shown: [
      shown('steps-off', 2, 'Step off'),
      shown('stays-tight', 1, 'Stay tight, on your heels'),
    ],
  },
  {
    ...{ movement: 'post-footwork', phase: 'jab', name: 'Post footwork: the jab' },
    shown: [
      shown('slides', 2, 'Slide with the jab'),
      shown('tight', 1, 'Stay chest to chest'),
      shown('far', 1, 'Do not come'),
    ],
  },
];

/**
 * The code of four figures by which a partner's phone shows the same round.
 *
 * @param seed 0–99
 * @returns null where the movement has no read that a partner can show
 * @example silentCode('close-and-shorten', 'sprint', 47) // '0047'
 */
export const silentCode = (movement: string, phase: string, seed: number): string | null => {
  const place = SILENT_READS.findIndex(
    (read) => read.movement === movement && read.phase === phase,
  );
  return place < 0 ? null : String(100 * place + seed).padStart(4, '0');
};

/**
 * The round of a code.
 *
 * @returns null where it is none
 * @example silentRound('0047').read.name // 'Close and shorten'
 */
export const silentRound = (code: string): SilentRound | null => {
  const read = /^\d{4}$/.test(code) ? SILENT_READS[Math.floor(Number(code) / 100)] : undefined;
  if (!read) return null;
  const weights = read.shown.map(({ weight }) => weight);
  return { read, cues: silentCues({ weights, seed: Number(code) % 100 }) };
};
