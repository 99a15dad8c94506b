import quadprog from 'quadprog';
import { solveStraight } from '../src/runup/solveStraight';
import type { StraightInput, StraightPlan } from '../src/runup/straightPlan';
import { measure } from './measure';

/** Arrays of the general solver count from one. */
const fromOne = <T>(list: readonly T[]): T[] => [undefined as T, ...list];

/** The same optimum by a general quadratic programme: minimise Σ wr² with Σ pr = excess and bounds. */
const byGeneralSolver = (
  preferredM: readonly number[],
  weight: readonly number[],
  low: readonly number[],
  high: readonly number[],
  excessM: number,
): number[] => {
  const n = preferredM.length;
  const identity = (i: number, j: number, value: number): number => (i === j ? value : 0);
  const matrix = (rows: number, columns: number, at: (i: number, j: number) => number) =>
    fromOne(
      Array.from({ length: rows }, (_, i) =>
        fromOne(Array.from({ length: columns }, (__, j) => at(i, j))),
      ),
    );
  const D = matrix(n, n, (i, j) => identity(i, j, 2 * weight[i]!));
  const A = matrix(n, 1 + 2 * n, (i, j) =>
    j === 0 ? preferredM[i]! : j <= n ? identity(i, j - 1, 1) : identity(i, j - 1 - n, -1),
  );
  const b = fromOne([excessM, ...low, ...high.map((value) => -value)]);
  const { solution, message } = quadprog.solveQP(D, fromOne(Array<number>(n).fill(0)), A, b, 1);
  if (message) throw new Error(message);
  return solution.slice(1);
};

/** Prints how far the two optima are apart, and how much longer the general way takes. */
export const againstGeneralSolver = (): void => {
  const ask: StraightInput = {
    model: {
      firstLengthM: 1.22,
      topLengthM: 2.26,
      lengthRate: 3.1,
      firstCadenceSpm: 208,
      topCadenceSpm: 250,
      cadenceRate: 2.4,
    },
    takeoffFoot: 'left',
    steps: 20,
    distanceM: 42,
    absorb: 'early',
    tolerance: 0.08,
    pins: [{ step: 6, lengthM: 2.1 }],
  };
  const own = solveStraight(ask) as StraightPlan;
  const preferred = own.steps.map((step) => step.preferredM);
  const weight = preferred.map((_, i) => 1 + 9 * (i / (preferred.length - 1)) ** 2);
  const pinned = (i: number, value: number): number =>
    own.steps[i]!.pinned ? own.steps[i]!.lengthM / preferred[i]! - 1 : value;
  // The programme wants room between its bounds; a pin gets none worth the name.
  const low = preferred.map((_, i) => pinned(i, -ask.tolerance!));
  const high = preferred.map((_, i) => pinned(i, ask.tolerance!) + 1e-12);
  const excess = ask.distanceM! - preferred.reduce((sum, p) => sum + p, 0);
  const general = (): number[] => byGeneralSolver(preferred, weight, low, high, excess);
  const apart = Math.max(
    ...general().map((r, i) => Math.abs(r - (own.steps[i]!.lengthM / preferred[i]! - 1))),
  );
  const time = (work: () => unknown): number => {
    for (let i = 0; i < 200; i += 1) work();
    const began = performance.now();
    for (let i = 0; i < 1_000; i += 1) work();
    return (performance.now() - began) / 1_000;
  };
  const [ours, theirs] = [time(() => solveStraight(ask)), time(general)];
  measure({ 'the same by a general solver': general });
  process.stdout.write(
    `largest difference of a step, as a fraction of it: ${apart.toExponential(1)}; the general solver takes ${(theirs / ours).toFixed(1)} times as long\n`,
  );
};
