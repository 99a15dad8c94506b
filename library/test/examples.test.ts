/// <reference types="vite/client" />
import { otherFoot } from '@gravek/core/feet';
import { bodyOf } from '@gravek/core/layout/body';
import { describe, expect, it } from 'vitest';
import { MOVEMENTS } from '../src/movement/movements';
import { examplesIn, runExample } from './docExamples';

const modules = import.meta.glob<Record<string, unknown>>(
  ['../../core/src/**/*.ts', '../src/**/*.ts'],
  { eager: true },
);
const sources = import.meta.glob<string>(['../../core/src/**/*.ts', '../src/**/*.ts'], {
  eager: true,
  query: '?raw',
  import: 'default',
});

const bodyOfHand = (hand: 'left' | 'right') =>
  bodyOf({
    ...{ trials: [], heightM: 1.75, legM: null, shoeM: null },
    ...{ hand, takeoffFoot: otherFoot(hand) },
  });
/** What examples have at hand besides all that is exported: the built-in movements, and usual bodies. */
const atHand = {
  ...Object.fromEntries(
    MOVEMENTS.map((movement) => [
      movement.code.replace(/-(.)/g, (_, letter: string) => letter.toUpperCase()),
      movement,
    ]),
  ),
  body: bodyOfHand('right'),
  leftHander: bodyOfHand('left'),
  metric: { unit: 'metric' },
};
const everything = Object.assign(atHand, ...Object.values(modules)) as Record<string, unknown>;
const withExamples = Object.entries(sources)
  .map(([path, source]) => [path, examplesIn(source)] as const)
  .filter(([, examples]) => examples.length > 0);

describe.each(withExamples)('%s', (path, examples) => {
  it.each(examples)('has an example for $name that holds', (example) => {
    expect(() => runExample(example, { ...everything, ...modules[path] })).not.toThrow();
  });
});

it('compares most examples with a value', () => {
  const all = withExamples.flatMap(([path, examples]) =>
    examples.map((example) => runExample(example, { ...everything, ...modules[path] })),
  );
  expect(all.filter((values) => values > 0).length / all.length).toBeGreaterThan(0.9);
});
