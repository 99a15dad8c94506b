import { describe, expect, it } from 'vitest';
import {
  causeLinks,
  type CausedFault,
  type LinkEvidence,
  type ShownTogether,
} from '../src/cue/causeLinks';
import { seeded } from '../src/chance/random';

/** Faults in the order in which they show, each with what it truly brings about and how surely. */
type Truth = { code: string; leadsTo: string[]; link?: number }[];

/** A season of a squad: each athlete has a rate of each fault, and better and worse days. */
const seasonOf = (truth: Truth, seed: number, athletes = 12, sessions = 12): ShownTogether[] => {
  const next = seeded(seed);
  return Array.from({ length: athletes }, () => {
    const own = truth.map(() => 0.03 + 0.3 * next() ** 2);
    return Array.from({ length: sessions }, (): ShownTogether => {
      const day = 0.6 + 0.8 * next();
      const sets = new Map<string, number>();
      for (let rep = 0; rep < 8; rep += 1) {
        const seen: string[] = [];
        truth.forEach(({ code }, i) => {
          let misses = 1 - own[i]! * day;
          for (const cause of truth) {
            if (seen.includes(cause.code) && cause.leadsTo.includes(code))
              misses *= 1 - (cause.link ?? 0.5);
          }
          if (next() > misses) seen.push(code);
        });
        if (seen.length > 0) sets.set(seen.join(), (sets.get(seen.join()) ?? 0) + 1);
      }
      return {
        reps: 8,
        together: [...sets].map(([key, reps]) => ({ faults: key.split(','), reps })),
      };
    });
  }).flat();
};

const truth: Truth = [
  { code: 'a', leadsTo: ['b'] },
  { code: 'd', leadsTo: ['e', 'f'] },
  { code: 'b', leadsTo: ['c'] },
  { code: 'c', leadsTo: [] },
  { code: 'e', leadsTo: [] },
  { code: 'f', leadsTo: [] },
];
const told = (links: LinkEvidence[], verdict: LinkEvidence['verdict']): string[] =>
  links.filter((link) => link.verdict === verdict).map(({ from, to }) => `${from}>${to}`);
const changed = (code: string, leadsTo: string[]): CausedFault[] =>
  truth.map((fault) => (fault.code === code ? { ...fault, leadsTo } : fault));

describe('the causes of a movement, held against reps', () => {
  it('hold where they are true, and nothing is said to be missing', () => {
    const links = causeLinks({ strata: seasonOf(truth, 1), faults: truth });
    expect(told(links, 'holds').sort()).toEqual(['a>b', 'b>c', 'd>e', 'd>f']);
    expect(told(links, 'against')).toEqual([]);
    expect(told(links, 'missing')).toEqual([]);
    const { rates } = links.find(({ from }) => from === 'a')!;
    expect(rates!.with - rates!.without).toBeGreaterThan(0.3);
  });

  it('find the link that was left out, and name the one that is not so', () => {
    let missing = 0;
    let against = 0;
    for (let seed = 1; seed <= 10; seed += 1) {
      const strata = seasonOf(truth, seed);
      missing += Number(
        told(causeLinks({ strata, faults: changed('b', []) }), 'missing').includes('b>c'),
      );
      against += Number(
        told(causeLinks({ strata, faults: changed('a', ['b', 'f']) }), 'against').includes('a>f'),
      );
    }
    expect(missing).toBe(10);
    expect(against).toBeGreaterThanOrEqual(8);
  });

  it('miss one link once: what only follows from it is not missing too', () => {
    // d brings about both e and f; with its link to f left out, e and f still show together.
    for (let seed = 1; seed <= 10; seed += 1) {
      const links = causeLinks({ strata: seasonOf(truth, seed), faults: changed('d', ['e']) });
      expect(told(links, 'missing')).toEqual(['d>f']);
    }
  });

  it('seldom speak against what is so, or of a link where there is only a common cause or a bad day', () => {
    let wrong = 0;
    for (let seed = 100; seed < 140; seed += 1) {
      const links = causeLinks({ strata: seasonOf(truth, seed), faults: truth });
      wrong += told(links, 'against').length + told(links, 'missing').length;
    }
    expect(wrong).toBeLessThanOrEqual(6);
  });

  it('say nothing of few reps, and of nobody’s', () => {
    const few = causeLinks({ strata: seasonOf(truth, 3, 1, 2), faults: truth });
    expect(few.map(({ verdict, rates }) => [verdict, rates])).toEqual(
      Array.from({ length: 4 }, () => ['unclear', null]),
    );
    expect(causeLinks({ strata: [], faults: truth })).toHaveLength(4);
    const broken = [{ reps: 2, together: [{ faults: ['a'], reps: 3 }] }];
    expect(() => causeLinks({ strata: broken, faults: truth })).toThrow('strata[0].together');
  });
});
