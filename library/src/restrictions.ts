import type { Load, Movement, RestrictionKind } from '@gravek/contract';

const BARS: Record<RestrictionKind, Load> = {
  'no-jumping': 'jump',
  'no-sprinting': 'sprint',
  'no-contact': 'contact',
  reduced: 'volume',
};

const WHY: Record<RestrictionKind, string> = {
  'no-jumping': 'may not jump, and this takes off and lands',
  'no-sprinting': 'may not sprint, and this is run fast',
  'no-contact': 'may not have contact, and this ends at an opponent',
  reduced: 'is on reduced volume, and this works by many contacts',
};

export type DatedRestriction = { kind: RestrictionKind; from: string; until: string };

/** The restrictions that hold on a day (yyyy-mm-dd). */
export const holding = <R extends DatedRestriction>(restrictions: readonly R[], on: string): R[] =>
  restrictions.filter((one) => one.from <= on && on <= one.until);

/** The restriction that keeps an athlete from a movement on a day, or null. */
export const barredBy = <R extends DatedRestriction>(
  movement: Pick<Movement, 'loads'>,
  restrictions: readonly R[],
  on: string,
): R | null =>
  holding(restrictions, on).find((one) => movement.loads.includes(BARS[one.kind])) ?? null;

/** Why, as a sentence about the athlete. */
export const whyBarred = (name: string, restriction: DatedRestriction): string =>
  `${name} ${WHY[restriction.kind]}; until ${restriction.until}.`;
