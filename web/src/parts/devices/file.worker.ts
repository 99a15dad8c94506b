import { readRecorded, type Recorded } from '@gravek/library/measuring/recorded';
import { expose } from 'comlink';

const work = {
  /** A long run is many thousand points: read beside the interface. */
  recorded: (text: string): Recorded => readRecorded(text),
};

export type FileWork = typeof work;

expose(work);
