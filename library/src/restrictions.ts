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
  restrictions.filter((restriction) => restriction.from <= on && on <= restriction.until);

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

/**
 * Why athletes do not take part in a drill set, by athlete: deleted, archived, or barred from just this
 * movement.
 *
 * @param on day of the session, yyyy-mm-dd
 */
export const passedOver = (
  athleteIds: readonly string[],
  people: readonly {
    id: string;
    name: string;
    archived: boolean;
    restrictions: readonly DatedRestriction[];
  }[],
  movement: Pick<Movement, 'loads'> | undefined,
  on: string,
): Map<string, string> => {
  const why = new Map<string, string>();
  for (const id of athleteIds) {
    const person = people.find((person) => person.id === id);
    if (!person) why.set(id, 'An athlete is not in the club any more.');
    else if (person.archived) why.set(id, `${person.name} was archived and is passed over.`);
    else {
      const barred = movement && barredBy(movement, person.restrictions, on);
      if (barred) why.set(id, `${whyBarred(person.name, barred)} Passed over.`);
    }
  }
  return why;
};
