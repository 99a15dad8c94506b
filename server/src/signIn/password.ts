import { hash, verify } from '@node-rs/argon2';
import type { ZxcvbnFactory } from '@zxcvbn-ts/core';
import { badInput } from '../http/problem';

// argon2id is the library's default; cost as OWASP's first recommendation.
const COST = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

export const hashPassword = (password: string): Promise<string> => hash(password, COST);

/** Takes as long for an unknown account as for a known one. */
let nobody: Promise<string> | undefined;

export const passwordFits = async (
  stored: string | undefined,
  password: string,
): Promise<boolean> => {
  nobody ??= hashPassword('nobody has this password');
  return (await verify(stored ?? (await nobody), password)) && stored !== undefined;
};

let meter: Promise<ZxcvbnFactory> | undefined;

const makeMeter = async (): Promise<ZxcvbnFactory> => {
  const [{ ZxcvbnFactory: Meter }, { adjacencyGraphs, dictionary }] = await Promise.all([
    import('@zxcvbn-ts/core'),
    import('@zxcvbn-ts/language-common'),
  ]);
  return new Meter({ dictionary, graphs: adjacencyGraphs });
};

/** Long enough to tell, short enough to be told quickly. */
const LOOKED_AT = 40;
/** Of 0 to 4; below it a password falls to a list of common ones or a few million guesses. */
const LEAST = 2;

/**
 * Refuses passwords that are among the first that anybody tries.
 *
 * @param around words that are known of the person, such as name, address and club
 * @throws {ProblemError} 422 at the field
 */
export const refuseCommon = async (
  field: string,
  password: string,
  around: readonly string[],
): Promise<void> => {
  meter ??= makeMeter();
  const { score } = (await meter).check(
    password.slice(0, LOOKED_AT),
    around.flatMap((text) => [text, ...text.split(/[\s@.]+/)]).filter((text) => text.length > 2),
  );
  if (score < LEAST) {
    throw badInput({
      [field]: 'This password is among the first that are tried. Take a few words of your own.',
    });
  }
};
