import type { Movement } from '@gravek/contract/movement';
import MiniSearch from 'minisearch';
import { drillOf } from './byCode';

export type HitKind =
  | 'movement'
  | 'called'
  | 'position'
  | 'situation'
  | 'phase'
  | 'exit'
  | 'fault'
  | 'drill'
  | 'school';

/** One place of a movement where the words were found. */
export type Hit = { kind: HitKind; code: string; name: string; text: string };

export type Found = {
  movement: Movement;
  /** best first, at most three */
  hits: Hit[];
  /** for a fault that was found: the drills against it */
  drills: string[];
};

/** `shown`: by what it is named where its own words are only what people say. */
type Entry = Hit & { id: string; movement: string; shown?: string };

const STOP = new Set(
  'a an the and or of to in on at for from with by is are be his her their my he she they it as that this when who not no'.split(
    ' ',
  ),
);

/** Words without their endings, so that stops, stopped and stopping meet. */
const stem = (term: string): string | null => {
  const word = term.toLowerCase();
  if (STOP.has(word)) return null;
  if (word.length < 5) return word.replace(/([^s])s$/, '$1');
  return word.replace(/(ing|ed|es|s)$/, '').replace(/([bdfgklmnprt])\1$/, '$1');
};

const entriesOf = (movement: Movement): Entry[] => {
  const entry = (kind: HitKind, code: string, name: string, text: string): Entry => ({
    id: `${movement.code}/${kind}/${code}`,
    movement: movement.code,
    kind,
    code,
    name,
    text,
  });
  return [
    entry('movement', movement.code, movement.name, movement.summary),
    ...movement.usedBy.map((position) => entry('position', position, position, '')),
    ...(movement.alsoCalled ?? []).map((called) => entry('called', called, called, '')),
    ...movement.faces.map((face) => entry('situation', face, face, '')),
    ...movement.phases.map((phase) =>
      entry(
        'phase',
        phase.code,
        phase.name,
        phase.checkpoints.map((checkpoint) => `${checkpoint.look}: ${checkpoint.right}`).join('. '),
      ),
    ),
    ...movement.phases.flatMap((phase) =>
      (phase.read?.options ?? []).map((option) =>
        entry('exit', `${phase.code}.${option.code}`, option.name, option.when),
      ),
    ),
    ...movement.faults.map((fault) =>
      entry('fault', fault.code, fault.name, `${fault.sees} ${fault.cue}`),
    ),
    ...movement.faults.flatMap((fault) =>
      (fault.alsoCalled ?? []).map((called) => ({
        ...entry('fault', fault.code, called, ''),
        id: `${movement.code}/fault/${fault.code}/${called}`,
        shown: fault.name,
      })),
    ),
    ...movement.drills.map((drill) => entry('drill', drill.code, drill.name, drill.how)),
    ...movement.schools.map((school) =>
      entry(
        'school',
        school.code,
        school.question,
        school.options.map((option) => `${option.name}. ${option.reason}`).join(' '),
      ),
    ),
  ];
};

/** What a coach looks for first weighs most: a fault that is seen, a position, a movement's name. */
const WEIGHT: Record<HitKind, number> = {
  movement: 1.3,
  called: 1.6,
  position: 1.4,
  situation: 1.4,
  fault: 1.3,
  drill: 1,
  phase: 0.8,
  exit: 1.1,
  school: 0.8,
};

export type Search = (words: string) => Found[];

/** More than these nobody reads. */
const MOST_FOUND = 5;
/** Of an entry whose name is just what was typed, and of one whose name begins so. */
const EXACT = 40;

/** What coaches look for that is no movement here: what is said, and what is nearest. */
const ELSEWHERE: readonly { words: RegExp; says: string; nearest: string }[] = [
  {
    words: /\bscreen(s|ing)?\b/i,
    says: 'A screen by a teammate has no movement of its own here. Nearest is how one slides round it and closes out.',
    nearest: 'slide-close-out',
  },
];

/**
 * What is said where words mean something that is no movement here; null for all others.
 *
 * @example nothingFor('jab') // null: there is something for it
 */
export const nothingFor = (words: string): string | null =>
  ELSEWHERE.find((place) => place.words.test(words))?.says ?? null;

/** A name without what is typed now one way and now another. */
const plain = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[’'“”"()]/g, '')
    .replace(/[\s–-]+/g, ' ')
    .trim();

/**
 * A search over everything the movements say, by what the coach has in mind: a position, what the
 * athlete faces, what goes wrong.
 *
 * @returns a function from words to movements, best first and five at most; all of them for no words
 * @example
 * searchIn(Object.values({ giveGround, gaps }))('backpedal')[0].movement.code // 'give-ground'
 */
export const searchIn = (movements: readonly Movement[]): Search => {
  const index = new MiniSearch<Entry>({
    fields: ['name', 'text'],
    storeFields: ['movement', 'kind', 'code', 'name', 'text', 'shown'],
    processTerm: stem,
    searchOptions: {
      boost: { name: 2 },
      prefix: (term) => term.length > 2,
      fuzzy: (term) => (term.length > 4 ? 0.2 : false),
      boostDocument: (_id, _term, stored) => WEIGHT[stored!.kind as HitKind],
    },
  });
  index.addAll(movements.flatMap(entriesOf));
  return (words) => {
    if (words.trim() === '')
      return movements.map((movement) => ({ movement, hits: [], drills: [] }));
    const elsewhere = ELSEWHERE.find((place) => place.words.test(words));
    if (elsewhere) {
      return movements
        .filter(({ code }) => code === elsewhere.nearest)
        .map((movement) => ({ movement, hits: [], drills: [] }));
    }
    const typed = plain(words);
    const askedStems = words.split(/\s+/).map(stem).filter(Boolean).length;
    const grouped = new Map<string, { score: number; hits: (Hit & { score: number })[] }>();
    for (const result of index.search(words)) {
      // An entry that holds all the words beats one that holds a single rare word.
      const share = new Set(result.queryTerms).size / Math.max(1, askedStems);
      const { kind, code, name, text, movement, shown } = result as unknown as Entry;
      const score = result.score * share * (plain(name) === typed ? EXACT : 1);
      const group = grouped.get(movement) ?? { score: 0, hits: [] };
      grouped.set(movement, group);
      group.score = Math.max(group.score, score);
      group.hits.push({ kind, code, name: shown ?? name, text, score });
    }
    return [...grouped]
      .sort((a, b) => b[1].score - a[1].score)
      .slice(0, MOST_FOUND)
      .map(([code, group]): Found => {
        const hits = group.hits
          .sort((a, b) => b.score - a.score)
          .filter(
            (hit, i, all) =>
              all.findIndex((earlier) => earlier.kind === hit.kind && earlier.code === hit.code) ===
              i,
          )
          .map(({ score: _, ...hit }) => hit);
        const movement = movements.find((movement) => movement.code === code)!;
        const fault = hits.slice(0, 3).find((hit) => hit.kind === 'fault');
        const drills = movement.faults.find((other) => other.code === fault?.code)?.drills ?? [];
        return {
          movement,
          hits: hits.slice(0, 3),
          drills: drills.map((drill) => drillOf(movement, drill)?.name ?? drill),
        };
      });
  };
};
