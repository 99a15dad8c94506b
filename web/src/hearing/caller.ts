import { COUNT_WORDS, WORDS, type CallEvent, type Word } from '@gravek/core/session/calls';
import { soundOf } from '@gravek/core/runup/rhythm';
import { useCallback, useEffect, useRef, useState } from 'react';
import { whenIdle } from '../controls/idle';
import { bufferOf, speaker } from './sound';
import { spokenWord } from './spoken';

/** Time to hand everything over to the audio clock before the first sound. */
const LOOK_AHEAD_S = 0.12;
/** After the last event until the call counts as over. */
const REST_S = 0.5;

const words = new Map<Word, AudioBuffer>();
let loading: Promise<unknown> | undefined;

/** The words that ship with the app, ready to sound; one that cannot be had is a tone only. */
export const loadWords = (audio: AudioContext): Promise<unknown> =>
  (loading ??= Promise.all(
    WORDS.map(async (word) => {
      try {
        words.set(word, await audio.decodeAudioData(await spokenWord(word)));
      } catch {
        loading = undefined;
      }
    }),
  ));

/** The sound of a word that is loaded. */
export const wordSound = (word: Word): AudioBuffer | undefined => words.get(word);

/** The tone of an event of a call. */
export const toneOf = ({ kind, foot }: CallEvent, audio: AudioContext): AudioBuffer => {
  const beat = { timeS: 0, n: 1, foot: foot ?? ('right' as const) };
  const countIn = kind === 'count';
  return bufferOf(
    audio,
    soundOf([{ ...beat, countIn, special: kind === 'go' || kind === 'hold' }], audio.sampleRate),
  );
};

/** A sample over this is heard. */
const HEARD_LEVEL = 0.02;
/** A tone alone is over soon. */
const TONE_S = 0.12;

/** How long an event can be heard: a word without the silence after it. */
const soundsForS = ({ word }: CallEvent): number => {
  const buffer = word === null ? undefined : words.get(word);
  if (!buffer) return TONE_S;
  const samples = buffer.getChannelData(0);
  return samples.findLastIndex((level) => Math.abs(level) > HEARD_LEVEL) / buffer.sampleRate;
};

/** Says how many touches there are, over what else sounds; beyond twenty a tone stands for each. */
export const sayCount = (count: number): void => {
  const audio = speaker();
  void loadWords(audio);
  const word = COUNT_WORDS[count - 1];
  const source = audio.createBufferSource();
  source.buffer =
    (word && words.get(word)) ??
    toneOf({ timeS: 0, kind: 'step', foot: null, word: null, option: null }, audio);
  source.connect(audio.destination);
  source.start();
};

export type Calling = {
  /** what has just been called; null before and long after */
  now: CallEvent | null;
  /** seconds into the call, by the audio clock; null when nothing is called */
  running: boolean;
  /** the events of the call that runs or has run */
  events: readonly CallEvent[];
  /** from when until when an event sounded, by the page's clock, milliseconds; for how late an answer was */
  sounded: (event: CallEvent) => { fromMs: number; untilMs: number } | null;
  start: (events: readonly CallEvent[]) => void;
  stop: () => void;
};

/**
 * Calls events aloud. Every sound is handed to the audio clock before the first one is due, so that
 * nothing the page does moves it; what is shown follows that clock frame by frame.
 *
 * @param wanted whether there is anything to call
 */
export const useCaller = (wanted: boolean): Calling => {
  const [events, setEvents] = useState<readonly CallEvent[]>([]);
  const [now, setNow] = useState<CallEvent | null>(null);
  const [running, setRunning] = useState(false);
  const begun = useRef(new Map<CallEvent, number>());
  const halt = useRef<() => void>(() => undefined);

  const stop = useCallback(() => {
    halt.current();
    halt.current = () => undefined;
    setRunning(false);
    setNow(null);
  }, []);
  useEffect(() => stop, [stop]);
  // So that the first call does not wait for its words.
  useEffect(() => (wanted ? whenIdle(() => void loadWords(speaker())) : undefined), [wanted]);

  const start = useCallback(
    (called: readonly CallEvent[]): void => {
      stop();
      const audio = speaker();
      const begin = audio.currentTime + LOOK_AHEAD_S;
      const sources = called.flatMap((event) => {
        const word = event.word === null ? undefined : words.get(event.word);
        // A foot is both a tone on the moment and a word.
        const buffers = word && event.kind !== 'step' ? [word] : [toneOf(event, audio)];
        if (word && event.kind === 'step') buffers.push(word);
        return buffers.map((buffer) => {
          const source = audio.createBufferSource();
          source.buffer = buffer;
          source.connect(audio.destination);
          source.start(begin + event.timeS);
          return source;
        });
      });
      begun.current = new Map();
      setEvents(called);
      setRunning(true);
      let frame = 0;
      let shown = 0;
      const latency = audio.outputLatency || 0;
      const next = (): void => {
        const atS = audio.currentTime - begin - latency;
        let last: CallEvent | null = null;
        while (shown < called.length && called[shown]!.timeS <= atS) {
          last = called[shown]!;
          begun.current.set(last, performance.now() - 1000 * (atS - last.timeS));
          shown += 1;
        }
        if (last) setNow(last);
        if (atS > (called.at(-1)?.timeS ?? 0) + REST_S) {
          setRunning(false);
          return;
        }
        frame = requestAnimationFrame(next);
      };
      frame = requestAnimationFrame(next);
      halt.current = () => {
        cancelAnimationFrame(frame);
        for (const source of sources) source.stop();
      };
    },
    [stop],
  );
  const sounded = useCallback((event: CallEvent) => {
    const fromMs = begun.current.get(event);
    return fromMs === undefined ? null : { fromMs, untilMs: fromMs + 1000 * soundsForS(event) };
  }, []);
  return { now, running, events, sounded, start, stop };
};
