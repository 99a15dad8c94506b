import { normalBelow } from '../chance/normal';
import { number, whole } from '../check';
import type { FaultsTogether } from '../session/repCounts';
import { pointedOutTo } from './manyLooks';

/** Reps of one athlete in one session, and which faults showed at once in how many of them. */
export type ShownTogether = {
  reps: number;
  together: readonly FaultsTogether[];
  /** codes of the faults that they could show; all where it is left out */
  could?: readonly string[] | undefined;
};

export type CausedFault = { code: string; leadsTo: readonly string[] };

export type LinkEvidence = {
  from: string;
  to: string;
  /** how often the later fault shows in reps with the earlier one and without it; null: too few reps */
  rates: { with: number; without: number } | null;
  /** reps that showed the earlier fault */
  reps: number;
  /**
   * `holds`: the later fault shows more with the earlier one; `against`: reps enough, and it hardly does;
   * `missing`: it shows more, and nothing in the chain says so
   */
  verdict: 'holds' | 'against' | 'missing' | 'unclear';
};

/** Both faults in as many reps, or nothing is said. */
const LEAST_REPS = 20;
/** The sum of variances from which the normal law is near enough. */
const LEAST_VARIANCE = 2;
/** A cause that brings about its fault in fewer reps than this, beside what shows anyway, is none. */
const LEAST_EFFECT = 0.1;

type Pair = {
  reps: number;
  toReps: number;
  /** how much more often the later fault shows with the earlier one, and its standard errors */
  difference: number;
  errorIfNone: number;
  error: number;
  with: number;
  without: number;
  variance: number;
};

/** Reps by the set of faults that they showed, each fault a bit. */
type Stratum = {
  reps: number;
  could: number;
  any: number;
  sets: readonly { faults: number; reps: number }[];
};

const ALL = -1;

/** A movement has no more faults than there are bits. */
const MOST_FAULTS = 30;

const asBits = (strata: readonly ShownTogether[], bits: ReadonlyMap<string, number>): Stratum[] =>
  strata.map(({ reps, together, could }) => {
    const bitsOf = (codes: readonly string[]): number =>
      codes.reduce((sum, code) => sum | (bits.get(code) ?? 0), 0);
    const sets = together.map(({ faults, reps: shown }) => ({
      faults: bitsOf(faults),
      reps: shown,
    }));
    return {
      reps,
      could: could ? bitsOf(could) : ALL,
      any: sets.reduce((sum, set) => sum | set.faults, 0),
      sets,
    };
  });

/** Reps that showed a fault. */
const repsWith = (strata: readonly Stratum[], fault: number): number =>
  strata.reduce(
    (sum, { any, sets }) =>
      any & fault
        ? sum + sets.reduce((reps, set) => (set.faults & fault ? reps + set.reps : reps), 0)
        : sum,
    0,
  );

/**
 * What the club's own reps say of one fault bringing about another. Reps are compared within the same
 * athlete, session and set of the later fault's other causes only, so that neither a bad day nor a common
 * cause makes a link.
 *
 * @param otherCauses bits of the later fault's other causes
 */
const pairOf = (
  strata: readonly Stratum[],
  from: number,
  to: number,
  otherCauses: number,
): Omit<Pair, 'reps' | 'toReps'> => {
  let over = 0;
  let weight = 0;
  let variance = 0;
  let withSum = 0;
  let withoutSum = 0;
  const parts: { weight: number; ran: number; rest: number }[] = [];
  for (const { reps: ran, could, any, sets } of strata) {
    // Where the one never showed, or the other could not, there is nothing to compare.
    if (!(any & from) || !(could & to)) continue;
    // Pattern of the other causes: reps, those with the one, with the other, with both.
    const cells: [pattern: number, n: number, a: number, b: number, both: number][] = [];
    const cellOf = (pattern: number) => {
      const sameCell = cells.find((cell) => cell[0] === pattern);
      if (sameCell) return sameCell;
      const cell: (typeof cells)[number] = [pattern, 0, 0, 0, 0];
      cells.push(cell);
      return cell;
    };
    let clean = ran;
    for (const { faults, reps } of sets) {
      clean -= reps;
      const cell = cellOf(faults & otherCauses);
      cell[1] += reps;
      if (faults & from) cell[2] += reps;
      if (faults & to) cell[3] += reps;
      if (faults & from && faults & to) cell[4] += reps;
    }
    if (clean > 0) cellOf(0)[1] += clean;
    for (const [, n, a, b, both] of cells) {
      if (a === 0 || a === n) continue;
      const w = (a * (n - a)) / n;
      over += both - (a * b) / n;
      weight += w;
      variance += (a * (n - a) * b * (n - b)) / (n * n * (n - 1));
      withSum += (w * both) / a;
      withoutSum += (w * (b - both)) / (n - a);
      parts.push({ weight: w, ran: a, rest: n - a });
    }
  }
  const p1 = weight > 0 ? withSum / weight : 0;
  const p0 = weight > 0 ? withoutSum / weight : 0;
  const squares = parts.reduce(
    (sum, part) =>
      sum + part.weight ** 2 * ((p1 * (1 - p1)) / part.ran + (p0 * (1 - p0)) / part.rest),
    0,
  );
  return {
    difference: weight > 0 ? over / weight : 0,
    errorIfNone: weight > 0 ? Math.sqrt(variance) / weight : 0,
    error: weight > 0 ? Math.sqrt(squares) / weight : 0,
    with: p1,
    without: p0,
    variance,
  };
};

/** All that a fault brings about, through others too. */
const reachedFrom = (faults: ReadonlyMap<string, CausedFault>, code: string): Set<string> => {
  const reached = new Set<string>();
  const look = [code];
  for (let at = look.pop(); at !== undefined; at = look.pop()) {
    for (const next of faults.get(at)?.leadsTo ?? []) {
      if (reached.has(next)) continue;
      reached.add(next);
      look.push(next);
    }
  }
  return reached;
};

type Look = {
  from: string;
  to: string;
  linked: boolean;
  pair: Pair;
  enough: boolean;
  /** chances to show as much if the one did not bring about the other, and if it did */
  more: number;
  less: number;
};

/** Every link of a chain, and every pair that it does not join, looked at. */
const looksAt = (
  faults: readonly CausedFault[],
  pairBy: (from: string, to: string, otherCauses: string[]) => Pair,
): Look[] => {
  const by = new Map(faults.map((fault) => [fault.code, fault]));
  const reached = new Map(faults.map(({ code }) => [code, reachedFrom(by, code)]));
  return faults.flatMap((from, i) =>
    faults.flatMap((to, j): Look[] => {
      const linked = from.leadsTo.includes(to.code);
      // What leads to it by way of others needs no link of its own.
      if (!linked && (j <= i || reached.get(from.code)!.has(to.code))) return [];
      if (!linked && reached.get(to.code)!.has(from.code)) return [];
      const otherCauses = faults
        .filter((fault) => fault.code !== from.code && fault.leadsTo.includes(to.code))
        .map(({ code }) => code);
      const pair = pairBy(from.code, to.code, otherCauses);
      const enough =
        pair.reps >= LEAST_REPS && pair.toReps >= LEAST_REPS && pair.variance >= LEAST_VARIANCE;
      const { difference, errorIfNone, error } = pair;
      return [
        {
          from: from.code,
          to: to.code,
          linked,
          pair,
          enough,
          more: enough ? normalBelow(-difference / errorIfNone) : 1,
          less: enough && linked ? normalBelow((difference - LEAST_EFFECT) / error) : 1,
        },
      ];
    }),
  );
};

/**
 * Holds the causes of a movement's faults against reps that were logged: which links hold, which the reps
 * speak against, and where one is missing, with all looks of the page allowed for. The plainest of the
 * missing links is taken into the chain before the others are looked at again, so that what follows from
 * it is not missing too.
 *
 * @param input reps by athlete and session; faults in the order in which they show in a rep: no later one
 *   is the cause of an earlier one; share of false alarms let through, 0.1 when absent
 * @returns every link of the chain, and those that are missing
 * @throws {RangeError} naming the field that is out of range
 * @example
 * const stratum = { reps: 40, faults: [{ fault: 'early', reps: 16 }, { fault: 'reach', reps: 14 }],
 *   together: [{ faults: ['early', 'reach'], reps: 12 }] };
 * const faults = [{ code: 'early', leadsTo: ['reach'] }, { code: 'reach', leadsTo: [] }];
 * causeLinks({ strata: [stratum, stratum], faults })[0]
 * // { from: 'early', to: 'reach', rates: { with: 1, without: 0 }, reps: 24, verdict: 'holds' }
 * Source: Mantel and Haenszel's test and risk difference, Benjamini and Hochberg's step-up procedure
 */
export const causeLinks = (input: {
  strata: readonly ShownTogether[];
  faults: readonly CausedFault[];
  q?: number | undefined;
}): LinkEvidence[] => {
  const { strata } = input;
  strata.forEach(({ reps, together }, i) => {
    whole(`strata[${i}].reps`, reps, { min: 0, max: 1e6 });
    const shown = together.reduce((sum, stratum) => sum + stratum.reps, 0);
    number(`strata[${i}].together`, shown, { min: 0, max: reps });
  });
  whole('faults.length', input.faults.length, { min: 0, max: MOST_FAULTS });
  const bits = new Map(input.faults.map(({ code }, i) => [code, 1 << i]));
  const reps = asBits(strata, bits);
  const shown = new Map([...bits].map(([code, bit]) => [code, repsWith(reps, bit)]));
  const pairs = new Map<string, Pair>();
  const pairBy = (from: string, to: string, otherCauses: string[]): Pair => {
    const causes = otherCauses.reduce((sum, code) => sum | bits.get(code)!, 0);
    const key = `${from}/${to}/${causes}`;
    const pair = pairs.get(key) ?? {
      ...{ reps: shown.get(from)!, toReps: shown.get(to)! },
      ...pairOf(reps, bits.get(from)!, bits.get(to)!, causes),
    };
    pairs.set(key, pair);
    return pair;
  };
  const found = new Set<string>();
  const isFound = ({ from, to }: { from: string; to: string }) => found.has(`${from}>${to}`);
  let faults = [...input.faults];
  for (;;) {
    const looks = looksAt(faults, pairBy);
    const limit = pointedOutTo(
      looks.flatMap(({ enough, linked, more, less }) =>
        enough ? (linked ? [more, less] : [more]) : [],
      ),
      input.q,
    );
    const shows = ({ enough, more }: Look): boolean => enough && more <= limit;
    const sure = ({ pair }: Look): number => pair.difference / pair.errorIfNone;
    const [next] = looks
      .filter((look) => !look.linked && shows(look) && look.pair.difference >= LEAST_EFFECT)
      .sort((a, b) => sure(b) - sure(a));
    if (next) {
      found.add(`${next.from}>${next.to}`);
      faults = faults.map((fault) =>
        fault.code === next.from ? { ...fault, leadsTo: [...fault.leadsTo, next.to] } : fault,
      );
      continue;
    }
    return looks
      .filter((look) => look.linked)
      .map((look) => ({
        from: look.from,
        to: look.to,
        rates: look.enough ? { with: look.pair.with, without: look.pair.without } : null,
        reps: look.pair.reps,
        verdict: isFound(look)
          ? 'missing'
          : look.enough && look.less <= limit
            ? 'against'
            : shows(look)
              ? 'holds'
              : 'unclear',
      }));
  }
};
