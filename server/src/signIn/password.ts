import { hash, verify } from '@node-rs/argon2';

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
