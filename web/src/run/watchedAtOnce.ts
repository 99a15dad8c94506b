import { MOST_WATCHED } from '@gravek/contract/drillSet';
import { WATCHED_AT_ONCE } from '@gravek/library/field/row';
import { useState } from 'react';

const KEY = 'gravek.watched-at-once';

const kept = (): number => {
  const number = Number(localStorage.getItem(KEY));
  return Number.isInteger(number) && number >= 1 && number <= MOST_WATCHED
    ? number
    : WATCHED_AT_ONCE;
};

/**
 * How many of a row are watched at a call: as it was chosen since the set was opened, else as the set says, else
 * as it was chosen last on this device.
 */
export const useWatchedAtOnce = (
  ofSet: number | null | undefined,
): [number, (next: number) => void] => {
  const [chosen, setAtOnce] = useState<number | null>(null);
  return [
    chosen ?? ofSet ?? kept(),
    (next) => {
      setAtOnce(next);
      try {
        localStorage.setItem(KEY, String(next));
      } catch {
        // A full store loses the choice with the page.
      }
    },
  ];
};
