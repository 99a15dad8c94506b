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
      (name) => ['.ts', '.tsx'].map((end) => name + end).find((one) => existsSync(one)) ?? [],
    );
    return [file, found];
  }),
);

/** The first way round that leads back to where it began. */
const circleFrom = (file: string, way: string[], done: Set<string>): string[] | null => {
  if (way.includes(file)) return [...way.slice(way.indexOf(file)), file];
  if (done.has(file)) return null;
  for (const next of imports.get(file) ?? []) {
    const circle = circleFrom(next, [...way, file], done);
    if (circle) return circle;
  }
  done.add(file);
  return null;
};

describe('files', () => {
  it('import each other in no circle', () => {
    expect([...imports.values()].flat().length).toBeGreaterThan(300);
    const done = new Set<string>();
    for (const file of files) {
      const circle = circleFrom(file, [], done);
      expect(circle?.map((one) => path.relative(root, one))).toBeUndefined();
    }
  });

  it('have names that differ in more than case', () => {
    const names = files.map((file) => file.replace(/\.tsx?$/, '').toLowerCase());
    expect(names.filter((name, i) => names.indexOf(name) !== i)).toEqual([]);
  });

  it('that all places share know of no place', () => {
    const shared = ['controls', 'drawing', 'hearing', 'member', 'phone', 'api', 'look'];
    const placeOf = (file: string): string =>
      path.relative(path.join(root, 'web/src'), file).split(path.sep)[0]!;
    for (const [file, found] of imports) {
      if (!file.startsWith(path.join(root, 'web/src')) || !shared.includes(placeOf(file))) continue;
      for (const other of found) expect([...shared, file], file).toContain(placeOf(other));
    }
  });
});
