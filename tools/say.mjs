/** Ends a command with a sentence for the person at the terminal. */
export class Stop extends Error {}

export const say = (line) => process.stdout.write(`${line}\n`);

/** Runs a command's main function; a Stop is a sentence, anything else a fault with its stack. */
export const runMain = async (main) => {
  try {
    await main();
  } catch (error) {
    process.stderr.write(`${error instanceof Stop ? error.message : error.stack}\n`);
    process.exit(1);
  }
};
