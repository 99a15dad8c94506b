import { existsSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';

/** Files of the workspaces, and which of them each imports. */
const root = path.resolve(import.meta.dirname, '../..');
const files = ['core', 'contract', 'library', 'server', 'web', 'demo'].flatMap((workspace) =>
  readdirSync(path.join(root, workspace, 'src'), { recursive: true, encoding: 'utf8' })
    .filter((file) => /\.tsx?$/.test(file))
    .map((file) => path.join(root, workspace, 'src', file)),
);
const imports = new Map(
  files.map((file) => {
    const text = readFileSync(file, 'utf8');
    const named = [...text.matchAll(/(?:from|import\() ?'(\.[^']+)'/g)].map((found) =>
      path.resolve(path.dirname(file), found[1]!),
    );
    const found = named.flatMap(
      (name) => ['.ts', '.tsx'].map((end) => name + end).find((text) => existsSync(text)) ?? [],
    );
    return [file, found];
  }),
);

/** The first way round that leads back to where it began; null where there is none. */
const circleIn = (next: ReadonlyMap<string, Iterable<string>>): string[] | null => {
  const done = new Set<string>();
  const walk = (at: string, way: string[]): string[] | null => {
    if (way.includes(at)) return [...way.slice(way.indexOf(at)), at];
    if (done.has(at)) return null;
    for (const to of next.get(at) ?? []) {
      const circle = walk(to, [...way, at]);
      if (circle) return circle;
    }
    done.add(at);
    return null;
  };
  for (const start of next.keys()) {
    const circle = walk(start, []);
    if (circle) return circle;
  }
  return null;
};

describe('files', () => {
  it('import each other in no circle', () => {
    expect([...imports.values()].flat().length).toBeGreaterThan(300);
    expect(circleIn(imports)?.map((file) => path.relative(root, file))).toBeUndefined();
  });

  it('of the server lie in folders that stand on one another: none needs a folder that needs it', () => {
    const server = path.join(root, 'server/src');
    const folderOf = (file: string): string => path.relative(server, path.dirname(file));
    const folders = new Map<string, Set<string>>();
    for (const [file, found] of imports) {
      // What stands at the top puts all of them together, or is needed by all.
      if (!file.startsWith(server) || folderOf(file) === '') continue;
      const others = found.map(folderOf).filter((folder) => !['', folderOf(file)].includes(folder));
      folders.set(folderOf(file), new Set([...(folders.get(folderOf(file)) ?? []), ...others]));
    }
    expect(folders.size).toBeGreaterThan(15);
    expect(circleIn(folders)).toBeNull();
  });

  it('have names that differ in more than case', () => {
    const names = files.map((file) => file.replace(/\.tsx?$/, '').toLowerCase());
    expect(names.filter((name, i) => names.indexOf(name) !== i)).toEqual([]);
  });

  it('of the web stand in four storeys: no place needs another, what they share needs no place', () => {
    const web = path.join(root, 'web/src');
    const ground = ['api', 'controls', 'drawing', 'hearing', 'look', 'member', 'phone'];
    const roomOf = (file: string): string => path.relative(web, file).split(path.sep)[0]!;
    const storeyOf = (room: string): number =>
      ground.includes(room) ? 0 : room === 'parts' ? 1 : /^app$|[.]tsx?$/.test(room) ? 3 : 2;
    const upward = [...imports].flatMap(([file, found]) => {
      if (!file.startsWith(web)) return [];
      const room = roomOf(file);
      return found
        .filter((other) => {
          const to = roomOf(other);
          const isOtherPlace = storeyOf(to) === 2 && storeyOf(room) === 2 && to !== room;
          return storeyOf(to) > storeyOf(room) || isOtherPlace;
        })
        .map((other) => `${path.relative(web, file)} needs ${path.relative(web, other)}`);
    });
    expect(upward).toEqual([]);
  });
});
