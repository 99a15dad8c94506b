/** Ends a command with a sentence for the person at the terminal. */
export class Stop extends Error {}

export const say = (line) => process.stdout.write(`${line}\n`);

/** Says what takes a while, and at its end how long it took. */
export const step = async (what, work) => {
  say(`${what} …`);
  const began = Date.now();
  const result = await work();
  say(`${what}: ${((Date.now() - began) / 1000).toFixed(1)} s`);
  return result;
};

/** Runs a command's main function; a Stop is a sentence, anything else a fault with its stack. */
export const runMain = async (main) => {
  try {
    await main();
  } catch (error) {
    process.stderr.write(`${error instanceof Stop ? error.message : error.stack}\n`);
    process.exit(1);
  }
};
