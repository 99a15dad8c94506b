import type { NewRep } from '@gravek/contract/session';
import { type Tapper, enqueue } from './store';

const JOT = 'gravek.tap.';

/** Writes reps down at once, so that a tab that is closed in the same moment has lost none. */
export const jot = (who: Tapper, reps: readonly NewRep[]): void => {
  try {
    for (const rep of reps) localStorage.setItem(JOT + rep.id, JSON.stringify({ who, rep }));
  } catch {
    // A full store: the reps still go the usual way.
  }
};

export const unjot = (reps: readonly { id: string }[]): void =>
  reps.forEach((rep) => localStorage.removeItem(JOT + rep.id));

const readJot = (text: string): { who: Tapper; rep: NewRep } | null => {
  try {
    // What an older version wrote down names the club alone.
    const { who, clubId, rep } = JSON.parse(text) as {
      who?: Tapper;
      clubId: string;
      rep: NewRep;
    };
    return typeof rep.id === 'string' ? { who: who ?? ({ clubId } as Tapper), rep } : null;
  } catch {
    return null;
  }
};

/** Queues what was written down by a tab that was closed before it could queue it. */
export const recoverJotted = async (): Promise<void> => {
  // Ids begin with the time, so this is the order of the taps.
  const keys = Object.keys(localStorage)
    .filter((key) => key.startsWith(JOT))
    .sort();
  for (const key of keys) {
    const text = localStorage.getItem(key);
    if (text === null) continue;
    const jotted = readJot(text);
    // What cannot be read stays where it is, and holds up nothing.
    if (!jotted) continue;
    await enqueue(jotted.who, [jotted.rep]);
    localStorage.removeItem(key);
  }
};
