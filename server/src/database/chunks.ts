/** Rows of one statement: it holds at most 65,535 values. */
const CHUNK = 1_000;

export const inChunks = async <T>(
  list: readonly T[],
  insert: (part: T[]) => Promise<unknown>,
): Promise<void> => {
  for (let i = 0; i < list.length; i += CHUNK) await insert(list.slice(i, i + CHUNK));
};
