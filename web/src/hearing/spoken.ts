import { WORDS, type Word } from '@gravek/core/session/calls';

/** Where the words of the calls lie, each under a name that changes with its sound. */
const FILES = import.meta.glob<string>('./words/*.wav', {
  eager: true,
  query: '?url',
  import: 'default',
});

const addressOf = (word: Word): string => FILES[`./words/${word}.wav`]!;

/** The sound file of a word; from this device once it was heard here, or kept for the field. */
export const spokenWord = async (word: Word): Promise<ArrayBuffer> =>
  (await fetch(addressOf(word))).arrayBuffer();

/** What the service worker keeps words under; see `vite.config.ts`. */
const CACHE = 'gravek-words';

/** Keeps all words on this device, so that a session can be called where there is no network. */
export const keepWords = async (): Promise<void> => {
  // Without https there is no cache, and no service worker that would read it.
  if (!('caches' in globalThis)) return;
  const cache = await caches.open(CACHE);
  // One by one: whatever the coach waits for comes first.
  for (const url of WORDS.map(addressOf)) if (!(await cache.match(url))) await cache.add(url);
};
