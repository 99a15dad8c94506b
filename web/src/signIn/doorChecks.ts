import { check } from '@gravek/contract/problem';
import { firstClub, invitationTaken, passwordByLink, signIn } from '@gravek/contract/account';

/** How the forms at the door are checked; loaded with the first press, so that the door opens sooner. */
export const doorChecks = {
  signIn: (values: unknown) => check(signIn, values),
  firstClub: (values: unknown) => check(firstClub, values),
  invitationTaken: (values: unknown) => check(invitationTaken, values),
  passwordByLink: (values: unknown) => check(passwordByLink, values),
};
