import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { filled, groupsOf, rotation } from '../src/session/rotation';

const names = (n: number): string[] => Array.from({ length: n }, (_, i) => `p${i}`);

describe('rotation', () => {
  it('has everybody perform equally often at every moment, for 2 to 60 people', () => {
    for (let people = 2; people <= 60; people += 1) {
      fc.assert(
        fc.property(
          fc.integer({ min: 1, max: 12 }),
          fc.integer({ min: 1, max: 6 }),
          (lanes, roles) => {
            const ring = names(people);
            const pass = rotation(ring, lanes, roles);
            const at = filled(people, lanes, roles);
            const performed = new Map(ring.map((id) => [id, 0]));
            for (const shift of [...pass, ...pass]) {
              for (const [id, part] of shift) {
                if (part.role === 0) performed.set(id, performed.get(id)! + 1);
              }
              const often = [...performed.values()];
              expect(Math.max(...often) - Math.min(...often)).toBeLessThanOrEqual(1);
            }
            expect(new Set(performed.values())).toEqual(new Set([2]));
            for (const shift of pass) {
              // One to a place: no role of a lane is given twice, and each performer has the others.
              const places = [...shift.values()].map(({ role, lane }) => `${role}/${lane}`);
              expect(new Set(places).size).toBe(places.length);
              const performers = [...shift.values()].filter((part) => part.role === 0).length;
              expect(places).toHaveLength(performers * at.roles);
            }
          },
        ),
        { numRuns: 12 },
      );
    }
  });

  it('has who performed feed, who fed collect, and who collected perform', () => {
    const pass = rotation(['ana', 'bo', 'cy'], 1, 3);
    const roleOf = (id: string) => pass.map((shift) => shift.get(id)?.role);
    expect(roleOf('ana')).toEqual([0, 1, 2]);
    expect(roleOf('bo')).toEqual([2, 0, 1]);
    expect(roleOf('cy')).toEqual([1, 2, 0]);
  });

  it('keeps pairs together who change roles, and lets the odd one out in', () => {
    const [first, second] = rotation(names(6), 3, 2);
    for (const lane of [1, 2, 3]) {
      const inLane = (shift: typeof first) =>
        [...shift!].flatMap(([id, part]) => (part.lane === lane ? [id] : [])).sort();
      expect(inLane(first)).toEqual(inLane(second));
    }
    const odd = rotation(names(5), 9, 2);
    expect(odd).toHaveLength(3);
    expect(odd.every((shift) => shift.size >= 2)).toBe(true);
  });

  it('lets roles go that nobody is left for', () => {
    expect(rotation(['ana'], 4, 3)).toEqual([new Map([['ana', { role: 0, lane: 1 }]])]);
    expect(() => rotation([], 1, 1)).toThrow('people');
  });
});

it('makes groups that differ by one at most, of everybody', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 60 }), fc.integer({ min: 1, max: 9 }), (people, many) => {
      const groups = groupsOf(names(people), many);
      expect(groups.flat()).toEqual(names(people));
      const sizes = groups.map((group) => group.length);
      expect(Math.max(...sizes) - Math.min(...sizes)).toBeLessThanOrEqual(1);
      expect(Math.min(...sizes)).toBeGreaterThanOrEqual(1);
    }),
  );
});
