import { badInput } from './problem';

/**
 * Reads where a page of a list ended.
 *
 * @param keys what the cursor holds, each a text
 * @returns null for the first page
 * @throws {ProblemError} when it is no cursor of this list
 */
export const readCursor = <K extends string>(
  text: string | undefined,
  keys: readonly K[],
): Record<K, string> | null => {
  if (!text) return null;
  try {
    const cursor = JSON.parse(Buffer.from(text, 'base64url').toString()) as Record<K, unknown>;
    const { id } = cursor as { id?: unknown };
    if (
      keys.every((key) => typeof cursor[key] === 'string' && !cursor[key].includes('\0')) &&
      /^[0-9a-f-]{36}$/.test(String(id))
    ) {
      return cursor as Record<K, string>;
    }
  } catch {
    // falls through to the refusal
  }
  throw badInput({ after: 'That page of the list is not there.' });
};

/**
 * A page of a list that was asked for one longer than the page, to see whether more follow.
 *
 * @param cursorOf what the last row of the page is found again by
 */
export const pageOf = <T>(
  rows: readonly T[],
  size: number,
  cursorOf: (last: T) => object,
): { items: T[]; next: string | null } => {
  const items = rows.slice(0, size);
  const last = rows.length > size ? items.at(-1)! : null;
  return {
    items,
    next: last && Buffer.from(JSON.stringify(cursorOf(last))).toString('base64url'),
  };
};
