import { Readable } from 'node:stream';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import type { Restoring } from '@gravek/contract/archive';
import { CLUB_LISTS } from '@gravek/contract/clubFile';
import fc from 'fast-check';
import { pino } from 'pino';
import { v7 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { longClubFile } from '../bench/clubFile';
import { loadClubFile } from '../src/clubFile/load';
import { AT_A_TIME, partsOf, type Part } from '../src/clubFile/parts';
import { restorer } from '../src/clubFile/restoring';
import { spooled, unnamedFile } from '../src/clubFile/spool';
import { coachIn, openStage, until, type Coach, type Stage } from './setup';

/** Club files of any size and shape, read as they come; and what goes wrong while one is read in. */

let stage: Stage;
beforeAll(async () => (stage = await openStage()));
afterAll(() => stage.close());

const partsFrom = async (pieces: Iterable<Buffer>): Promise<Part[]> => {
  const found: Part[] = [];
  for await (const part of partsOf(Readable.from(pieces))) found.push(part);
  return found;
};

const LISTS = Object.keys(CLUB_LISTS);
const EMPTY = Object.fromEntries(LISTS.map((list) => [list, []]));

describe('a club file is taken apart', () => {
  it('into what it holds, wherever it is cut, a few items at once', async () => {
    const value = fc.jsonValue({ maxDepth: 3 });
    const file = fc.record({
      format: fc.string({ unit: 'binary' }),
      version: fc.nat(9),
      club: fc.dictionary(fc.string(), value),
      trials: fc.array(value, { maxLength: 20 }),
      athletes: fc.array(fc.nat(), { maxLength: 1_200, size: 'max' }),
      other: value,
    });
    await fc.assert(
      fc.asyncProperty(file, fc.integer({ min: 1, max: 40_000 }), async (given, at) => {
        const bytes = Buffer.from(JSON.stringify({ ...EMPTY, ...given }));
        const pieces = [];
        for (let i = 0; i < bytes.length; i += at) pieces.push(bytes.subarray(i, i + at));
        const found: Record<string, unknown> = {};
        for (const part of await partsFrom(pieces)) {
          if ('head' in part) {
            found[part.head] = part.value;
            continue;
          }
          expect(part.items.length).toBeLessThanOrEqual(AT_A_TIME);
          const list = (found[part.list] ??= []) as unknown[];
          expect(part.from).toBe(list.length);
          list.push(...part.items);
        }
        const { other: _, ...read } = JSON.parse(bytes.toString()) as Record<string, unknown>;
        for (const list of LISTS) found[list] ??= [];
        expect(found).toEqual(read);
      }),
      { numRuns: 60, endOnFailure: true },
    );
  });

  const nothing = (piece: string) =>
    function* (): Generator<Buffer> {
      const some = Buffer.from(piece.repeat(Math.ceil(100_000 / piece.length)));
      for (let i = 0; i < 900; i += 1) yield some;
    };
  it.each<[what: string, said: string, begin: string, rest: () => Iterable<Buffer>]>([
    ['things without anything', 'reps[0]', '{"reps":[{}', nothing(',{}')],
    ['people without anything', 'people[0]', '{"people":[{}', nothing(',{}')],
    ['a list in a list in a list', 'too deep', '{"reps":', nothing('[')],
    ['things in things', 'too deep', '{"club":', nothing('{"a":')],
    ['letters', 'longer than 2 MB', '{"format":"', nothing('a')],
    ['letters in a key', 'longer than 2 MB', '{"reps":[{"', nothing('a')],
    ['digits', 'longer than 2 MB', '{"version":1', nothing('0')],
    ['spaces', 'longer than 2 MB', '{"reps":[{', nothing(' ')],
    ['one thing without an end', 'longer than 2 MB', '{"reps":[{"faults":[0', nothing(',0')],
    ['what nobody knows', 'longer than 2 MB', '{"else":{"a":[0', nothing(',[0]')],
    ['bytes that are no text', 'as JSON', '{"format":"', nothing('\u0000')],
    ['what stands there twice', 'twice', '{"reps":[],"reps":[],"x":"', nothing('a')],
    ['what comes after its end', 'as JSON', JSON.stringify(EMPTY), nothing('{}')],
  ])('90 MB of %s are refused before they are read', async (_what, said, begin, rest) => {
    let read = 0;
    function* counted(): Generator<Buffer> {
      yield Buffer.from(begin);
      for (const piece of rest()) {
        read += piece.length;
        yield piece;
      }
    }
    await expect(spooled(Readable.from(counted(), { highWaterMark: 1 }))).rejects.toThrow(said);
    expect(read).toBeLessThan(2_500_000);
  });

  /** Bytes that cannot be let go of, at most, while something is done with a file of a size. */
  const mostHeld = async (
    megabytes: number,
    work: (file: AsyncIterable<Buffer>) => Promise<unknown>,
  ): Promise<number> => {
    setFlagsFromString('--expose-gc');
    const collect = runInNewContext('gc') as () => void;
    let most = 0;
    let next = 0;
    const look = (): void => {
      collect();
      const { heapUsed, external } = process.memoryUsage();
      most = Math.max(most, heapUsed + external);
    };
    async function* watched(): AsyncGenerator<Buffer> {
      for await (const piece of longClubFile(megabytes * 1e6)) {
        yield piece;
        next -= piece.length;
        if (next > 0) continue;
        next = 500_000;
        look();
      }
    }
    // A part that is counted is held for half a second or so: seldom looks would miss it in a short file.
    const looking = setInterval(look, 200);
    await work(watched());
    clearInterval(looking);
    return most;
  };

  /** What is compiled and kept at the first use is not of the file. */
  const growth = async (few: number, many: number, work: Parameters<typeof mostHeld>[1]) => {
    await mostHeld(few / 10, work);
    return (await mostHeld(many, work)) - (await mostHeld(few, work));
  };

  it('and what is held of it does not grow with the file', async () => {
    const grown = await growth(0.5, 3, async (file) => (await spooled(file)).close());
    expect(grown / 1e6).toBeLessThan(1.5);
  });

  it.runIf(process.env.GRAVEK_LONG)(
    'nor while it is stored and counted: 20 MB and 100 MB take the same',
    async () => {
      const grown = await growth(20, 100, (file) => loadClubFile(stage.db, file));
      expect(grown / 1e6).toBeLessThan(4);
    },
    1_200_000,
  );
});

describe('while an archive is read in', () => {
  const PROGRAM = new URL('../dist/readIn.mjs', import.meta.url);
  const log = pino({ level: 'silent' });
  const told: string[] = [];
  const reading = (program = PROGRAM, mostMs = 60_000) =>
    restorer({
      ...{ db: stage.db, databaseUrl: stage.appUrl, log, program, mostMs },
      tell: (_club, topic) => void told.push(topic),
    });
  const whoOf = ({ clubId, accountId }: Coach) => ({ clubId, accountId });
  const fileOf = async (pieces: AsyncIterable<Buffer>) => {
    const file = await unnamedFile();
    let bytes = 0;
    for await (const piece of pieces) {
      await file.appendFile(piece);
      bytes += piece.length;
    }
    return { file, bytes };
  };
  const last = async (coach: Coach) =>
    ((await coach.get('/archive/restoring').expect(200)).body as { last: Restoring | null }).last;
  const state = async (coach: Coach) => (await last(coach))?.state;
  const isEmpty = async (coach: Coach) =>
    ((await coach.get('/athletes').expect(200)).body as { items: unknown[] }).items.length === 0;

  it('its club and others are answered, and nobody reads a second one into it', async () => {
    const coach = await coachIn(stage);
    const archives = reading();
    expect(await last(coach)).toBeNull();
    await archives.begin({ who: whoOf(coach), ...(await fileOf(longClubFile(2e6))) });
    await until(async () => (await state(coach)) !== 'waits');
    const again = await fileOf(longClubFile(1e3));
    await expect(archives.begin({ who: whoOf(coach), ...again })).rejects.toThrow('just now');
    await again.file.close();
    const other = await coachIn(stage);
    await archives.begin({ who: whoOf(other), ...(await fileOf(longClubFile(1e3))) });
    expect(await state(other)).toBe('waits');
    const seen = new Set<string>();
    await until(async () => {
      const now = (await last(coach))!;
      expect(now.done).toBeLessThanOrEqual(now.total);
      seen.add(now.state);
      return now.state === 'done';
    });
    expect(seen).toContain('checks');
    await until(async () => (await state(other)) === 'done');
    expect(told).toContain('athletes');
    expect(await isEmpty(other)).toBe(false);
    await archives.stop();
  });

  it('a server that stops says so, and nothing of it stays', async () => {
    const [coach, waits] = [await coachIn(stage), await coachIn(stage)];
    const archives = reading();
    await archives.begin({ who: whoOf(coach), ...(await fileOf(longClubFile(3e6))) });
    await archives.begin({ who: whoOf(waits), ...(await fileOf(longClubFile(1e3))) });
    await until(async () => (await state(coach)) !== 'waits');
    await archives.stop();
    for (const other of [coach, waits]) {
      expect((await last(other))!.said).toContain('server was stopped');
      expect(await isEmpty(other)).toBe(true);
    }
    const anew = reading();
    await anew.begin({ who: whoOf(coach), ...(await fileOf(longClubFile(1e3))) });
    await until(async () => (await state(coach)) === 'done');
    await anew.stop();
  });

  it('a server that is gone without a word is known by its silence', async () => {
    const coach = await coachIn(stage);
    await stage.owner
      .insertInto('restoring')
      .values({
        club_id: coach.clubId,
        id: uuid(),
        state: 'stores',
        seen_at: new Date(Date.now() - 60_000),
      })
      .execute();
    expect(await state(coach)).toBe('stopped');
    const archives = reading();
    await archives.begin({ who: whoOf(coach), ...(await fileOf(longClubFile(1e3))) });
    await until(async () => (await state(coach)) === 'done');
    await archives.stop();
  });

  const thread = (text: string) => new URL(`data:text/javascript,${encodeURIComponent(text)}`);
  it.each([
    ['takes too long', 'half an hour', () => reading(PROGRAM, 1)],
    [
      'takes too much',
      'memory',
      () => reading(thread('const a = []; for (;;) a.push(Array(1e5).fill(0))')),
    ],
    ['breaks', 'went wrong', () => reading(thread('throw new Error("unforeseen")'))],
  ])('one that %s is given up, and the next is read', async (_what, said, begin) => {
    const coach = await coachIn(stage);
    const archives = begin();
    for (const _time of [1, 2]) {
      await archives.begin({ who: whoOf(coach), ...(await fileOf(longClubFile(1e6))) });
      await until(async () => (await state(coach)) === 'refused');
      expect((await last(coach))!.said).toContain(said);
    }
    expect(await isEmpty(coach)).toBe(true);
    await archives.stop();
  });

  it('only some wait, and each is told that a stop has ended it', async () => {
    const archives = reading(thread('setInterval(() => undefined, 1e3)'));
    const coaches = await Promise.all(Array.from({ length: 5 }, () => coachIn(stage)));
    for (const coach of coaches) {
      expect(archives.isFull()).toBe(false);
      await archives.begin({ who: whoOf(coach), ...(await fileOf(longClubFile(1e3))) });
    }
    expect(archives.isFull()).toBe(true);
    await archives.stop();
    for (const coach of coaches) expect((await last(coach))!.said).toContain('server was stopped');
  });

  it('whoever is no owner any more changes nothing', async () => {
    const coach = await coachIn(stage);
    const { membership } = { membership: stage.owner.updateTable('membership') };
    await membership.set({ role: 'coach' }).where('account_id', '=', coach.accountId).execute();
    const archives = reading();
    await archives.begin({ who: whoOf(coach), ...(await fileOf(longClubFile(1e3))) });
    const row = stage.owner.selectFrom('restoring').selectAll().where('club_id', '=', coach.clubId);
    await until(async () => (await row.executeTakeFirst())?.state === 'refused');
    expect((await row.executeTakeFirst())!.said).toContain('Only an owner');
    expect(await isEmpty(coach)).toBe(true);
    await archives.stop();
  });
});
