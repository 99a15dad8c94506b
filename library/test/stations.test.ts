import { bodyOf } from '@gravek/core/layout/body';
import type { DrillSet, Work } from '@gravek/contract/drillSet';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { elsewhereAt, groupsAt } from '../src/field/stations';
import { movementOf } from '../src/movement/movements';
import { bookedTwice } from '../src/session/bookedTwice';
import { GROUPED_BY, makeGroups } from '../src/session/makeGroups';
import { sessionFigures } from '../src/session/sessionFigures';
import { freshDrillSet } from '../src/session/sessionFit';
import { setOfWork } from '../src/session/setOfWork';
import { baseOf } from '../src/session/work';

const finds = { planOf: () => undefined, movementOf };
const ADULT = bodyOf({
  ...{ hand: 'right', takeoffFoot: 'left', trials: [], heightM: 1.8, legM: null, shoeM: null },
});
const people = (n: number): string[] => Array.from({ length: n }, (_, i) => `p${i}`);

const drill = (movement: string, code: string, ids: readonly string[]): DrillSet => {
  const work: Work = { kind: 'movement', movement, drill: code };
  return setOfWork(`${movement}/${code}`, work, ids, movementOf(movement));
};

const figuresOf = (
  drillSets: DrillSet[],
  more: { lanes?: number; circuit?: Parameters<typeof sessionFigures>[0]['circuit'] } = {},
) =>
  sessionFigures({
    drillSets,
    circuit: more.circuit,
    baseOfSet: (set) => baseOf(set.work, finds, null),
    bodies: new Map(drillSets.flatMap((set) => set.athleteIds).map((id) => [id, ADULT])),
    conditions: { lanes: more.lanes ?? 1 },
    slotS: null,
  });

describe('groups', () => {
  const athlete = fc.record({
    hand: fc.constantFrom('left' as const, 'right' as const),
    heightM: fc.option(fc.double({ min: 1.2, max: 2.1, noNaN: true }), { nil: null }),
    positions: fc.array(fc.constantFrom('wing', 'keeper', 'back'), { maxLength: 2 }),
  });

  it('have everybody in one of them, and no more than one apart in size', () => {
    fc.assert(
      fc.property(
        fc.array(athlete, { minLength: 1, maxLength: 60 }),
        fc.integer({ min: 1, max: 12 }),
        fc.constantFrom(...GROUPED_BY),
        (some, many, by) => {
          const squad = some.map((person, i) => ({ ...person, id: `p${i}`, name: `N ${i}` }));
          const groups = makeGroups(squad, { many, by, needOf: (id) => id.slice(-1) });
          const ids = groups.flatMap(({ athleteIds }) => athleteIds);
          expect(ids.toSorted()).toEqual(squad.map(({ id }) => id).toSorted());
          const sizes = groups.map(({ athleteIds }) => athleteIds.length);
          expect(Math.max(...sizes) - Math.min(...sizes)).toBeLessThanOrEqual(1);
          expect(groups).toHaveLength(Math.min(many, squad.length));
        },
      ),
    );
  });

  const squad = people(8).map((id, i) => ({
    ...{ id, name: id, heightM: 1.5 + i / 20, positions: [i < 4 ? 'wing' : 'keeper'] },
    hand: i % 4 === 0 ? ('left' as const) : ('right' as const),
  }));
  const of = (by: (typeof GROUPED_BY)[number]) =>
    makeGroups(squad, { many: 2, by }).map(({ athleteIds }) =>
      athleteIds.map((id) => squad.find((person) => person.id === id)!),
    );

  it('are alike inside where it is asked for', () => {
    for (const group of of('position')) {
      expect(new Set(group.map(({ positions }) => positions[0])).size).toBe(1);
    }
    const [tall, small] = of('height');
    expect(Math.min(...tall!.map(({ heightM }) => heightM))).toBeGreaterThan(
      Math.max(...small!.map(({ heightM }) => heightM)),
    );
  });

  it('are like one another when they are mixed', () => {
    for (const group of of('mixed')) {
      expect(group.filter(({ hand }) => hand === 'left')).toHaveLength(1);
      expect(group.filter(({ positions }) => positions[0] === 'wing')).toHaveLength(2);
    }
  });
});

describe('stations', () => {
  const ids = people(12);
  const groups = [0, 4, 8].map((from, i) => ({
    name: `${i}`,
    athleteIds: ids.slice(from, from + 4),
  }));
  const sets = [
    drill('wall-switches', 'one-freeze', ids),
    drill('gather-right-left', 'run-still-ball', ids),
    drill('two-step-finish', 'one-step', ids),
  ];
  const stations = sets.map((set) => ({ ...set, station: true }));
  const circuit = { minutes: 6, changeS: 45, groups };

  it('take as long as going round, all at the same time, and nobody is in two places', () => {
    const figures = figuresOf([...stations, drill('wall-switches', 'four-hold', ids)], { circuit });
    const roundS = 3 * 360 + 2 * 45;
    expect(figures.sets.slice(0, 3).map(({ at }) => at)).toEqual(
      Array.from({ length: 3 }, () => ({ startS: 0, endS: roundS })),
    );
    expect(figures.sets[3]!.at.startS).toBe(roundS);
    expect(figures.sets.every(({ twice }) => twice.length === 0)).toBe(true);
  });

  it('have fewer stand than the same sets one after the other', () => {
    const round = figuresOf(stations, { circuit });
    const after = figuresOf(sets);
    const standing = ({ spent, totalS }: typeof round): number => spent!.standS / totalS;
    expect(standing(round)).toBeLessThan(standing(after) - 0.1);
    const { workS, helpS, walkBackS, restS, standS } = round.spent!;
    expect(workS + helpS + walkBackS + restS + standS).toBeCloseTo(round.totalS, 6);
  });

  it('say how many reps there is time for, never more than are planned', () => {
    const short = figuresOf(stations, { circuit: { ...circuit, minutes: 2 } });
    const long = figuresOf(stations, { circuit: { ...circuit, minutes: 60 } });
    expect(long.sets.map(({ repsThatFit }) => repsThatFit)).toEqual(sets.map(({ reps }) => reps));
    expect(short.sets[1]!.repsThatFit!).toBeLessThan(sets[1]!.reps);
    expect(short.reps).toBeLessThan(long.reps);
  });

  it('are sets like others where no groups go round', () => {
    expect(figuresOf(stations)).toEqual(figuresOf(sets));
  });

  it('break on nothing that is half typed', () => {
    for (const minutes of [0, NaN, 1000]) {
      expect(
        figuresOf(stations, { circuit: { ...circuit, minutes } }).totalS,
      ).toBeGreaterThanOrEqual(0);
    }
  });
});

describe('on the field', () => {
  const ids = people(4);
  const [wall, gaps] = [
    drill('wall-switches', 'one-freeze', ids),
    drill('gaps', 'walk-the-count', ids),
  ];
  const groups = [
    { name: 'Gulls', athleteIds: ids.slice(0, 2) },
    { name: 'Terns', athleteIds: ids.slice(2) },
  ];
  const session = {
    drillSets: [wall, gaps].map((set) => ({ ...set, station: true })),
    circuit: { minutes: 5, changeS: 30, groups },
  };

  it('each station has its group in each round, and the others are elsewhere', () => {
    expect(groupsAt(session, 1).map(({ group }) => group)).toEqual([0, 1]);
    expect(groupsAt(session, 2).map(({ group }) => group)).toEqual([1, 0]);
    expect([...elsewhereAt(session, 2).get(wall.id)!.keys()]).toEqual(['p0', 'p1']);
    expect(elsewhereAt(session, 0).size).toBe(0);
  });
});

// What a coach with that group needs by the watch. Each line adds up what its drills ask: tries × people in a lane ×
// seconds from one try to the next, with getting on the mark and off it; a row counts once.
describe('the minutes of a session are those of a coach', () => {
  const minutesOf = (sets: DrillSet[], lanes: number): number =>
    Math.round(figuresOf(sets, { lanes }).totalS / 60);

  it.each([
    // Ten made a side, half of the tries: 15 × 2 × 3 × 10 s = 15; then 8 × 3 × 11 s = 4½, three times.
    ['two-step finish: four drills, three people, one lane', 'two-step-finish', 3, 1, 28],
    // Holds 6 × 13 s = 1½; one switch 12 × 13 s = 2½; four switches 6 × 20 s = 2; starts 3 × 26 s = 1½.
    ['wall switches: all four, twelve along the wall', 'wall-switches', 12, 1, 7],
    // Boxes in a row 8 × 12 s = 1½; four in a lane, 6 each: at 11 s = 4½, 13 s = 5, rolled 14 s = 5½, thrown 15 s = 6.
    ['gather: five drills, twelve in three lanes', 'gather-right-left', 12, 3, 23],
    // Rows of 3 × 15 s, 6 × 13 s, 6 × 17 s, twice 8 × 23 s = 10; the press by one of five a court, 6 × 5 × 13 s = 6½.
    ['block: six drills, ten on two courts', 'block-jump', 10, 2, 16],
    // Lanes and back 6 × 25 s = 2½, in pairs 6 × 31 s = 3; wide passes 16 × 26 s = 7, called 12 × 27 s = 5½.
    ['goal arc: four drills, two keepers', 'goal-arc', 2, 1, 18],
  ])('%s', (_, code, many, lanes, minutes) => {
    const movement = movementOf(code)!;
    const sets = (movement.progression ?? []).map((step) => drill(code, step.drill, people(many)));
    const some = code === 'two-step-finish' ? sets.slice(0, 4) : sets;
    expect(Math.abs(minutesOf(some, lanes) - minutes)).toBeLessThanOrEqual(2);
  });
});

describe('a day with more than one session', () => {
  const on = (id: string, groundId: string | null, athleteIds: string[], date = '2031-03-03') => ({
    ...{ id, title: `Session ${id}`, date, groundId, archived: false },
    drillSets: [freshDrillSet(`set of ${id}`, { kind: 'warm-up', name: 'Jog' }, athleteIds)],
  });
  const hall = { slots: [{ day: 'Monday' as const, from: '18:00', to: '19:30' }] };
  const twoTimes = {
    slots: [...hall.slots, { day: 'Monday' as const, from: '20:00', to: '21:00' }],
  };
  const others = [
    on('a', 'hall', ['ana', 'bo']),
    on('b', 'field', ['bo']),
    on('c', 'hall', ['kit'], '2031-03-10'),
    { ...on('d', 'hall', ['ana']), archived: true },
  ];

  it('says which ground and who are booked twice', () => {
    const session = on('s', 'hall', ['bo', 'kit']);
    expect(bookedTwice(session, [...others, session], hall)).toEqual({
      onGround: [{ id: 'a', title: 'Session a' }],
      people: [
        { id: 'a', title: 'Session a', athleteIds: ['bo'] },
        { id: 'b', title: 'Session b', athleteIds: ['bo'] },
      ],
    });
    expect(bookedTwice(on('s', null, ['kit']), others, undefined)).toEqual({
      ...{ onGround: [], people: [] },
    });
  });

  it('takes as many sessions on a ground as the club has times there', () => {
    const session = on('s', 'hall', ['bo']);
    expect(bookedTwice(session, others, twoTimes)).toEqual({
      onGround: [],
      people: [{ id: 'b', title: 'Session b', athleteIds: ['bo'] }],
    });
    const third = bookedTwice(session, [...others, on('e', 'hall', [])], twoTimes);
    expect(third.onGround.map(({ id }) => id)).toEqual(['a', 'e']);
  });
});
