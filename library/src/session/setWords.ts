import { otherFoot } from '@gravek/core/feet';
import type { Body } from '@gravek/core/layout/body';
import type { Side } from '@gravek/core/session/repLog';
import { retriesMissed } from '@gravek/core/session/runOrder';
import { keptVariants, type Variant, variantsOf } from '@gravek/core/session/variants';
import { counted } from '@gravek/core/words';
import { type DrillSet, runSetOf } from '@gravek/contract/drillSet';
import type { Movement } from '@gravek/contract/movement';
import type { Rung } from '@gravek/contract/rungs';
import { ENDINGS, MOVES } from '../movement/chains';
import { sideWord } from '../movement/sides';
import type { Base } from './work';

/** Rungs as a coach calls them. */
export const RUNG_NAMES: Record<Rung, string> = {
  stand: 'stand',
  walk: 'walk',
  half: 'half speed',
  full: 'full speed',
  object: 'with ball or tool',
  opponent: 'with opponent',
};

const PACE_WORDS: Record<number, string> = {
  1: 'full',
  0.75: 'three quarters',
  0.5: 'half',
  0.25: 'a quarter',
};

/**
 * A part of the planned speed in a word.
 *
 * @example paceWord(0.5) // 'half'
 */
export const paceWord = (pace: number): string => PACE_WORDS[pace] ?? `${Math.round(100 * pace)} %`;

const nameIn = (list: readonly { code: string; name: string }[], code: string): string =>
  list.find((item) => item.code === code)?.name ?? code;

/**
 * An exit by its name in the movement.
 *
 * @example exitName(giveGround, 'give:left') // 'To the left'
 */
export const exitName = (movement: Movement | null, exit: string): string => {
  const [phase, option] = exit.split(':');
  const read = movement?.phases.find((other) => other.code === phase)?.read;
  return read?.options.find((other) => other.code === option)?.name ?? exit;
};

/**
 * A way of teaching by its name in the movement.
 *
 * @example wayName(giveGround, 'turn:open') // 'Open at once'
 */
export const wayName = (movement: Movement | null, way: string): string => {
  const [school, option] = way.split(':');
  const options = movement?.schools.find((other) => other.code === school)?.options;
  return options?.find((other) => other.code === option)?.name ?? way;
};

/**
 * What differs in a combination, in words, the side left out; empty where nothing does.
 *
 * @example
 * const variant = variantFrom('spot=wing lead=left pace=0.5', 'own');
 * variantWords({ movement: jabAndGo }, variant) // ['wing', 'left foot first', 'half speed']
 */
export const variantWords = (base: Pick<Base, 'movement'>, variant: Variant): string[] => [
  ...(variant.move === null ? [] : [nameIn(MOVES, variant.move)]),
  ...(variant.ending === null ? [] : [nameIn(ENDINGS, variant.ending).toLowerCase()]),
  ...(variant.exit === null ? [] : [exitName(base.movement, variant.exit).toLowerCase()]),
  ...(variant.way === null ? [] : [wayName(base.movement, variant.way).toLowerCase()]),
  ...(variant.spot === null ? [] : [variant.spot]),
  ...(variant.leadFoot === null ? [] : [`${variant.leadFoot} foot first`]),
  ...(variant.rung === null ? [] : [RUNG_NAMES[variant.rung as Rung] ?? variant.rung]),
  ...(variant.pace === 1 ? [] : [`${paceWord(variant.pace)} speed`]),
];

/**
 * A side in words: for somebody, or for a whole set where all have the same.
 *
 * @example sideWords(straightRunUp, [body, leftHander], 'own') // 'take-off foot'
 */
export const sideWords = (
  movement: Movement | null,
  athletes: readonly Pick<Body, 'hand' | 'takeoffFoot'>[],
  side: Side,
): string => {
  if (!movement) return '';
  const { by, side: written } = movement.writtenFor;
  if (by === 'neither') return side === 'own' ? written : otherFoot(written);
  const words = new Set(athletes.map((athlete) => sideWord(movement, athlete, side)));
  if (words.size === 1) return [...words][0]!;
  if (by === 'hand') return side === 'own' ? 'strong hand' : 'weak hand';
  return side === 'own' ? 'take-off foot' : 'other foot';
};

/**
 * How a drill set varies, in a line: the axes, how many combinations they make, in which order.
 *
 * @example
 * variesWords({ movement: giveGround }, { ...AS_PLANNED, vary: { ...AS_PLANNED.vary, sides: ['own', 'other'] } })
 * // 'both sides'
 */
export const variesWords = (
  base: Pick<Base, 'movement'>,
  set: Pick<DrillSet, 'vary' | 'struck' | 'order'>,
): string => {
  const { moves, endings, exits, ways, spots, sides, leadFeet, paces, rungs } = set.vary;
  const axes = [
    ...(moves.length > 0 ? [counted(moves.length, 'move')] : []),
    ...(endings.length > 0 ? [counted(endings.length, 'ending')] : []),
    ...(exits.length === 1 ? [exitName(base.movement, exits[0]!).toLowerCase()] : []),
    ...(exits.length > 1 ? [counted(exits.length, 'exit')] : []),
    ...(ways.length === 1 ? [wayName(base.movement, ways[0]!).toLowerCase()] : []),
    ...(ways.length > 1 ? [`${counted(ways.length, 'way')} of teaching`] : []),
    ...(spots.length === 1 ? [spots[0]!] : []),
    ...(spots.length > 1 ? [counted(spots.length, 'spot')] : []),
    ...(sides.length === 2
      ? ['both sides']
      : sides[0] === 'other'
        ? [sideWords(base.movement, [], 'other')]
        : []),
    ...(leadFeet.length === 2 ? ['both lead feet'] : leadFeet.map((foot) => `${foot} foot first`)),
    ...(rungs.length === 1 ? [RUNG_NAMES[rungs[0] as Rung]] : []),
    ...(rungs.length > 1 ? [counted(rungs.length, 'rung')] : []),
    ...(paces.length > 1 || paces[0] !== 1
      ? [
          [...paces]
            .sort((a, b) => a - b)
            .map(paceWord)
            .join(', '),
        ]
      : []),
  ];
  const all = variantsOf(set.vary).length;
  const kept = keptVariants(set).length;
  if (axes.length === 0) return '';
  const size = axes.length > 1 || kept < all ? `: ${kept}` : '';
  return `${axes.join(' × ')}${size}${kept > 1 && set.order === 'mixed' ? ', mixed' : ''}`;
};

/**
 * What counts in a drill set, in a line.
 *
 * @example
 * targetWords({ ...freshDrillSet('s', { kind: 'warm-up', name: '' }, []), target: 'makes', amount: 3, reps: 6 })
 * // '3 makes, on after 6'
 */
export const targetWords = (set: DrillSet): string => {
  const each = keptVariants(set).length > 1 ? ' of each' : '';
  switch (set.target) {
    case 'makes':
      return [
        `${counted(set.amount, 'make')}${each}, on after ${set.reps}`,
        ...(retriesMissed(runSetOf(set)) ? ['what was missed once more'] : []),
      ].join('; ');
    case 'touches':
      if (set.work.kind === 'warm-up') return `${set.reps} × ${set.amount} times`;
      return `${set.reps} × ${set.amount} touches${each}`;
    case 'seconds':
      return `${set.reps} × ${set.amount} s held${each}`;
    case 'metres':
      return `${set.reps} × ${set.amount} m${each}`;
    case 'minutes':
      return `${set.reps} × ${set.amount} min${each}`;
    case 'attempts':
      return `${counted(set.reps, 'rep')}${each}`;
  }
};
