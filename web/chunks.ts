/** What is known of a module while the build divides modules into files. */
type Known = {
  code: string | null;
  importedIds: readonly string[];
  dynamicallyImportedIds: readonly string[];
};
type Graph = { getModuleInfo: (id: string) => Known | null };

const SOURCES = `${import.meta.dirname}/src`;
const ENTRY = `${SOURCES}/main.tsx`;
const INSIDE = [`${SOURCES}/app/Places.tsx`, `${SOURCES}/today/Today.tsx`];
const ADDRESSES = `${SOURCES}/app/addresses.ts`;

/** Places between which people go back and forth. */
const TOGETHER: Record<string, RegExp> = {
  field: /src\/run\//,
  sessions: /src\/sessions\//,
  drawn: /src\/(movements\/(Chains|MovementPage)|approaches\/(plan|setOut))/,
  ledger: /src\/(athletes|faults|reports|club)\//,
};

/** What only those places need in which something is written. */
const FORMS = /src\/(parts\/fields\/|controls\/(NumberInput|LengthInput|Window)\.)/;

/** What so many places need is loaded by all that need any of it. */
const SHARED_BY = 6;
/** The clock of groups needs little but what the field screen needs: they count as one place. */
const CLOCK = `${SOURCES}/run/Clock.tsx`;
/** So is what is too small for a file that a phone asks for by itself, characters before packing. */
const SMALL = 2_000;

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

  const users = new Map<string, string[]>();
  for (const place of places)
    for (const id of needed(graph, place)) users.set(id, [...(users.get(id) ?? []), place]);
  const several = [...users].filter(([, by]) => by.length > 1);
  put(
    'forms',
    several.map(([id]) => id).filter((id) => FORMS.test(id)),
  );
  put(
    'shared',
    several
      .filter(([, by]) => by.filter((place) => place !== CLOCK).length >= SHARED_BY)
      .map(([id]) => id),
  );
  const togetherIn = (by: readonly string[]): string | undefined =>
    Object.entries(TOGETHER).find(([, together]) => by.every((place) => together.test(place)))?.[0];
  for (const [id, by] of several) {
    if (togetherIn(by) !== undefined) continue;
    const more = [...needed(graph, id)].filter((other) => !files.has(other));
    const size = more.reduce(
      (sum, other) => sum + (graph.getModuleInfo(other)?.code?.length ?? 0),
      0,
    );
    if (size < SMALL) put('shared', more);
  }
  for (const [id, by] of several) {
    const file = togetherIn(by);
    if (file !== undefined) put(file, [id]);
  }
  return files;
};

/**
 * In which file of the build a module goes, so that a phone asks for ten files and not for sixty: what the door
 * needs, what every place behind it needs, what many places share, what the places of some folders share. Whatever
 * else there is goes where the build puts it. What a module needs is never in a file that needs the module's.
 */
export const groups = () => {
  let files: Map<string, string> | undefined;
  const names = ['door', 'inside', 'forms', 'shared', ...Object.keys(TOGETHER)];
  return names.map((file, at) => ({
    priority: names.length - at,
    includeDependenciesRecursively: false,
    name: (id: string, graph: Graph): string | null =>
      (files ??= divided(graph)).get(id) === file ? file : null,
  }));
};
