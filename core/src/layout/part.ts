import { number, oneOf, whole } from '../check';
import type { Layout } from './shape';
import type { Footfall } from './walker';

/** A piece of a sequence to practise by itself. */
export type Part =
  | { kind: 'all' }
  | { kind: 'last'; steps: number }
  | { kind: 'steps'; from: number; to: number }
  | { kind: 'phases'; from: string; to: string }
  | { kind: 'until-read' }
  | { kind: 'hold'; step: number; holdS: number };

export const PART_KINDS = ['all', 'last', 'steps', 'phases', 'until-read', 'hold'] as const;

/** First and last step of a part, both within the sequence; the whole when there is no such piece. */
const bounds = (layout: Layout, part: Part): [number, number] => {
  const last = layout.footfalls.at(-1)?.n ?? 0;
  switch (oneOf('part.kind', part.kind, PART_KINDS)) {
    case 'last': {
      const steps = whole('part.steps', (part as { steps: number }).steps, { min: 1, max: 99 });
      return [Math.max(1, last - steps + 1), last];
    }
    case 'steps': {
      const { from, to } = part as { from: number; to: number };
      whole('part.from', from, { min: 1, max: 99 });
      whole('part.to', to, { min: from, max: 99 });
      return [Math.min(from, last), Math.min(to, last)];
    }
    case 'hold': {
      const { step, holdS } = part as { step: number; holdS: number };
      number('part.holdS', holdS, { min: 0, max: 60 });
      return [1, Math.min(whole('part.step', step, { min: 1, max: 99 }), last)];
    }
    case 'phases': {
      const { from, to } = part as { from: string; to: string };
      const order = layout.phases.map((phase) => phase.code);
      const [first, end] = [order.indexOf(from), order.indexOf(to)];
      const range = first < 0 || end < first ? [] : order.slice(first, end + 1);
      const inRange = layout.footfalls.filter((fall) => fall.n > 0 && range.includes(fall.phase));
      return inRange.length > 0 ? [inRange[0]!.n, inRange.at(-1)!.n] : [1, last];
    }
    case 'until-read': {
      const read = layout.phases.find((phase) => phase.read);
      const untilRead = layout.footfalls.filter((fall) => read && fall.timeS <= read.toS + 1e-9);
      return read && untilRead.length > 0 ? [1, Math.max(1, untilRead.at(-1)!.n)] : [1, last];
    }
    case 'all':
      return [1, last];
  }
};

/**
 * Cuts a part out of a layout. Steps are counted anew from 1, time from the first push; the feet that
 * stand when the part begins become its stance. Places stay where they are in the whole.
 */
export const cutPart = (layout: Layout, part: Part): Layout => {
  const [from, to] = bounds(layout, part);
  const last = layout.footfalls.at(-1)?.n ?? 0;
  const holdS = part.kind === 'hold' ? part.holdS : 0;
  if (from <= 1 && to >= last && holdS === 0) return layout;
  const stood = (['left', 'right'] as const).flatMap((foot): Footfall[] => {
    const fall = layout.footfalls.findLast((fall) => fall.foot === foot && fall.n < from);
    return fall ? [{ ...fall, n: 0, contact: 'stand', timeS: 0, speedMps: 0, ball: null }] : [];
  });
  const first = layout.footfalls.find((fall) => fall.n === from);
  const startS = from <= 1 || !first ? 0 : first.timeS - first.intervalS;
  const kept = layout.footfalls.filter((fall) => fall.n >= from && fall.n <= to);
  const endS = to >= last ? layout.totalTimeS : (kept.at(-1)?.timeS ?? startS);
  const totalTimeS = endS - startS + holdS;
  const track = layout.track.filter((at) => at.timeS >= startS - 1e-9 && at.timeS <= endS + 1e-9);
  const end = track.at(-1);
  return {
    ...layout,
    footfalls: [
      ...stood,
      ...kept.map((fall) => ({ ...fall, n: fall.n - from + 1, timeS: fall.timeS - startS })),
    ],
    marks: layout.marks
      .filter((mark) => mark.n >= from - 1 && mark.n <= to)
      .map((mark) => ({ ...mark, n: mark.n - from + 1 })),
    track: [
      ...track.map((at) => ({ ...at, timeS: Math.max(0, at.timeS - startS) })),
      ...(holdS > 0 && end ? [{ ...end, timeS: totalTimeS }] : []),
    ],
    phases: layout.phases
      .filter((phase) => phase.toS >= startS - 1e-9 && phase.fromS <= endS + 1e-9)
      .map((phase) => ({
        ...phase,
        fromS: Math.max(0, phase.fromS - startS),
        toS: Math.min(totalTimeS, phase.toS - startS),
      })),
    others: layout.others.map((other) => ({
      ...other,
      points: other.points.map((at) => ({ ...at, timeS: Math.max(0, at.timeS - startS) })),
    })),
    totalTimeS,
  };
};
