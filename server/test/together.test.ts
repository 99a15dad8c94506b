import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { LATER, together } from '../src/http/together';

/** Only the third argument and what follows differ from what the server does. */
const shared = <Ask, Answer>(
  most: number,
  work: (asks: Ask[], patient: boolean) => Promise<(Answer | typeof LATER)[]>,
  rest: { failsAll?: (error: unknown) => boolean; triedMs?: number } = {},
) =>
  together<Ask, Answer>({
    most,
    work,
    failsAll: () => false,
    tooLong: () => new Error('busy'),
    ...rest,
  });

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
          const ask = shared(most, async (some: { key: string; n: number }[]) => {
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

  it('fails for whom it fails, and goes on with the others', async () => {
    let times = 0;
    const work = async (some: number[]): Promise<number[]> => {
      times += 1;
      await turn();
      if (some.includes(2)) throw new Error('not this one');
      return some;
    };
    const ask = shared(3, work);
    const all = await Promise.allSettled([1, 2, 3, 4].map((n) => ask('club', n)));
    expect(all.map((result) => result.status)).toEqual([
      'fulfilled',
      'rejected',
      'fulfilled',
      'fulfilled',
    ]);
    expect(await ask('club', 5)).toBe(5);
    // Where nobody would fare better alone, nobody is tried alone.
    times = 0;
    const none = shared(3, work, { failsAll: () => true });
    await Promise.allSettled([1, 2, 3, 4].map((n) => none('club', n)));
    expect(times).toBe(2);
  });

  it('lets who must wait do so beside the others, and not for ever', async () => {
    const busy = new Set([2]);
    let waiting = 0;
    const ask = shared<number, number>(
      5,
      async (some, patient) => {
        if (patient) expect((waiting += 1)).toBe(1);
        await turn();
        if (patient) waiting -= 1;
        return some.map((n) => (busy.has(n) ? LATER : n));
      },
      { triedMs: 400 },
    );
    let second: number | null = null;
    const late = ask('club', 2).then((n) => (second = n));
    for (let n = 3; n < 40; n += 1) expect(await ask('club', n)).toBe(n);
    expect(second).toBeNull();
    busy.clear();
    expect(await late).toBe(2);
    busy.add(7);
    await expect(ask('club', 7)).rejects.toThrow('busy');
  });
});
