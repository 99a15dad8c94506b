import { existsSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import { BUILT_IN } from '@gravek/library/movement/builtIn';
import { beforeAll, describe, expect, it } from 'vitest';

/** What a phone loads for each place, packed; the pages must be built (`npm run build`). */
const dist = path.resolve(import.meta.dirname, '../dist');

type Chunk = {
  file: string;
  isEntry?: boolean;
  imports?: string[];
  dynamicImports?: string[];
  css?: string[];
};

let manifest: Record<string, Chunk>;
/** what the first page asks for */
let door: string[];
beforeAll(() => {
  const file = path.join(dist, '.vite/manifest.json');
  if (!existsSync(file)) throw new Error('The pages are not built: npm run build');
  manifest = JSON.parse(readFileSync(file, 'utf8')) as Record<string, Chunk>;
  const page = readFileSync(path.join(dist, 'index.html'), 'utf8');
  const scripts = [...page.matchAll(/<script[^>]* src="\/([^"]+)"/g)].map(([, script]) => script!);
  expect(scripts.length).toBeGreaterThan(0);
  door = Object.keys(manifest).filter((name) => scripts.includes(manifest[name]!.file));
});

const packed = new Map<string, number>();
const kB = (files: Iterable<string>): number => {
  let sum = 0;
  for (const file of files) {
    const known = packed.get(file) ?? gzipSync(readFileSync(path.join(dist, file))).length;
    packed.set(file, known);
    sum += known;
  }
  return sum / 1_000;
};

/** Scripts and styles of some chunks with all that they import, each once. */
const loaded = (...names: string[]): { scripts: Set<string>; styles: Set<string> } => {
  const scripts = new Set<string>();
  const styles = new Set<string>();
  const take = (name: string): void => {
    const chunk = manifest[name];
    if (!chunk) throw new Error(`${name} is not in the build`);
    if (scripts.has(chunk.file)) return;
    scripts.add(chunk.file);
    for (const file of chunk.css ?? []) styles.add(file);
    for (const next of chunk.imports ?? []) take(next);
  };
  for (const name of names) take(name);
  return { scripts, styles };
};

const PLACES = 'src/app/Places.tsx';
const TODAY = 'src/today/Today.tsx';

/** What a place loads without a press beside what it begins with: one of these, as the plan is. */
const WAYS: Record<string, string[][]> = {
  'src/approaches/plan/Planner.tsx': [
    ['src/approaches/plan/RunUpParts.tsx'],
    ['src/approaches/plan/SequenceParts.tsx'],
  ],
};

/** Every place with what it loads without a press. */
const otherPlaces = (): string[][] => {
  const addresses = readFileSync(path.join(dist, '../src/app/addresses.ts'), 'utf8');
  const places = [...addresses.matchAll(/import\('\.\.\/([\w/]+)'\)/g)].map(
    ([, file]) => `src/${file}.tsx`,
  );
  expect(places.length).toBeGreaterThan(15);
  return places.flatMap((place) => (WAYS[place] ?? [[]]).map((parts) => [place, ...parts]));
};

/** How many movements a place shows at once, where that is not a few. */
const SHOWN: Record<string, number> = {
  'src/approaches/plan/Planner.tsx': 1,
  'src/film/FilmDesk.tsx': 1,
  'src/movements/Movements.tsx': BUILT_IN.length,
};
const USUALLY_SHOWN = 5;

const largestDocuments = (many: number): string[] =>
  BUILT_IN.map(({ code }) => {
    const [file] = readdirSync(path.join(dist, 'assets')).filter(
      (name) => name.startsWith(`${code}-`) && name.endsWith('.js'),
    );
    if (file === undefined) throw new Error(`${code} is not in the build by itself`);
    return `assets/${file}`;
  })
    .sort((a, b) => kB([b]) - kB([a]))
    .slice(0, many);

describe('a phone loads no more than', () => {
  it('110 kB of script and 30 kB of style before anybody has signed in', () => {
    const { scripts, styles } = loaded(...door);
    expect(kB(scripts)).toBeGreaterThan(60);
    expect(kB(scripts)).toBeLessThan(110);
    expect(kB(styles)).toBeLessThan(30);
  });

  it('220 kB of script for Today', () => {
    expect(kB(loaded(...door, PLACES, TODAY).scripts)).toBeLessThan(220);
  });

  it('300 kB of script for any other place, with the documents of movements that it shows', () => {
    const heavy = otherPlaces()
      .map((names) => {
        const documents = largestDocuments(SHOWN[names[0]!] ?? USUALLY_SHOWN);
        const scripts = [...loaded(...door, PLACES, ...names).scripts, ...documents];
        return [names.join(' with '), Math.round(kB(new Set(scripts)))] as const;
      })
      .filter(([, size]) => size > 300);
    expect(heavy).toEqual([]);
  });

  it('35 files for a place, the documents of movements aside', () => {
    const many = otherPlaces()
      .map(
        (names) => [names.join(' with '), loaded(...door, PLACES, ...names).scripts.size] as const,
      )
      .filter(([, files]) => files > 35);
    expect(many).toEqual([]);
    expect(loaded(...door, PLACES, TODAY).scripts.size).toBeLessThan(10);
  });

  it('130 kB for a worker, which has every movement in it', () => {
    const workers = readdirSync(path.join(dist, 'assets')).filter((name) =>
      /\.worker-[\w-]+\.js$/.test(name),
    );
    expect(workers.length).toBeGreaterThan(2);
    expect(
      workers
        .map((name) => [name, kB([`assets/${name}`])])
        .filter(([, size]) => Number(size) > 130),
    ).toEqual([]);
  });

  it('2.5 MB to work without a network, and no sound of a word before it is wanted', () => {
    const worker = readFileSync(path.join(dist, 'sw.js'), 'utf8');
    const files = [...worker.matchAll(/url: ?['"]([^'"]+)['"]|"url": ?"([^"]+)"/g)].map(
      (found) => found[1] ?? found[2]!,
    );
    expect(files.length).toBeGreaterThan(50);
    expect(files.filter((file) => file.endsWith('.wav'))).toEqual([]);
    expect(kB(files)).toBeLessThan(2_500);
  });
});
