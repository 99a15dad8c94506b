import { CLUB_HEADER, UNCOUNTED_HEADER } from '@gravek/contract/header';
import type { Problem } from '@gravek/contract/problem';
import { askAgain } from './again';
import { hearUncounted } from './uncounted';

/** The server, or what stands before it, refused; the title is a sentence for the coach. */
export class ApiProblem extends Error {
  constructor(
    readonly problem: Problem,
    /** whether it was not Gravek that refused, but something on the way there */
    readonly onTheWay = false,
  ) {
    super(problem.title);
  }

  get status(): number {
    return this.problem.status;
  }
}

/** No answer came: the server or the network is not there. */
export class Unreachable extends Error {
  constructor() {
    super('The server cannot be reached. What you typed is kept; try again in a moment.');
  }
}

/** The server has newer pages than the one that is open, and no longer what that one would load. */
export class Renewed extends Error {
  constructor() {
    super('Gravek was updated while this page was open. Reload the page to go on.');
  }
}

/** Whether the server has other pages by now than the one that is open; not where it cannot be asked. */
const isRenewed = async (): Promise<boolean> => {
  const entry = document.querySelector('script[type="module"]')?.getAttribute('src');
  if (!entry) return false;
  try {
    const page = await (await fetch('/', { cache: 'no-store' })).text();
    return page.includes('<title>Gravek</title>') && !page.includes(entry);
  } catch {
    return false;
  }
};

/** Loads what a press or a place needs; where it cannot be loaded, the network or a newer Gravek is why. */
export const onPress = async <T>(load: () => Promise<T>): Promise<T> => {
  try {
    return await load();
  } catch {
    throw (await isRenewed()) ? new Renewed() : new Unreachable();
  }
};

const TIMEOUT_MS = 15_000;

/** Which club this page shows; another window may have opened another since. */
let shown: string | null = null;
export const showsClub = (clubId: string | null): void => {
  shown = clubId;
};
export const shownClub = (): string | null => shown;
/** What is done when the sign-in of the page that is shown has ended. */
let signedOut: () => void = () => undefined;
export const whenSignedOut = (then: () => void): void => {
  signedOut = then;
};
const OTHER_CLUB = 412;
const SIGNED_OUT = 401;
const TOO_LARGE = 413;

const refusedOnTheWay = (status: number): ApiProblem =>
  new ApiProblem(
    {
      status,
      title:
        status === TOO_LARGE
          ? 'That is too much to be sent at once.'
          : `Something between here and the server refused this (${status}). What you typed is kept.`,
    },
    true,
  );

const request = async <T>(
  method: string,
  path: string,
  body?: unknown,
  file?: Blob,
): Promise<T> => {
  const askedMs = performance.now();
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      method,
      credentials: 'same-origin',
      ...(file ? {} : { signal: AbortSignal.timeout(TIMEOUT_MS) }),
      headers: {
        ...(shown === null ? {} : { [CLUB_HEADER]: shown }),
        ...(body === undefined && !file ? {} : { 'content-type': 'application/json' }),
      },
      ...(file ? { body: file } : body === undefined ? {} : { body: JSON.stringify(body) }),
    });
  } catch {
    throw new Unreachable();
  }
  if (response.status === 204) return undefined as T;
  const type = response.headers.get('content-type') ?? '';
  if (response.ok && type.includes('application/json')) {
    const newer = response.headers.get(UNCOUNTED_HEADER);
    if (newer !== null) hearUncounted(Number(newer), askedMs);
    return (await response.json()) as T;
  }
  if (response.status === OTHER_CLUB) {
    // What was typed is kept by club, and what was logged waits for it.
    window.location.reload();
    throw new Unreachable();
  }
  if (type.includes('problem+json')) {
    const problem = (await response.json()) as Problem;
    if (response.status === SIGNED_OUT && shown !== null) signedOut();
    if (problem.confirm && (await askAgain())) return request(method, path, body, file);
    throw new ApiProblem(problem);
  }
  // Whatever else answers is not Gravek: a proxy in between that refuses, or that does not reach the server.
  if (response.status >= 400 && response.status < 500) throw refusedOnTheWay(response.status);
  throw new Unreachable();
};

/** Sends a file, however long that takes. */
export const sendFile = <T>(path: string, file: Blob): Promise<T> =>
  request('POST', path, undefined, file);

export const api = {
  get: <T>(path: string) => request<T>('GET', path),
  post: <T>(path: string, body: unknown = {}) => request<T>('POST', path, body),
  put: <T>(path: string, body: unknown) => request<T>('PUT', path, body),
  remove: <T>(path: string) => request<T>('DELETE', path),
};

/** The sentence to show for whatever was thrown. */
export const sentenceOf = (error: unknown): string =>
  error instanceof ApiProblem || error instanceof Unreachable || error instanceof Renewed
    ? error.message
    : 'Something went wrong here. What you typed is kept; try again.';

/** Messages by field, for a form. */
export const fieldsOf = (error: unknown): Record<string, string> =>
  error instanceof ApiProblem ? (error.problem.fields ?? {}) : {};
