/** An empty number field means that the figure is not known. */
export const numberOrNull = (text: unknown): number | null | string => {
  if (text === '' || text === null || text === undefined) return null;
  const value = Number(String(text).replace(',', '.'));
  return Number.isFinite(value) ? value : String(text);
};

/** Of what fields hold as text, the messages about text that could not be read. */
export const unread = (typed: Record<string, string | null>): Record<string, string> =>
  Object.fromEntries(
    Object.entries(typed).filter((entry): entry is [string, string] => entry[1] !== null),
  );
