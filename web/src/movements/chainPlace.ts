import { chainParts } from '@gravek/library/chains';

/** Where a chain is composed anew, its own parts chosen. */
export const chainPlace = (code: string): string => {
  const parts = chainParts(code);
  const [move = '', then] = parts.slice(0, -1);
  const query = new URLSearchParams({ move, end: parts.at(-1)! });
  if (then) query.set('then', then);
  return `/movements/chains?${query.toString()}`;
};
