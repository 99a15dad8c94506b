import { useCallback, useState } from 'react';

const PREFIX = 'gravek.draft.2.';

const read = <T>(key: string): T | null => {
  try {
    const kept = localStorage.getItem(PREFIX + key);
    return kept === null ? null : (JSON.parse(kept) as T);
  } catch {
    return null;
  }
};

/**
 * State of a form that outlives a reload, a crash and a lost connection, until it is saved or
 * discarded.
 *
 * @returns the value, its setter, how to discard it, and whether it was found again from before
 */
export const useDraft = <T>(
  key: string,
  initial: T,
): [value: T, set: (next: T) => void, discard: (to?: T) => void, found: boolean] => {
  const [kept] = useState(() => read<T>(key));
  const [value, setValue] = useState<T>(kept ?? initial);
  const [found, setFound] = useState(kept !== null);
  const set = useCallback(
    (next: T) => {
      setValue(next);
      try {
        localStorage.setItem(PREFIX + key, JSON.stringify(next));
      } catch {
        // A full store loses only the copy that guards against a reload.
      }
    },
    [key],
  );
  const discard = useCallback(
    (to?: T) => {
      localStorage.removeItem(PREFIX + key);
      setFound(false);
      if (to !== undefined) setValue(to);
    },
    [key],
  );
  return [value, set, discard, found];
};
