import { object, string, type InferType } from 'yup';
import { clubSettings, ROLES, type Role } from './club';
import { choice, id, name } from './fields';

const email = () =>
  string()
    .trim()
    .lowercase()
    .required('Give an e-mail address.')
    .max(200, 'That e-mail address is too long.')
    // Nothing in it can be read in two ways, so no text takes long.
    .matches(/^[^\s@]+@[^\s@.]+(\.[^\s@.]+)+$/, 'That is not an e-mail address.');

/** The same letters however a keyboard puts them together. */
const password = (what: string) =>
  string()
    .transform((text: unknown) => (typeof text === 'string' ? text.normalize('NFC') : text))
    .required(what)
    .max(200, 'Keep the password within 200 characters.');

/** Six digits, or what was written down. */
const code = () => string().trim().max(40, 'That is not a code.').default('');

const newPassword = () =>
  password('Give a password.')
    .min(10, 'A password needs at least 10 characters.')
    .test(
      'varied',
      'Too plain to keep anybody out: the same sign or blanks over and over.',
      (text) => !text || new Set(text.replace(/\s/g, '')).size >= 4,
    );

export const signIn = object({
  email: email(),
  password: password('Give the password.'),
  /** from the phone, or a recovery code; asked for where the account has a second step */
  code: code(),
});
export type SignIn = InferType<typeof signIn>;

/** The first club of an empty database, with its owner. */
export const firstClub = object({
  club: clubSettings.required(),
  person: name('your name'),
  email: email(),
  password: newPassword(),
});
export type FirstClub = InferType<typeof firstClub>;

/** Somebody who is invited, as far as the inviter knows them. */
export const invitationInput = object({
  id: id(),
  person: name('a name'),
  email: email(),
  role: choice('a role', ROLES),
});
export type InvitationInput = InferType<typeof invitationInput>;

/**
 * A membership that nobody has taken up yet, as the inviter wrote it.
 *
 * `until` is null as long as no link was made, or when the last was made by somebody who may invite no more.
 */
export type Invitation = InvitationInput & { until: string | null };

/** A new password of one's own. */
export const passwordChange = object({
  current: password('Give the password that you have now.'),
  next: newPassword(),
});
export type PasswordChange = InferType<typeof passwordChange>;

/** What comes after # in a one-time link. */
const token = () =>
  string().strict().required('The link is not whole.').max(60, 'The link is not whole.');

/** A new password by a one-time link. */
export const passwordByLink = object({ token: token(), password: newPassword() });
export type PasswordByLink = InferType<typeof passwordByLink>;

/** A one-time link that an owner has made: what comes after #, and until when it holds. */
export type OnceLink = { token: string; until: string };

/** An invitation by what comes after # in its link. */
export const invitationAsk = object({ token: token() });

/** An invitation taken up by somebody without an account: the name and password that they choose. */
export const invitationTaken = object({
  token: token(),
  person: name('your name'),
  password: newPassword(),
});
export type InvitationTaken = InferType<typeof invitationTaken>;

/** What an invitation says to whoever opens its link. */
export type InvitationSeen = {
  club: string;
  role: Role;
  person: string;
  email: string;
  until: string;
  /** the address of who is signed in on this device; null when nobody is */
  signedInAs: string | null;
};

/** The password once more, before what cannot be taken back. */
export const passwordAgain = object({ password: password('Give your password.') });

/** Where an account is signed in. */
export type Device = {
  id: string;
  device: string;
  /** when it signed in, and when it was last used */
  since: string;
  seen: string;
  /** whether it is this very device */
  here: boolean;
};

/** Which device is signed out; null for all but the one that asks. */
export const deviceEnd = object({
  id: string().max(60, 'There is no such device.').nullable().defined('Something is missing.'),
});

/** A second step that is turned on: its secret, and a code of it to show that the phone has it. */
export const secondStepOn = object({
  secret: string()
    .strict()
    .required('Something is missing.')
    .max(64, 'That is not a secret.')
    .matches(/^[A-Z2-7]{16,64}$/, 'That is not a secret.'),
  code: code().required('Give the code that the phone shows.'),
});
export type SecondStepOn = InferType<typeof secondStepOn>;

/** Whether signing in takes a second step; when it does not, a fresh secret to begin with. */
export type SecondStep =
  { on: true; codesLeft: number } | { on: false; secret: string; uri: string };

/** Codes to be written down, shown once. */
export type RecoveryCodes = { codes: string[] };
