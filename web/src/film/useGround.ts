import type { GroundPoint, PicturePoint } from '@gravek/core/film/planeMap';
import { useState } from 'react';
import { useTool } from './tools';
import type { Marks } from './useReview';

/** Tape across a lane: every so often, from so far before the line on. */
export type Tapes = { everyM: number; widthM: number; firstM: number };

const USUAL: Tapes = { everyM: 3, widthM: 1.22, firstM: 12 };

type Pairs = Extract<Marks['view'], { kind: 'marks' }>['pairs'];

export const pairsOf = (view: Marks['view']): Pairs => (view?.kind === 'marks' ? view.pairs : []);

const same = (a: GroundPoint, b: GroundPoint): boolean =>
  Math.abs(a.alongM - b.alongM) < 0.01 && Math.abs(a.acrossM - b.acrossM) < 0.01;

/** Places that are marked one after the other: at each tape the right edge of the lane, then the left. */
export const nextMark = (tapes: Tapes, marked: readonly GroundPoint[]): GroundPoint => {
  for (let n = 0; ; n += 1) {
    const place = {
      alongM: -tapes.firstM + Math.floor(n / 2) * tapes.everyM,
      acrossM: ((n % 2 === 0 ? 1 : -1) * tapes.widthM) / 2,
    };
    if (!marked.some((point) => same(point, place))) return place;
  }
};

/** Marks that were made say how the tape lies; without any, as is usual. */
const tapesOf = (pairs: Pairs, hasLine: boolean): Tapes => {
  const along = [...new Set(pairs.map(({ ground }) => ground.alongM))].sort((a, b) => a - b);
  const across = pairs.map(({ ground }) => ground.acrossM);
  return {
    everyM: along.length > 1 ? along[1]! - along[0]! : USUAL.everyM,
    widthM:
      across.length > 1 ? Math.max(...across) - Math.min(...across) || USUAL.widthM : USUAL.widthM,
    firstM: along.length > 0 ? -along[0]! : hasLine ? USUAL.firstM : 0,
  };
};

/** The state of the ground tool. */
export const useGround = (
  marks: Marks,
  hasLine: boolean,
  onChange: (part: Partial<Marks>) => void,
) => {
  const pairs = pairsOf(marks.view);
  const [tapes, setTapes] = useState(() => tapesOf(pairs, hasLine));
  const [kind, setKind] = useState<'marks' | 'side'>(marks.view?.kind ?? 'marks');
  /** places that are not in the picture */
  const [skipped, setSkipped] = useState<readonly GroundPoint[]>([]);
  const { begun, press } = useTool();
  const next = nextMark(tapes, [...pairs.map(({ ground }) => ground), ...skipped]);
  return {
    kind,
    setKind: (to: 'marks' | 'side'): void => {
      setKind(to);
      press([]);
      if (marks.view && marks.view.kind !== to) onChange({ view: null });
    },
    tapes,
    setTapes,
    next,
    skip: () => setSkipped([...skipped, next]),
    place: (at: PicturePoint): void => {
      if (kind === 'marks') {
        onChange({
          view: { kind, pairs: [...pairs, { px: at, ground: next }] },
          lineM: hasLine ? (marks.lineM ?? 0) : null,
        });
        return;
      }
      const [from] = begun;
      if (!from) press([at]);
      else {
        press([]);
        const lengthM = marks.view?.kind === 'side' ? marks.view.lengthM : USUAL.everyM;
        onChange({ view: { kind, from, to: at, lengthM } });
      }
    },
  };
};
