import type { Foot } from '@gravek/core/feet';
import { layOut } from '@gravek/core/layout/layOut';
import type { OtherThing } from '@gravek/core/layout/otherThings';
import type { Fault, Movement, MovementPhase } from '@gravek/contract/movement';
import endings from '../../data/endings.json';
import moves from '../../data/moves.json';
import { joined, JOINT, type Link, RIGHT_HANDED, USUAL } from './chainJoints';

export type Move = Link & {
  /** from a catch with the pivot foot down, or on the dribble */
  begins: 'catch' | 'dribble';
};

export type ChainEnding = Link & {
  /** what the ball must be doing */
  needs: 'dribbled' | 'either';
  /** the foot that lands first; null: either, the others follow from it */
  first: Foot | null;
  /** the phase that is left out when the ball is in hand and both feet are down already */
  skipsHeld: string | null;
  others: OtherThing[];
};

export const MOVES = moves as unknown as readonly Move[];
export const ENDINGS = endings as unknown as readonly ChainEnding[];

/** A name and a summary are no longer than those of any movement. */
const MOST_NAMED = 60;
const MOST_SUMMED = 300;
/** More moves than this before an ending nobody makes. */
const MOST_MOVES = 8;

/**
 * The code under which a chain is planned, drilled and logged: the codes of its parts, in order.
 *
 * @example chainCode(['jab-cross', 'floater']) // 'jab-cross--floater'
 */
export const chainCode = (parts: readonly string[]): string => parts.join(JOINT);

/**
 * @example isChain('jab-cross--floater') // true
 */
export const isChain = (code: string): boolean => code.includes(JOINT);

/** Each part alone, then both joined. */
const drillsOf = (first: Move, ending: ChainEnding, phases: readonly MovementPhase[]) => {
  const firstCodes = new Set(first.phases.map((phase) => phase.code));
  const lastOwn = phases.findLast((phase) => firstCodes.has(phase.code))!.code;
  const ends = phases.filter((phase) => ending.phases.some((other) => other.code === phase.code));
  const drill = { force: null, speedFraction: 1 };
  return [
    {
      ...drill,
      code: 'move-alone',
      name: `${first.name}, alone`,
      how: 'Shown once at speed, once slowly; then a few of each side without an ending, the last still.',
      part: { kind: 'phases' as const, from: phases[0]!.code, to: lastOwn },
      rungs: ['stand', 'walk', 'half', 'full', 'object'] as const,
    },
    {
      ...drill,
      code: 'ending-alone',
      name: `${ending.name}, alone`,
      how: 'The ending by itself from where the move would leave it; three to six makes of each side.',
      part: { kind: 'phases' as const, from: ends[0]!.code, to: ends.at(-1)!.code },
      rungs: ['walk', 'half', 'full', 'object'] as const,
    },
    {
      ...drill,
      code: 'whole-chain',
      name: 'Joined',
      how: 'Both in one, at half and then at game speed; then against somebody who knows only one of the two.',
      part: { kind: 'all' as const },
      rungs: ['half', 'full', 'object', 'opponent'] as const,
    },
  ];
};

export type Chain = { movement: Movement; joins: string[] };

const cache = new Map<string, Chain | { why: string }>();

/** A link whose phases have codes of their own where the chain has it a second time. */
const again = <L extends Link>(link: L, turn: number): L => {
  if (turn === 1) return link;
  const codes = new Map(link.phases.map(({ code }) => [code, `${code}-${turn}`]));
  return {
    ...link,
    phases: link.phases.map((phase) => ({ ...phase, code: codes.get(phase.code)! })),
    faults: link.faults.map((fault) => ({
      ...fault,
      phases: fault.phases.map((code) => codes.get(code) ?? code),
    })),
  };
};

/** The same faults of links that come twice are one, seen in all their phases. */
const faultsOf = (links: readonly Link[], phases: readonly MovementPhase[]): Fault[] => {
  const laid = new Set(phases.map((phase) => phase.code));
  const found = new Map<string, Fault>();
  for (const fault of links.flatMap((link) => link.faults)) {
    const shown = fault.phases.filter((code) => laid.has(code));
    const before = found.get(fault.code);
    if (before) {
      found.set(fault.code, { ...before, phases: [...new Set([...before.phases, ...shown])] });
    } else if (shown.length > 0) found.set(fault.code, { ...fault, phases: shown });
  }
  return [...found.values()];
};

const spot = (
  code: string,
  [outM, besideM]: [number, number],
  [goalOutM, goalBesideM]: [number, number],
) => ({
  ...{ code, name: code, outM, besideM, faceDeg: 0 },
  onGoal: { outM: goalOutM, besideM: goalBesideM },
});
/** Where chains begin, from the end line before a rim and from the line of a goal, metres. */
const CHAIN_SPOTS = [
  spot('arc', [8.35, 0], [9, 0]),
  spot('wing', [6.37, 4.77], [7, 5]),
  spot('elbow', [5.8, 2.45], [7, 2.2]),
  spot('corner', [1.9, 6.6], [2.5, 7.5]),
  spot('short', [2.6, 1.7], [6, 1.5]),
];

/** From the last foot to the goal: under it, or a jump shot away, metres. */
const TO_GOAL_M = { under: 1.2, shot: 4 };
/** Endings that shoot from where they stop. */
const SHOTS = new Set(['two-foot-stop', 'one-two-stop', 'lean-away', 'pass']);
const DEFENDER = { aheadM: 1.5, asideM: 0.6 };

/** The goal where the chain ends, and the defender whom it goes past. */
const placed = (ending: ChainEnding, phases: readonly MovementPhase[]): OtherThing[] => {
  const { track } = layOut({ writtenFor: RIGHT_HANDED, phases, others: [] }, USUAL);
  const beside = track.find((point) => point.aheadM >= DEFENDER.aheadM);
  const metres = (value: number) => ({ value, of: 'm' as const });
  return [
    ...ending.others,
    {
      kind: 'goal',
      name: 'goal',
      from: 'end',
      ahead: metres(SHOTS.has(ending.code) ? TO_GOAL_M.shot : TO_GOAL_M.under),
      aside: metres(0),
      to: 'right',
      wideM: 1.8,
      moves: null,
    },
    {
      kind: 'opponent',
      name: 'defender',
      from: 'start',
      ahead: metres(DEFENDER.aheadM),
      // Who goes past does so on the other side.
      aside: metres(beside ? DEFENDER.asideM : 0),
      to: beside && beside.besideM > 0 ? 'left' : 'right',
      wideM: 0,
      moves: null,
    },
  ];
};

const composed = (parts: readonly string[]): Chain | { why: string } => {
  const ending = ENDINGS.find((ending) => ending.code === parts.at(-1));
  const moves = parts.slice(0, -1).map((code) => MOVES.find((move) => move.code === code));
  if (!ending || moves.length === 0 || moves.some((move) => !move)) {
    return { why: 'A chain is one move or more, and an ending.' };
  }
  if (moves.length > MOST_MOVES) return { why: `At most ${MOST_MOVES} moves before the ending.` };
  const chosen = (moves as Move[]).map((move, i, all) =>
    again(move, all.slice(0, i + 1).filter(({ code }) => code === move.code).length),
  );
  if (chosen.some((move, i) => i > 0 && move.code === chosen[i - 1]!.code)) {
    return { why: 'The same move twice in a row is one move.' };
  }
  const [first, ...then] = chosen as [Move, ...Move[]];
  let phases: MovementPhase[] = first.phases;
  const joins: string[] = [];
  /** Puts a link on, or says why it cannot follow what came before it. */
  const add = (
    link: Link,
    before: string,
    needs: 'dribbled' | 'either',
    skips: string | null,
    joint: string,
  ): string | null => {
    const result = joined(phases, before, link, needs, skips, joint);
    if ('why' in result) return result.why;
    phases = [...phases, ...result.phases];
    if (result.says) joins.push(result.says);
    return null;
  };
  for (const [i, move] of then.entries()) {
    if (move.begins === 'catch') {
      return { why: `${move.name} begins with a catch; it can only come first.` };
    }
    const joint = i === 0 ? 'join' : `join-${i + 1}`;
    const why = add(move, chosen[i]!.name, 'dribbled', null, joint);
    if (why) return { why };
  }
  const why = add(ending, chosen.at(-1)!.name, ending.needs, ending.skipsHeld, 'join-end');
  if (why) return { why };
  const links = [...chosen, ending];
  const name = `${chosen.map((move) => move.name).join(', ')}: ${ending.name.toLowerCase()}`;
  const movement: Movement = {
    code: chainCode(parts),
    revision: 1,
    name: name.length <= MOST_NAMED ? name : `${name.slice(0, MOST_NAMED - 1)}…`,
    summary: [...new Set(links.map((link) => link.summary))].join(' ').slice(0, MOST_SUMMED),
    usedBy: ['one-on-one attacker'],
    faces: ['a defender squared up one against one', 'an ending that can change'],
    loads: [...new Set(links.flatMap((link) => link.loads))],
    writtenFor: RIGHT_HANDED,
    phases,
    others: placed(ending, phases),
    place: { kind: 'rim', at: 'start', spots: CHAIN_SPOTS, writtenOn: 'right', swaps: [] },
    small: null,
    faults: faultsOf(links, phases),
    drills: drillsOf(first, ending, phases) as unknown as Movement['drills'],
    schools: [],
    ruleSets: ['court-pivot-release', 'court-two-steps'],
    cautions: [
      'Floor under and behind the goal free; the next starts when the last has gone.',
      'Dry floor and laced shoes: pivots and stops load the ankle.',
    ],
  };
  return { movement, joins };
};

/**
 * A chain of moves in any number and one ending, joined by feet, facing and ball: a movement like any other,
 * what had to be put between in words, or why they cannot be joined.
 *
 * @param parts codes of the moves and of the ending, in order
 * @example chainOf(['jab-cross', 'floater']) // { movement, joins: ['A step with the left foot …'] }
 */
export const chainOf = (parts: readonly string[]): Chain | { why: string } => {
  const code = chainCode(parts);
  const cached = cache.get(code);
  if (cached) return cached;
  const chain = composed(parts);
  cache.set(code, chain);
  return chain;
};

/**
 * The movement of a chain by its code; undefined when there is none.
 *
 * @example chainMovement('jab-cross--floater').name // 'Jab, cross over: floater'
 */
export const chainMovement = (code: string): Movement | undefined => {
  const chain = isChain(code) ? chainOf(code.split(JOINT)) : null;
  return chain && 'movement' in chain ? chain.movement : undefined;
};

/**
 * The codes of the parts of a chain, in order.
 *
 * @example chainParts('jab-cross--floater') // ['jab-cross', 'floater']
 */
export const chainParts = (code: string): string[] => code.split(JOINT);
