import { number, oneOf } from '../check';
import { LIVE_RATE } from './faultHistory';

export const CUE_SCHOOLS = ['root-cause', 'first-phase', 'most-frequent'] as const;
export type CueSchool = (typeof CUE_SCHOOLS)[number];

export type LiveFault = {
  code: string;
  /** place of its phase in the movement, from 0 */
  phase: number;
  /** 1 small – 3 grave */
  severity: number;
  rate: number;
  leadsTo: readonly string[];
  safety: boolean;
  /**
   * share of the reps with it in which no live fault of an earlier phase shows, 0–1; 1 when absent: a fault
   * that mostly follows another is seldom the root
   */
  alone?: number | undefined;
};

export type CueChoice = {
  code: string | null;
  why: 'safety' | CueSchool | 'none';
  /** for root cause: the live faults that follow from the chosen one */
  causes: string[];
  score: number;
};

/** Every fault downstream of one, with its distance in links (shortest). */
const downstream = (
  from: LiveFault,
  byCode: ReadonlyMap<string, LiveFault>,
): Map<string, number> => {
  const links = new Map<string, number>();
  let edge: string[] = [from.code];
  for (let distance = 1; edge.length > 0; distance += 1) {
    const next: string[] = [];
    for (const code of edge) {
      for (const to of byCode.get(code)?.leadsTo ?? []) {
        if (to !== from.code && !links.has(to)) {
          links.set(to, distance);
          next.push(to);
        }
      }
    }
    edge = next;
  }
  return links;
};

/**
 * The one fault to cue next, since a person can attend to one. Among faults at or above the least
 * rate, a safety fault comes first; else by school: `first-phase` (earliest phase, then rate ×
 * severity), `root-cause` (own rate × severity plus that of every live fault downstream, halved per
 * link, times the share of its reps in which it shows without an earlier one; ties to the earlier phase), `most-frequent` (highest rate × severity, so that of two common
 * faults the graver one wins).
 *
 * @throws {RangeError} naming the field that is out of range
 * @example
 * const fault = { phase: 1, live: true, severity: 2, safety: false, trend: 'steady' };
 * const late = { ...fault, code: 'late', rate: 0.5, leadsTo: [] };
 * chooseCue({ school: 'root-cause', faults: [{ ...fault, code: 'low', rate: 0.3, leadsTo: ['late'] }, late] }).code // 'low': late follows from it
 */
export const chooseCue = (input: {
  school?: CueSchool | undefined;
  faults: readonly LiveFault[];
  minRate?: number | undefined;
}): CueChoice => {
  const school = oneOf('school', input.school ?? 'root-cause', CUE_SCHOOLS);
  const minRate = number('minRate', input.minRate ?? LIVE_RATE, { min: 0, max: 1 });
  input.faults.forEach((fault, i) => {
    number(`faults[${i}].rate`, fault.rate, { min: 0, max: 1 });
    number(`faults[${i}].severity`, fault.severity, { min: 0, max: 10 });
    number(`faults[${i}].phase`, fault.phase);
    number(`faults[${i}].alone`, fault.alone ?? 1, { min: 0, max: 1 });
  });
  const live = input.faults.filter((fault) => fault.rate >= minRate);
  const byCode = new Map(input.faults.map((fault) => [fault.code, fault]));
  const liveCodes = new Set(live.map((fault) => fault.code));
  const weight = (fault: LiveFault): number => fault.rate * fault.severity;
  const best = (
    among: readonly LiveFault[],
    order: (a: LiveFault, b: LiveFault) => number,
  ): LiveFault | undefined => [...among].sort(order)[0];

  const dangerous = live.filter((fault) => fault.safety);
  if (dangerous.length > 0) {
    const first = best(dangerous, (a, b) => weight(b) - weight(a) || a.phase - b.phase)!;
    return { code: first.code, why: 'safety', causes: [], score: weight(first) };
  }
  if (live.length === 0) return { code: null, why: 'none', causes: [], score: 0 };
  if (school === 'first-phase') {
    const first = best(live, (a, b) => a.phase - b.phase || weight(b) - weight(a))!;
    return { code: first.code, why: school, causes: [], score: weight(first) };
  }
  if (school === 'most-frequent') {
    const first = best(live, (a, b) => weight(b) - weight(a) || a.phase - b.phase)!;
    return { code: first.code, why: school, causes: [], score: weight(first) };
  }
  const scored = live.map((fault) => {
    const below = [...downstream(fault, byCode)].filter(([code]) => liveCodes.has(code));
    const score = below.reduce(
      (sum, [code, links]) => sum + weight(byCode.get(code)!) / 2 ** links,
      weight(fault),
    );
    return { fault, causes: below.map(([code]) => code), score: score * (fault.alone ?? 1) };
  });
  const chosen = scored.sort((a, b) => b.score - a.score || a.fault.phase - b.fault.phase)[0]!;
  return { code: chosen.fault.code, why: school, causes: chosen.causes, score: chosen.score };
};
