/**
 * Which labels along an axis have room, going back from the last one, which matters most.
 *
 * @param x place of an item, pixels
 * @param apart least distance between two shown labels, pixels
 */
export const withRoom = <T>(items: readonly T[], x: (item: T) => number, apart: number): Set<T> => {
  const shown = new Set<T>();
  let edge = Infinity;
  for (const item of [...items].reverse()) {
    if (edge - x(item) < apart) continue;
    shown.add(item);
    edge = x(item);
  }
  return shown;
};
