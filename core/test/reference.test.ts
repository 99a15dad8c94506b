/// <reference types="vite/client" />
import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';

/** Every function of the package by its name. */
const core = Object.assign(
  {},
  ...Object.values(import.meta.glob(['../src/**/*.ts', '!../src/layout/**'], { eager: true })),
) as Record<string, unknown>;

type Case = { name: string; input: unknown; expect: unknown };

const folder = new URL('../reference/', import.meta.url);

/** Every number, word and null of `expected` must stand in `actual`; the actual may hold more. */
const holds = (actual: unknown, expected: unknown, path: string): number => {
  if (typeof expected === 'number') {
    expect(typeof actual, path).toBe('number');
    expect(Math.abs((actual as number) - expected), path).toBeLessThanOrEqual(1e-3);
    return 1;
  }
  if (expected !== null && typeof expected === 'object') {
    const isList = Array.isArray(expected);
    if (isList) expect(actual, path).toHaveLength(expected.length);
    return Object.entries(expected).reduce(
      (sum, [key, value]) =>
        sum + holds((actual as Record<string, unknown> | null)?.[key], value, `${path}.${key}`),
      isList ? 1 : 0,
    );
  }
  expect(actual, path).toBe(expected);
  return 1;
};

for (const file of readdirSync(folder)) {
  const name = file.replace('.json', '').replace(/-(.)/g, (_, c: string) => c.toUpperCase());
  const cases = JSON.parse(readFileSync(new URL(file, folder), 'utf8')) as Case[];
  describe(name, () => {
    it.each(cases)('$name', ({ input, expect: expected }) => {
      const compute = core[name] as (input: unknown) => unknown;
      expect(holds(compute(input), expected, name)).toBeGreaterThan(0);
    });
  });
}

it('has every definition', () => {
  expect(readdirSync(folder)).toHaveLength(32);
});
