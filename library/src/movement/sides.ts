import { otherFoot } from '@gravek/core/feet';
import type { Body } from '@gravek/core/layout/body';
import type { Side } from '@gravek/core/session/repLog';
import type { Movement } from '@gravek/contract/movement';

const OTHER: Record<string, string> = {
  left: 'right',
  right: 'left',
  Left: 'Right',
  Right: 'Left',
};

/**
 * Words as they hold in the mirror: left for right and right for left.
 *
 * @example mirrorWords('Left foot ahead, to the right') // 'Right foot ahead, to the left'
 */
export const mirrorWords = (text: string): string =>
  text.replace(/\b(left|right)\b/gi, (side) => OTHER[side] ?? side);

/**
 * Whether an athlete does a movement the other way round than it is written.
 *
 * @example isMirrored(straightRunUp, leftHander, 'own') // true
 */
export const isMirrored = (
  { writtenFor: { by, side } }: Pick<Movement, 'writtenFor'>,
  athlete: Pick<Body, 'hand' | 'takeoffFoot'>,
  which: Side = 'own',
): boolean =>
  (by !== 'neither' && (by === 'hand' ? athlete.hand : athlete.takeoffFoot) !== side) !==
  (which === 'other');

/**
 * A side of a movement as a coach calls it for an athlete.
 *
 * @returns of a movement that is written for neither side just the side that it goes to
 * @example sideWord(straightRunUp, body, 'own') // 'left foot'
 */
export const sideWord = (
  { writtenFor: { by, side } }: Pick<Movement, 'writtenFor'>,
  athlete: Pick<Body, 'hand' | 'takeoffFoot'>,
  which: Side,
): string => {
  if (by === 'neither') return which === 'own' ? side : otherFoot(side);
  const usualSide = by === 'hand' ? athlete.hand : athlete.takeoffFoot;
  return `${which === 'own' ? usualSide : otherFoot(usualSide)} ${by === 'hand' ? 'hand' : 'foot'}`;
};

/**
 * The same in a sentence.
 *
 * @example sidePhrase(giveGround, body, 'other') // 'to the left'
 */
export const sidePhrase = (
  movement: Pick<Movement, 'writtenFor'>,
  athlete: Pick<Body, 'hand' | 'takeoffFoot'>,
  which: Side,
): string => {
  const how = { hand: 'with', 'take-off foot': 'off', neither: 'to' }[movement.writtenFor.by];
  return `${how} the ${sideWord(movement, athlete, which)}`;
};

/** What a coach reads; codes and parameters are not words. */
const READ = new Set([
  'name',
  'when',
  'watch',
  'look',
  'right',
  'eyes',
  'sees',
  'cue',
  'how',
  'reason',
  'question',
  'caution',
]);
const SPOKEN = ['phases', 'faults', 'drills', 'schools'] as const;

const inMirror = <T>(value: T): T => {
  if (Array.isArray(value)) return value.map(inMirror) as T;
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, part]) => {
      // The steps themselves are mirrored by the engine.
      if (key === 'steps' || key === 'part' || key === 'set') return [key, part];
      return [key, READ.has(key) && typeof part === 'string' ? mirrorWords(part) : inMirror(part)];
    }),
  ) as T;
};

const seen = new WeakMap<Movement, Movement>();

/**
 * A movement in the words that hold for an athlete: what is written for the right hand is told to a
 * left-hander with left and right changed over. Its steps stay as written; the engine mirrors those.
 * @example toldTo(movementOf('gather-right-left'), leftHander).name // 'Gather left-right'
 */
export const toldTo = (
  movement: Movement,
  athlete: Pick<Body, 'hand' | 'takeoffFoot'>,
  which: Side = 'own',
): Movement => {
  if (!isMirrored(movement, athlete, which)) return movement;
  const mirrored = seen.get(movement);
  if (mirrored) return mirrored;
  const told = { ...movement, name: mirrorWords(movement.name) };
  for (const part of SPOKEN) Object.assign(told, { [part]: inMirror(movement[part]) });
  seen.set(movement, told);
  return told;
};
