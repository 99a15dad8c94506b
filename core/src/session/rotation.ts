import { whole } from '../check';

/** What somebody does in a shift: the role by its place in the list, 0 performs; the lane from 1. */
export type Part = { role: number; lane: number };

/** Who does what while one of each lane performs; whoever is not in it waits. */
export type Shift = Map<string, Part>;

/**
 * How many lanes can be filled, somebody for every role in each; at least one.
 *
 * @returns lanes, and how many of the roles can be given out: with few people the last ones go
 * @example filled(7, 3, 3) // { lanes: 2, roles: 3 }
 */
export const filled = (
  people: number,
  lanes: number,
  roles: number,
): { lanes: number; roles: number } => {
  const roleCount = Math.max(1, Math.min(roles, people));
  return { lanes: Math.max(1, Math.min(lanes, Math.floor(people / roleCount))), roles: roleCount };
};

/**
 * The roles around those who perform: all stand in one ring, and who stands before them in it, having
 * performed last, takes the next role, and so on backwards.
 *
 * @param ring everybody, in the order in which they perform
 * @param performers those who perform now, one a lane
 * @param roles how many roles there are, the one that performs among them
 * @example cast(['ana', 'bo', 'cy'], ['bo'], 2).get('ana') // { role: 1, lane: 1 }
 */
export const cast = (
  ring: readonly string[],
  performers: readonly string[],
  roles: number,
): Shift => {
  const shift: Shift = new Map(performers.map((id, i) => [id, { role: 0, lane: i + 1 }]));
  const at = ring.indexOf(performers[0] ?? '');
  const waiting = [...ring.slice(0, Math.max(0, at)).reverse(), ...ring.slice(at + 1).reverse()];
  const free = waiting.filter((id) => !shift.has(id));
  for (let role = 1; role < roles; role += 1) {
    for (let lane = performers.length; lane >= 1; lane -= 1) {
      const id = free.shift();
      if (id !== undefined) shift.set(id, { role, lane });
    }
  }
  return shift;
};

/**
 * One pass of a rotation: everybody performs once, so that at any moment nobody has performed more than
 * once oftener than anybody else, whatever the number of people, lanes and roles. Passes follow one
 * another without end; who comes late or leaves changes the ring of the next.
 *
 * @param ring 1–200 people
 * @param lanes side by side, 1–50; those that cannot be filled stay empty
 * @param roles how many roles there are in a lane, 1–6
 * @throws {RangeError} naming the field that is out of range
 * @example
 *   // Three people, one lane, performer and feeder: who has performed feeds, the third waits.
 *   rotation(['ana', 'bo', 'cy'], 1, 2)[1] // bo: role 0, ana: role 1
 */
export const rotation = (ring: readonly string[], lanes: number, roles: number): Shift[] => {
  whole('people', ring.length, { min: 1, max: 200 });
  whole('lanes', lanes, { min: 1, max: 50 });
  whole('roles', roles, { min: 1, max: 6 });
  const at = filled(ring.length, lanes, roles);
  return Array.from({ length: Math.ceil(ring.length / at.lanes) }, (_, i) =>
    cast(ring, ring.slice(i * at.lanes, (i + 1) * at.lanes), at.roles),
  );
};

/**
 * Groups of a list that differ by one at most, neighbours together.
 *
 * @example groupsOf(['ana', 'bo', 'cy', 'di', 'eve'], 2) // [['ana', 'bo'], ['cy', 'di', 'eve']]
 */
export const groupsOf = <T>(list: readonly T[], groups: number): T[][] => {
  const many = Math.max(1, Math.min(groups, list.length));
  return Array.from({ length: many }, (_, i) =>
    list.slice(Math.floor((i * list.length) / many), Math.floor(((i + 1) * list.length) / many)),
  );
};
