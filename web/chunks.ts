/** What is known of a module while the build divides modules into files. */
type Known = { importedIds: readonly string[]; dynamicallyImportedIds: readonly string[] };
type Graph = { getModuleInfo: (id: string) => Known | null };

const SOURCES = `${import.meta.dirname}/src`;
const ENTRY = `${SOURCES}/main.tsx`;
const INSIDE = [`${SOURCES}/app/Places.tsx`, `${SOURCES}/today/Today.tsx`];
const ADDRESSES = `${SOURCES}/app/addresses.ts`;

/** What so many places need is loaded by all that need any of it. */
const SHARED_BY = 7;

/** All modules that must have run before these may, themselves among them. */
const needed = (graph: Graph, ...roots: readonly string[]): Set<string> => {
  const found = new Set<string>();
  const take = (id: string): void => {
    if (found.has(id)) return;
    found.add(id);
    graph.getModuleInfo(id)?.importedIds.forEach(take);
  };
  roots.forEach(take);
  return found;
};

const divided = (graph: Graph): Map<string, string> => {
  const files = new Map<string, string>();
  const places = graph.getModuleInfo(ADDRESSES)?.dynamicallyImportedIds ?? [];
  const roots = new Set([ENTRY, ...INSIDE, ...places]);
  const put = (file: string, ids: Iterable<string>): void => {
    for (const id of ids) if (!files.has(id) && !roots.has(id)) files.set(id, file);
  };
  put('door', needed(graph, ENTRY));
  put('inside', needed(graph, ...INSIDE));
  const users = new Map<string, number>();
  for (const place of places)
    for (const id of needed(graph, place)) users.set(id, (users.get(id) ?? 0) + 1);
  put(
    'shared',
    [...users].filter(([, count]) => count >= SHARED_BY).map(([id]) => id),
  );
  return files;
};

/**
 * In which file of the build a module goes, so that a phone asks for ten files and not for sixty: what the door
 * needs, what every place behind it needs, what several places share. Whatever else there is goes where the
 * build puts it. What a module needs is never in a file that is loaded later than its own.
 */
export const fileOf = (): ((id: string, graph: Graph) => string | null) => {
  let files: Map<string, string> | undefined;
  return (id, graph) => (files ??= divided(graph)).get(id) ?? null;
};
