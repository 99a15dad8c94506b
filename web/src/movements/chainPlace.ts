import { chainParts } from '@gravek/library/movement/chains';

/** Where a chain is composed anew, its own parts chosen. */
export const chainPlace = (code: string): string => {
  const parts = chainParts(code);
  const query = new URLSearchParams({ moves: parts.slice(0, -1).join(','), end: parts.at(-1)! });
  return `/movements/chains?${query.toString()}`;
};
