import { createHash, randomBytes } from 'node:crypto';

const HOLDS_MS = 24 * 3600_000;

/** What is kept of a link or a sign-in: enough to know it again, too little to make it. */
export const hashOf = (token: string): string =>
  createHash('sha256').update(token).digest('base64url');

/** A secret for a link, and until when it holds. */
export const freshLink = (holdsMs = HOLDS_MS) => {
  const token = randomBytes(32).toString('base64url');
  return { token, token_hash: hashOf(token), until: new Date(Date.now() + holdsMs) };
};
