import { CLUB_LISTS, clubFileHead, type ClubList } from '@gravek/contract/clubFile';
import { JSONParser, TokenType, type ParsedTokenInfo } from '@streamparser/json';
import { StartFault } from '../startFault';
import { refusal } from './refusal';

/** Items that are looked at before others get their turn. */
export const AT_A_TIME = 500;
/** Bytes that are taken apart before others get their turn. */
const SLICE = 16_000;
/** Bytes of the longest thing in a list; a movement may have 400,000, a plan of a thousand athletes as many. */
const ITEM_MAX = 2_000_000;
/** Lists in things in lists; a movement goes to eleven. */
const DEEPEST = 40;

type Head = keyof typeof clubFileHead.fields;
const HEAD = Object.keys(clubFileHead.fields) as Head[];
const LISTS = Object.keys(CLUB_LISTS) as ClubList[];

/** Something that a club file says of itself, or some items of a list, at most `AT_A_TIME` of them. */
export type Part =
  { head: Head; value: unknown } | { list: ClubList; from: number; items: unknown[] };

const OPENS = new Set<TokenType>([TokenType.LEFT_BRACE, TokenType.LEFT_BRACKET]);
const CLOSES = new Set<TokenType>([TokenType.RIGHT_BRACE, TokenType.RIGHT_BRACKET]);

/**
 * Looks at how a file is laid out while it is taken apart.
 *
 * @returns what hears of each token, and what says where in the file it is
 */
const layout = () => {
  let depth = 0;
  let key = '';
  let isKey = false;
  const seen = new Set<string>();
  const begins = (token: TokenType): void => {
    if (depth === 0 && token !== TokenType.LEFT_BRACE) {
      throw refusal({ '': 'A club file is one object, with the lists of the club in it.' });
    }
    if (depth !== 1) return;
    if (seen.has(key)) throw refusal({ [key]: 'It stands in the file twice.' });
    seen.add(key);
    if (LISTS.some((list) => list === key) && token !== TokenType.LEFT_BRACKET) {
      throw refusal({ [key]: 'This must be a list.' });
    }
  };
  return {
    seen,
    depth: () => depth,
    key: () => key,
    hear: ({ token, value }: ParsedTokenInfo): void => {
      if (CLOSES.has(token)) {
        depth -= 1;
      } else if (token === TokenType.COMMA) {
        isKey = depth === 1;
      } else if (isKey) {
        isKey = false;
        key = String(value);
      } else if (token !== TokenType.COLON) {
        begins(token);
        if (!OPENS.has(token)) return;
        depth += 1;
        isKey = depth === 1;
        if (depth > DEEPEST) throw refusal({ [key]: 'That is nested too deep to be read.' });
      }
    },
  };
};

/** @throws {StartFault} where the parser stumbles: over what is no JSON, or not even text */
const asJson = (parse: () => void): void => {
  try {
    parse();
  } catch (error) {
    if (error instanceof StartFault) throw error;
    throw new StartFault('This is not a club file: it cannot be read as JSON.');
  }
};

/**
 * Takes a club file apart as it comes: in the order of the file, never more than a little of it at once.
 *
 * @param source bytes of the file, in pieces of any size
 * @throws {StartFault} when it is no JSON, a list is too long or is none, or something in it is too long
 * @example
 * for await (const part of partsOf(createReadStream('club.json'))) …
 * // { head: 'format', value: 'gravek-club' }, …, { list: 'athletes', from: 0, items: [{ id: … }] }, …
 */
export async function* partsOf(source: AsyncIterable<Uint8Array>): AsyncGenerator<Part> {
  const parser = new JSONParser({
    paths: [...HEAD.map((key) => `$.${key}`), ...LISTS.map((key) => `$.${key}.*`)],
    keepStack: false,
  });
  const counts = new Map<ClubList, number>();
  const place = layout();
  let fed = 0;
  let whole = 0;
  let waiting: Part[] = [];
  parser.onToken = (token) => {
    place.hear(token);
    if (place.depth() <= 2) whole = fed;
  };
  parser.onValue = ({ value, stack }) => {
    const list = LISTS.find((name) => name === place.key());
    if (stack.length < 2 || !list) {
      waiting.push({ head: place.key() as Head, value });
      return;
    }
    const i = counts.get(list) ?? 0;
    const { most } = CLUB_LISTS[list];
    if (i >= most) throw refusal({ [list]: `At most ${most} of them are read.` });
    counts.set(list, i + 1);
    const last = waiting.at(-1);
    if (last && 'list' in last && last.list === list && last.items.length < AT_A_TIME) {
      last.items.push(value);
    } else {
      waiting.push({ list, from: i, items: [value] });
    }
  };
  for await (const piece of source) {
    for (let i = 0; i < piece.length; i += SLICE) {
      const slice = piece.subarray(i, i + SLICE);
      asJson(() => parser.write(slice));
      fed += slice.length;
      if (fed - whole > ITEM_MAX) {
        throw refusal({ [place.key()]: `Something in it is longer than ${ITEM_MAX / 1e6} MB.` });
      }
      yield* waiting;
      waiting = [];
    }
  }
  asJson(() => {
    if (!parser.isEnded) parser.end();
  });
  const missing = LISTS.flatMap((list) => {
    const { missing: said } = CLUB_LISTS[list];
    return said === null || place.seen.has(list) ? [] : [[list, said]];
  });
  if (missing.length > 0) throw refusal(Object.fromEntries(missing) as Record<string, string>);
}
