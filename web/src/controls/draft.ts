import { createContext, use, useCallback, useEffect, useState } from 'react';

const PREFIX = 'gravek.draft.';

/** Whose typing it is: nobody else who signs in on this device gets to see it. */
export const DraftOwner = createContext('');

/** Drops what was typed and not saved, of whomever. */
export const forgetDrafts = (): void => {
  for (const key of Object.keys(localStorage)) {
    if (key.startsWith(PREFIX)) localStorage.removeItem(key);
  }
};

/** Drafts that are of one athlete, by the beginnings of their names. */
const OF_ATHLETE = /^(?:athlete|reading|trial|gates)\.([0-9a-f-]{36})/;

/** A draft without athletes who are not there; null where it is of one of them. */
const without = (draft: unknown, isThere: (id: string) => boolean): unknown => {
  if (Array.isArray(draft)) {
    return draft
      .map((item: unknown) => [item, without(item, isThere)])
      .filter(([before, after]) => after !== null || before === null)
      .map(([, after]) => after);
  }
  if (typeof draft !== 'object' || draft === null) return draft;
  const { athleteId } = draft as { athleteId?: unknown };
  if (typeof athleteId === 'string' && !isThere(athleteId)) return null;
  return Object.fromEntries(
    Object.entries(draft).map(([key, value]: [string, unknown]) => [
      key,
      key === 'athleteIds' && Array.isArray(value)
        ? value.filter((id) => isThere(String(id)))
        : without(value, isThere),
    ]),
  );
};

/**
 * Takes athletes who were deleted out of what anybody has typed and not saved on this device.
 *
 * @param clubId the club whose athletes they were
 * @param present ids of all athletes of that club
 */
export const forgetDeleted = (clubId: string, present: ReadonlySet<string>): void => {
  const isThere = (id: string): boolean => present.has(id);
  for (const key of Object.keys(localStorage)) {
    const [kind, name] = key.split(`.${clubId}.`);
    if (!kind?.startsWith(PREFIX) || name === undefined) continue;
    const athleteId = OF_ATHLETE.exec(name)?.[1];
    const before = read<unknown>(key);
    const after = athleteId !== undefined && !isThere(athleteId) ? null : without(before, isThere);
    if (after === null) localStorage.removeItem(key);
    else if (JSON.stringify(after) !== JSON.stringify(before)) {
      localStorage.setItem(key, JSON.stringify(after));
    }
  }
};

/** Drafts that the page on the screen works on, also while it fails to be drawn. */
const open = new Set<string>();

/** Drops what the page on the screen holds that is not saved. */
export const dropOpenDrafts = (): void => {
  for (const key of open) localStorage.removeItem(key);
  open.clear();
};

/** How drafts are kept now; those of another number are of no use any more. */
const KIND = 3;

const read = <T>(key: string): T | null => {
  try {
    const kept = localStorage.getItem(key);
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
  name: string,
  initial: T,
): [value: T, set: (next: T) => void, discard: (to?: T) => void, found: boolean] => {
  const key = `${PREFIX}${KIND}.${use(DraftOwner)}.${name}`;
  const [kept] = useState(() => {
    open.add(key);
    return read<T>(key);
  });
  useEffect(() => {
    open.add(key);
    return () => void open.delete(key);
  }, [key]);
  const [value, setValue] = useState<T>(kept ?? initial);
  const [found, setFound] = useState(kept !== null);
  const set = useCallback(
    (next: T) => {
      setValue(next);
      try {
        localStorage.setItem(key, JSON.stringify(next));
      } catch {
        // A full store loses only the copy that guards against a reload.
      }
    },
    [key],
  );
  const discard = useCallback(
    (to?: T) => {
      localStorage.removeItem(key);
      setFound(false);
      if (to !== undefined) setValue(to);
    },
    [key],
  );
  return [value, set, discard, found];
};
