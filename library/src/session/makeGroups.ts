import type { Group } from '@gravek/contract/circuit';
import type { Athlete } from '@gravek/contract/athlete';
import { groupBy } from '@gravek/core/session/repLog';

/** By what groups are made: who is alike goes together, or everybody is mixed so that the groups are alike. */
export const GROUPED_BY = ['position', 'need', 'height', 'hand', 'mixed'] as const;
export type GroupedBy = (typeof GROUPED_BY)[number];

/** What groups are called until the coach calls them something else. */
export const GROUP_NAMES = [
  ...['Gulls', 'Terns', 'Plovers', 'Dunlins', 'Curlews', 'Herons'],
  ...['Avocets', 'Puffins', 'Godwits', 'Eiders', 'Knots', 'Petrels'],
] as const;

/** Where nobody has measured somebody, metres. */
const NO_HEIGHT_M = 1.7;

type Person = Pick<Athlete, 'id' | 'name' | 'hand' | 'heightM' | 'positions'>;

/** As many lists as asked, one longer than another by one at most, what is beside one another together. */
const cut = <T>(list: readonly T[], many: number): T[][] =>
  Array.from({ length: many }, (_, i) =>
    list.slice(Math.round((i * list.length) / many), Math.round(((i + 1) * list.length) / many)),
  );

/** Each goes where fewest of the same position are, then fewest of the same hand, then where fewest are at all. */
const mixed = (
  people: readonly Person[],
  many: number,
  positionOf: (person: Person) => string,
): Person[][] => {
  const groups = Array.from({ length: many }, (): Person[] => []);
  const least = Math.floor(people.length / many);
  let larger = people.length % many;
  for (const person of people) {
    const alikeIn = (group: Person[], keyOf: (person: Person) => string): number =>
      group.filter((other) => keyOf(other) === keyOf(person)).length;
    const [group] = groups
      .filter((some) => some.length < least || (some.length === least && larger > 0))
      .sort(
        (a, b) =>
          alikeIn(a, positionOf) - alikeIn(b, positionOf) ||
          alikeIn(a, handOf) - alikeIn(b, handOf) ||
          a.length - b.length,
      );
    if (group!.length === least) larger -= 1;
    group!.push(person);
  }
  return groups;
};

const handOf = ({ hand }: Person): string => hand;

/** Who has the same key stands together, the most of a kind first, within a kind by height. */
const alike = (people: readonly Person[], keyOf: (person: Person) => string): Person[] =>
  [...groupBy(people, keyOf)]
    .sort(([a, some], [b, others]) => others.length - some.length || a.localeCompare(b))
    .flatMap(([, some]) => byHeight(some));

const byHeight = (people: readonly Person[]): Person[] =>
  [...people].sort(
    (a, b) =>
      (b.heightM ?? NO_HEIGHT_M) - (a.heightM ?? NO_HEIGHT_M) || a.name.localeCompare(b.name),
  );

/**
 * Groups of athletes, as large as one another but for one. Mixed, each has tall and small, left- and
 * right-handers, and of every position.
 *
 * @param many how many groups; never more than there are athletes
 * @param needOf what an athlete has to work on most, the same text for all who have the same; empty for nothing
 * @example
 * const person = (id, heightM) => ({ id, name: id, hand: 'right', heightM, positions: ['wing'] });
 * const people = [person('ana', 1.9), person('bo', 1.6), person('cy', 1.8), person('di', 1.7)];
 * makeGroups(people, { many: 2, by: 'height' }).map(({ athleteIds }) => athleteIds)
 * // [['ana', 'cy'], ['di', 'bo']]
 */
export const makeGroups = (
  people: readonly Person[],
  {
    many,
    by,
    needOf = () => '',
  }: { many: number; by: GroupedBy; needOf?: (athleteId: string) => string },
): Group[] => {
  const groupCount = Math.max(1, Math.min(many, people.length, GROUP_NAMES.length));
  const positionOf = (person: Person): string => person.positions[0] ?? '';
  const grouped = ((): Person[][] => {
    switch (by) {
      case 'position':
        return cut(alike(people, positionOf), groupCount);
      case 'need':
        return cut(
          alike(people, ({ id }) => needOf(id)),
          groupCount,
        );
      case 'height':
        return cut(byHeight(people), groupCount);
      case 'hand':
        return cut(alike(people, handOf), groupCount);
      case 'mixed':
        // The few of a kind first, while there is room everywhere.
        return mixed(
          alike(people, (person) => `${person.hand} ${positionOf(person)}`).toReversed(),
          groupCount,
          positionOf,
        );
    }
  })();
  return grouped.map((some, i) => ({
    name: GROUP_NAMES[i]!,
    athleteIds: some.map(({ id }) => id),
  }));
};
