const ROUNDS = 400;
const WARM_UP = 60;

/** Prints the median and the 95th percentile of single calls of each case, milliseconds. */
export const measure = (cases: Readonly<Record<string, () => unknown>>, rounds = ROUNDS): void => {
  process.stdout.write(
    `${'one call, ms'.padEnd(44)}${'median'.padStart(9)}${'95 %'.padStart(9)}\n`,
  );
  for (const [name, work] of Object.entries(cases)) {
    for (let i = 0; i < Math.min(WARM_UP, rounds); i += 1) work();
    const times = Array.from({ length: rounds }, () => {
      const began = performance.now();
      work();
      return performance.now() - began;
    }).sort((a, b) => a - b);
    const at = (part: number): string => times[Math.floor(part * rounds)]!.toFixed(3).padStart(9);
    process.stdout.write(`${name.padEnd(44)}${at(0.5)}${at(0.95)}\n`);
  }
};
