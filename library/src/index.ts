import type { RestrictionKind } from '@gravek/contract';
import type { Load, Movement } from './movement';
import { straightRunUp } from './movements/straightRunUp';

export { athleteFaults, type AthleteFaults, type FaultPicture } from './athleteFaults';
export { cueFor, type Cue } from './cue';
export { faultOf, movementSchema, type Fault, type Load, type Movement } from './movement';

export const MOVEMENTS: readonly Movement[] = [straightRunUp];

/** @throws {RangeError} when the library holds no movement of that code */
export const movementOf = (code: string): Movement => {
  const found = MOVEMENTS.find((movement) => movement.code === code);
  if (!found) throw new RangeError(`movement must be one of the library, got ${code}`);
  return found;
};

const BARS: Record<RestrictionKind, Load | null> = {
  'no-jumping': 'jump',
  'no-sprinting': 'sprint',
  'no-contact': 'contact',
  reduced: null,
};

export type DatedRestriction = { kind: RestrictionKind; from: string; until: string };

/** The restrictions that hold on a day (yyyy-mm-dd). */
export const holding = <R extends DatedRestriction>(restrictions: readonly R[], on: string): R[] =>
  restrictions.filter((one) => one.from <= on && on <= one.until);

/** The restriction that keeps an athlete from a movement on a day, or null. */
export const barredBy = <R extends DatedRestriction>(
  movement: Movement,
  restrictions: readonly R[],
  on: string,
): R | null =>
  holding(restrictions, on).find((one) => {
    const load = BARS[one.kind];
    return load !== null && movement.loads.includes(load);
  }) ?? null;
