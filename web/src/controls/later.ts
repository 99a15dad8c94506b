import { useEffect, useState } from 'react';
import { onPress } from '../api/client';

type Load<T> = () => Promise<T>;

const here = new Map<Load<unknown>, unknown>();

/** Loads something ahead of its first drawing; what cannot be loaded is told of when it is drawn. */
export const loadEarly = async <T>(load: Load<T>): Promise<void> => {
  try {
    here.set(load, await load());
  } catch {
    // It is asked for again when it is drawn.
  }
};

/**
 * Something that is loaded when it is first drawn, and at once from then on.
 *
 * @param load the same function at every drawing
 * @returns null as long as it is on its way; what went wrong, and how to ask again
 */
export const useLater = <T>(
  load: Load<T>,
): { part: T | null; failed: unknown; again: () => void } => {
  const [got, setGot] = useState(() => (here.has(load) ? { part: here.get(load) as T } : null));
  const [failed, setFailed] = useState<unknown>(null);
  const [asked, setAsked] = useState(0);
  useEffect(() => {
    if (got) return undefined;
    let over = false;
    onPress(load).then(
      (part) => {
        here.set(load, part);
        if (!over) setGot({ part });
      },
      (error: unknown) => {
        if (!over) setFailed(error);
      },
    );
    return () => {
      over = true;
    };
  }, [load, asked, got]);
  const again = (): void => {
    setFailed(null);
    setAsked(asked + 1);
  };
  return { part: got?.part ?? null, failed, again };
};
