import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { together } from '../src/http/together';

const turn = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));

describe('what is done together', () => {
  it('answers each with its own, one piece of work of a key at a time, none larger than allowed', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.integer({ min: 1, max: 5 }),
        fc.array(fc.record({ key: fc.constantFrom('a', 'b'), waits: fc.nat(3) }), {
          maxLength: 40,
        }),
        async (most, asks) => {
          const underWay = new Map<string, number>();
          const ask = together(most, async (some: { key: string; n: number }[]) => {
            const { key } = some[0]!;
            expect(some.every((one) => one.key === key)).toBe(true);
            expect(some.length).toBeLessThanOrEqual(most);
            expect(underWay.get(key) ?? 0).toBe(0);
            underWay.set(key, 1);
            await turn();
            underWay.set(key, 0);
            return some.map(({ n }) => n * 10);
          });
          const answers: Promise<number>[] = [];
          for (const [n, { key, waits }] of asks.entries()) {
            for (let i = 0; i < waits; i += 1) await turn();
            answers.push(ask(key, { key, n }));
          }
          expect(await Promise.all(answers)).toEqual(asks.map((_, n) => n * 10));
        },
      ),
      { numRuns: 60 },
    );
  });

  it('fails for those it was done for, and goes on with who comes after', async () => {
    let times = 0;
    const ask = together(2, async (some: number[]) => {
      times += 1;
      await turn();
      if (some.includes(2)) throw new Error('no connection');
      return some;
    });
    const all = await Promise.allSettled([1, 2, 3, 4].map((n) => ask('club', n)));
    expect(all.map((one) => one.status)).toEqual([
      'fulfilled',
      'rejected',
      'rejected',
      'fulfilled',
    ]);
    expect(times).toBe(3);
    expect(await ask('club', 5)).toBe(5);
  });
});
