import { createHash } from 'node:crypto';
import { mkdtemp, open, rm, type FileHandle } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import {
  CLUB_LISTS,
  clubFileHead,
  type ClubFile,
  type ClubItem,
  type ClubList,
} from '@gravek/contract/clubFile';
import { check } from '@gravek/contract/problem';
import { AT_A_TIME, partsOf, type Part } from './parts';
import { refusal } from './refusal';
import { upgrader } from './upgrade';

/** A file that nobody else sees: its name is gone at once, and it goes with whoever holds it. */
export const unnamedFile = async (): Promise<FileHandle> => {
  const folder = await mkdtemp(path.join(tmpdir(), 'gravek-'));
  try {
    return await open(path.join(folder, 'part'), 'wx+', 0o600);
  } finally {
    await rm(folder, { recursive: true });
  }
};

/** Bytes that are gathered before they are put away. */
const GATHERED = 500_000;
/** In front of each piece of a list stands how long it is. */
const LENGTH_BYTES = 4;

/** A list on disk: written in pieces, read in the same pieces. */
const listOnDisk = () => {
  let file: FileHandle | undefined;
  let texts: string[] = [];
  let gathered = 0;
  const putAway = async (): Promise<void> => {
    if (texts.length === 0) return;
    file ??= await unnamedFile();
    const piece = Buffer.from(`[${texts.join(',')}]`);
    const length = Buffer.alloc(LENGTH_BYTES);
    length.writeUInt32BE(piece.length);
    await file.appendFile(Buffer.concat([length, piece]));
    texts = [];
    gathered = 0;
  };
  return {
    add: async (item: unknown): Promise<void> => {
      const text = JSON.stringify(item);
      texts.push(text);
      gathered += text.length;
      if (texts.length >= AT_A_TIME || gathered >= GATHERED) await putAway();
    },
    putAway,
    async *read(): AsyncGenerator<unknown[]> {
      if (!file) return;
      for (let at = 0; ;) {
        const length = Buffer.alloc(LENGTH_BYTES);
        if ((await file.read(length, 0, LENGTH_BYTES, at)).bytesRead === 0) return;
        const piece = Buffer.alloc(length.readUInt32BE());
        await file.read(piece, 0, piece.length, at + LENGTH_BYTES);
        at += LENGTH_BYTES + piece.length;
        yield JSON.parse(piece.toString()) as unknown[];
      }
    },
    close: async (): Promise<void> => file?.close(),
  };
};

/** A club file that has been looked at, list by list, on disk. */
export type Spool = {
  head: Pick<ClubFile, 'format' | 'version' | 'clubId' | 'club'>;
  /** what tells this file from others */
  mark: string;
  /** items of all lists */
  items: number;
  /** a list from its beginning, at most `AT_A_TIME` of it at once */
  read: <L extends ClubList>(list: L) => AsyncGenerator<{ from: number; items: ClubItem<L>[] }>;
  close: () => Promise<void>;
};

/** @throws {StartFault} naming what is wrong with what the file says of itself */
const checkedHead = (head: Record<string, unknown>, keys?: string[]): Spool['head'] => {
  const checked = check((keys ? clubFileHead.pick(keys as never) : clubFileHead) as never, head);
  if (!checked.ok) throw refusal(checked.fields);
  return checked.value;
};

/** Items as they are kept; what is wrong with those of a part is said together. */
const checkedItems = (
  { list, from, items }: Extract<Part, { list: ClubList }>,
  upgraded: ReturnType<typeof upgrader>,
): unknown[] => {
  const wrong: Record<string, string> = {};
  const good = items.map((item, k) => {
    const i = from + k;
    const checked = check(CLUB_LISTS[list].item, upgraded(list, item, i));
    if (checked.ok) return checked.value as unknown;
    for (const [field, why] of Object.entries(checked.fields)) {
      wrong[`${list}[${i}]${field && `.${field}`}`] = why;
    }
    return null;
  });
  if (Object.keys(wrong).length > 0) throw refusal(wrong);
  return good;
};

/**
 * Reads a club file as it comes and looks at each item by itself. What is held in memory does not grow with
 * the file: the lists are put away on disk, in files that go with this process.
 *
 * @param source bytes of the file
 * @param heard is told how many bytes have been read
 * @throws {StartFault} when it cannot be read, naming the first places that are wrong
 * @example
 * const spool = await spooled(createReadStream('club.json'));
 * for await (const { from, items } of spool.read('athletes')) … // from: place of the first in the list
 */
export const spooled = async (
  source: AsyncIterable<Uint8Array>,
  heard: (bytes: number) => void = () => undefined,
): Promise<Spool> => {
  const names = Object.keys(CLUB_LISTS) as ClubList[];
  const lists = new Map(names.map((name) => [name, listOnDisk()]));
  const close = async (): Promise<void> => {
    for (const list of lists.values()) await list.close();
  };
  const hash = createHash('sha256');
  let bytes = 0;
  async function* marked(): AsyncGenerator<Uint8Array> {
    for await (const piece of source) {
      hash.update(piece);
      yield piece;
      bytes += piece.length;
      heard(bytes);
    }
  }
  try {
    const head: Record<string, unknown> = {};
    let upgraded: ReturnType<typeof upgrader> | undefined;
    let count = 0;
    let owners = 0;
    for await (const part of partsOf(marked())) {
      if ('head' in part) {
        head[part.head] = part.value;
        checkedHead(head, [part.head]);
        if (part.head === 'version' && upgraded && Number(part.value) <= 3) {
          throw refusal({ version: 'A file of an older version says its version first.' });
        }
        continue;
      }
      upgraded ??= upgrader(Number(head.version ?? Infinity), head.clubId);
      const { list } = part;
      for (const item of checkedItems(part, upgraded)) {
        if (list === 'people' && (item as ClubItem<'people'>).role === 'owner') owners += 1;
        await lists.get(list)!.add(item);
      }
      count += part.items.length;
    }
    const whole = checkedHead(head);
    if (owners === 0) {
      throw refusal({ people: 'None of them is an owner, so nobody could change the club.' });
    }
    for (const list of lists.values()) await list.putAway();
    return {
      head: whole,
      mark: hash.digest('hex'),
      items: count,
      async *read<L extends ClubList>(name: L) {
        let from = 0;
        for await (const items of lists.get(name)!.read()) {
          yield { from, items: items as ClubItem<L>[] };
          from += items.length;
        }
      },
      close,
    };
  } catch (error) {
    await close();
    throw error;
  }
};
