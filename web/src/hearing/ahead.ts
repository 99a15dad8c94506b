import type { CallEvent, Word } from '@gravek/core/session/calls';
import { loadWords, toneOf, wordSound } from './caller';
import { speaker } from './sound';

/** A tone goes ahead of the word, so that nobody misses it in a loud hall. */
const WORD_AFTER_S = 0.25;

/**
 * Hands words to the speaker for later, each with a tone on the moment. It goes by the speaker's own clock, so that a
 * page in the background is heard too.
 *
 * @param calls each in so many seconds from now
 * @returns takes back all that has not sounded yet
 */
export const callAhead = (calls: readonly { inS: number; word: Word }[]): (() => void) => {
  const audio = speaker();
  const beganS = audio.currentTime;
  const sources: AudioBufferSourceNode[] = [];
  let isOver = false;
  const play = (buffer: AudioBuffer, atS: number): void => {
    const source = audio.createBufferSource();
    source.buffer = buffer;
    source.connect(audio.destination);
    source.start(Math.max(audio.currentTime, beganS + atS));
    sources.push(source);
  };
  void loadWords(audio).then(() => {
    if (isOver) return;
    for (const { inS, word } of calls) {
      const tone: CallEvent = { timeS: 0, kind: 'go', foot: null, word: null, option: null };
      play(toneOf(tone, audio), inS);
      const said = wordSound(word);
      if (said) play(said, inS + WORD_AFTER_S);
    }
  });
  return () => {
    isOver = true;
    for (const source of sources) source.stop();
  };
};
