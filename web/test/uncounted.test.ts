import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { hearUncounted, useUncounted, whenCounted } from '../src/api/uncounted';

let asked = 0;
let atMs = 0;
const says = (rows: number): void => hearUncounted(rows, (atMs += 1));
const listen = (): (() => void) => whenCounted(() => (asked += 1));

beforeEach(() => {
  vi.useFakeTimers();
  asked = 0;
  useUncounted.setState({ rows: 0, askedMs: 0 });
  atMs = 0;
});
afterEach(() => vi.useRealTimers());

it('what waited to be counted is asked for again, whoever began to listen too late', () => {
  // The answer came before anybody listened, the word that it was counted as well.
  says(1);
  const stop = listen();
  vi.advanceTimersByTime(2_000);
  expect(asked).toBe(1);
  stop();
});

it('an answer that knows of nothing uncounted makes older ones stale at once', () => {
  const stop = listen();
  says(3);
  says(0);
  expect(asked).toBe(1);
  says(0);
  vi.advanceTimersByTime(10_000);
  expect(asked).toBe(1);
  stop();
});

it('nothing is asked for where nothing waits, nor after it was stopped', () => {
  const stop = listen();
  says(0);
  says(2);
  stop();
  says(0);
  vi.advanceTimersByTime(10_000);
  expect(asked).toBe(0);
});
