import { number, oneOf, whole } from '../check';
import type { Layout, PhaseSpan } from './shape';
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

/** What a part keeps: its steps (to less than from for none), its phases and its time. */
type Kept = { from: number; to: number; phases: PhaseSpan[]; startS: number; endS: number };

/** Nobody looks at a stance for less than this, seconds. */
const STILL_S = 3;

const timeOf = (layout: Layout, n: number): Footfall | undefined =>
  layout.footfalls.find((fall) => fall.n === n);

/** A stretch of steps, and the phases that they belong to. */
const bySteps = (layout: Layout, from: number, to: number): Kept => {
  const last = layout.footfalls.at(-1)?.n ?? 0;
  const falls = layout.footfalls.filter((fall) => fall.n >= from && fall.n <= to && fall.n > 0);
  const codes = new Set(falls.map((fall) => fall.phase));
  const first = timeOf(layout, from);
  const startS = from <= 1 || !first ? 0 : first.timeS - first.intervalS;
  const endS = to >= last ? layout.totalTimeS : (timeOf(layout, to)?.timeS ?? startS);
  const phases = layout.phases.filter(
    (phase) =>
      codes.has(phase.code) ||
      // What stands before the first step or after the last one belongs to it.
      (from <= 1 && phase.toS <= (first?.timeS ?? 0) - (first?.intervalS ?? 0) + 1e-9) ||
      (to >= last && phase.fromS >= (timeOf(layout, last)?.timeS ?? 0) - 1e-9),
  );
  return { from, to, phases, startS, endS };
};

/** A stretch of phases and nothing but their steps. */
const byPhases = (layout: Layout, first: number, end: number): Kept => {
  const phases = layout.phases.slice(first, end + 1);
  const codes = new Set(phases.map((phase) => phase.code));
  const numbers = layout.footfalls.flatMap((fall) =>
    fall.n > 0 && fall.contact !== 'stand' && codes.has(fall.phase) ? [fall.n] : [],
  );
  const startS = phases[0]!.fromS;
  const endS = phases.at(-1)!.toS;
  if (numbers.length > 0) {
    return { from: Math.min(...numbers), to: Math.max(...numbers), phases, startS, endS };
  }
  // Only standing: the feet that are down when it begins, or that it puts down.
  const stood = layout.footfalls.findLast(
    (fall) => codes.has(fall.phase) || fall.timeS <= startS + 1e-9,
  );
  const n = stood?.n ?? 0;
  return { from: n + 1, to: n, phases, startS, endS };
};

const keptBy = (layout: Layout, part: Part): Kept => {
  const last = layout.footfalls.at(-1)?.n ?? 0;
  const everything = (): Kept => bySteps(layout, 1, last);
  switch (oneOf('part.kind', part.kind, PART_KINDS)) {
    case 'last': {
      const steps = whole('part.steps', (part as { steps: number }).steps, { min: 1, max: 99 });
      return bySteps(layout, Math.max(1, last - steps + 1), last);
    }
    case 'steps': {
      const { from, to } = part as { from: number; to: number };
      whole('part.from', from, { min: 1, max: 99 });
      whole('part.to', to, { min: from, max: 99 });
      return bySteps(layout, Math.min(from, last), Math.min(to, last));
    }
    case 'hold': {
      const { step, holdS } = part as { step: number; holdS: number };
      number('part.holdS', holdS, { min: 0, max: 60 });
      return bySteps(layout, 1, Math.min(whole('part.step', step, { min: 1, max: 99 }), last));
    }
    case 'phases': {
      const { from, to } = part as { from: string; to: string };
      const order = layout.phases.map((phase) => phase.code);
      const [first, end] = [order.indexOf(from), order.indexOf(to)];
      return first < 0 || end < first ? everything() : byPhases(layout, first, end);
    }
    case 'until-read': {
      const read = layout.phases.findIndex((phase) => phase.read);
      return read < 0 ? everything() : byPhases(layout, 0, read);
    }
    case 'all':
      return everything();
  }
};

/**
 * Cuts a part out of a layout: its phases and no others. Steps are counted anew from 1, time from the
 * first push; the feet that stand when the part begins become its stance. Places stay where they are in
 * the whole.
 */
export const cutPart = (layout: Layout, part: Part): Layout => {
  if (part.kind === 'all') return layout;
  const { from, to, phases, startS, endS } = keptBy(layout, part);
  const stood = (['left', 'right'] as const).flatMap((foot): Footfall[] => {
    const fall = layout.footfalls.findLast((fall) => fall.foot === foot && fall.n < from);
    return fall
      ? [{ ...fall, n: 0, contact: 'stand', landing: false, timeS: 0, speedMps: 0, ball: null }]
      : [];
  });
  const kept = layout.footfalls.filter((fall) => fall.n > 0 && fall.n >= from && fall.n <= to);
  const holdS = part.kind === 'hold' ? part.holdS : kept.length === 0 ? STILL_S : 0;
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
      .map((mark) => ({ ...mark, n: Math.max(0, mark.n - from + 1) })),
    track: [
      ...track.map((at) => ({ ...at, timeS: Math.max(0, at.timeS - startS) })),
      ...(holdS > 0 && end ? [{ ...end, timeS: totalTimeS }] : []),
    ],
    phases: phases.map((phase) => ({
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
