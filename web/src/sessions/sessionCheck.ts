import { check } from '@gravek/contract/problem';
import { sessionInput } from '@gravek/contract/sessionSchema';

/** How a session is checked before it is sent; loaded when it is saved. */
export const checkSession = (body: unknown) => check(sessionInput, body);
