import { createHash, randomBytes } from 'node:crypto';
import { Secret, TOTP } from 'otpauth';
import type { Trx } from '../database/connect';

const PERIOD_S = 30;
const CODES = 10;

const totp = (secret: string, email = ''): TOTP =>
  new TOTP({ issuer: 'Gravek', label: email, period: PERIOD_S, secret: Secret.fromBase32(secret) });

/** A new secret, and the address by which an app on a phone takes it. */
export const newSecret = (email: string): { secret: string; uri: string } => {
  const secret = new Secret({ size: 20 }).base32;
  return { secret, uri: totp(secret, email).toString() };
};

/**
 * The half minute that a code belongs to; a phone's clock may be off by one.
 *
 * @returns null when it is no code of these moments
 */
export const stepOf = (secret: string, code: string, nowMs = Date.now()): number | null => {
  const off = totp(secret).validate({
    token: code.replace(/\s/g, ''),
    timestamp: nowMs,
    window: 1,
  });
  return off === null ? null : Math.floor(nowMs / 1000 / PERIOD_S) + off;
};

const recoveryHash = (code: string): string =>
  createHash('sha256')
    .update(code.toLowerCase().replace(/[^a-z0-9]/g, ''))
    .digest('base64url');

/** Codes to be written down, each good for once when the phone is not at hand, and what is kept of them. */
export const recoveryCodes = (): { codes: string[]; hashes: string[] } => {
  const codes = Array.from({ length: CODES }, () =>
    randomBytes(8)
      .toString('hex')
      .replace(/(.{4})(?=.)/g, '$1-'),
  );
  return { codes, hashes: codes.map(recoveryHash) };
};

/**
 * Takes a code from the phone or one of the recovery codes; each is good for once.
 *
 * @param account with the row held until the transaction ends
 */
export const takeCode = async (
  trx: Trx,
  account: { id: string; totp_secret: string; totp_step: string; recovery: string[] },
  code: string,
): Promise<boolean> => {
  const step = stepOf(account.totp_secret, code);
  const hash = recoveryHash(code);
  if (step !== null && step > Number(account.totp_step)) {
    await trx
      .updateTable('account')
      .set({ totp_step: step })
      .where('id', '=', account.id)
      .execute();
    return true;
  }
  if (!account.recovery.includes(hash)) return false;
  await trx
    .updateTable('account')
    .set({ recovery: account.recovery.filter((kept) => kept !== hash) })
    .where('id', '=', account.id)
    .execute();
  return true;
};
