import type { Movement } from '@gravek/contract/movement';
import { BUILT_IN, loadBuiltIn } from '@gravek/library/movement/builtIn';
import { chainMovement } from '@gravek/library/movement/chains';
import { useQuery } from '@tanstack/react-query';
import { Unreachable } from '../../api/client';

const documents = new Map<string, Movement>();
const coming = new Map<string, Promise<void>>();
/** which could not be loaded for what was drawn */
const failed = new Set<string>();

const load = (entry: (typeof BUILT_IN)[number]): Promise<void> => {
  const { code } = entry;
  const promised = coming.get(code);
  if (promised) return promised;
  const promise = loadBuiltIn(entry).then(
    (document) => {
      documents.set(code, document);
    },
    (error: unknown) => {
      coming.delete(code);
      throw error;
    },
  );
  coming.set(code, promise);
  return promise;
};

/** Loads the documents of built-in movements ahead of a choice, so that nothing that is shown waits for it. */
export const fetchDocuments = async (codes: readonly string[]): Promise<void> => {
  // What could not be loaded is told of where it is drawn.
  await Promise.allSettled(BUILT_IN.filter(({ code }) => codes.includes(code)).map(load));
};

/**
 * Makes sure, while React draws, that the documents of built-in movements are on this page; codes of other
 * movements are passed over. All that are missing are loaded side by side.
 *
 * @throws {Promise} while they are on their way: the nearest `Suspense` waits for it and draws again
 * @throws {Unreachable} when they could not be loaded; whoever draws again after that begins anew
 */
export const needDocuments = (codes: Iterable<string>): void => {
  const wanted = new Set(codes);
  const missing = BUILT_IN.filter(({ code }) => wanted.has(code) && !documents.has(code));
  if (missing.length === 0) return;
  if (missing.filter(({ code }) => failed.delete(code)).length > 0) throw new Unreachable();
  throw Promise.all(missing.map((entry) => load(entry).catch(() => void failed.add(entry.code))));
};

/**
 * A movement by its code: the club's own, a built-in one, or a chain; undefined when there is none.
 *
 * @throws {Promise} as `needDocuments`
 */
export const documentOf = (
  code: string,
  clubDocuments: readonly Movement[],
): Movement | undefined => {
  const found = clubDocuments.find((movement) => movement.code === code);
  if (found) return found;
  needDocuments([code]);
  return documents.get(code) ?? chainMovement(code);
};

/** Whether the documents of some movements are on this page; codes of other movements are passed over. */
export const documentsHere = (codes: readonly string[]): boolean =>
  BUILT_IN.every(({ code }) => !codes.includes(code) || documents.has(code));

/**
 * Whether the documents of some movements need not be waited for any longer, since they are here or cannot be
 * loaded; for a page that goes on meanwhile.
 */
export const useDocumentsHere = (codes: readonly string[]): boolean => {
  const here = documentsHere(codes);
  const { data } = useQuery({
    queryKey: ['documents', 'of', ...codes],
    enabled: !here,
    staleTime: Infinity,
    queryFn: async () => {
      await fetchDocuments(codes);
      return true;
    },
  });
  return here || data === true;
};

/** The name of a movement by its code, without its document. */
export const nameOf = (code: string, clubDocuments: readonly Movement[]): string | undefined =>
  [...clubDocuments, ...BUILT_IN].find((movement) => movement.code === code)?.name ??
  chainMovement(code)?.name;

/** All built-in movements; asked for only when they are wanted. */
export const useBuiltIn = (wanted = true) =>
  useQuery({
    queryKey: ['documents', 'all'],
    enabled: wanted,
    staleTime: Infinity,
    queryFn: async () => {
      await fetchDocuments(BUILT_IN.map(({ code }) => code));
      const all = BUILT_IN.flatMap(({ code }) => documents.get(code) ?? []);
      // Without network those that came before are here, and the others are not.
      if (all.length < BUILT_IN.length) throw new Unreachable();
      return all;
    },
  });
