import { bodyOf } from '@gravek/core/layout/body';
import type { Athlete } from '@gravek/contract/athlete';
import type { Needs } from '@gravek/contract/run';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { laddersOf } from '../src/cue/ladder';
import { movementOf } from '../src/movement/movements';
import {
  bestOffers,
  chooseBlocks,
  type ChosenSet,
  type SetChoice,
} from '../src/session/chooseBlocks';
import { type Need, needsOf } from '../src/session/needs';
import { freshDrillSet } from '../src/session/sessionFit';
import { offersFor, type SetOffer } from '../src/session/setOffers';

/** What a choice does for needs, each served once, by whichever serves it best. */
const worthOf = (
  chosen: readonly number[],
  offers: readonly { seconds: number; serves: { need: number; share: number }[] }[],
  weights: readonly number[],
): number =>
  weights.reduce((sum, weight, n) => {
    const shares = chosen.flatMap((o) =>
      offers[o]!.serves.filter(({ need }) => need === n).map(({ share }) => share),
    );
    return sum + weight * Math.max(0, ...shares);
  }, 0);

const subsets = (many: number): number[][] =>
  Array.from({ length: 2 ** many }, (_, bits) =>
    Array.from({ length: many }, (_, i) => i).filter((i) => bits & (1 << i)),
  );

/** Blocks in a time: six, and none of less than six minutes on average. */
const mostIn = (seconds: number): number => Math.min(6, Math.max(1, Math.floor(seconds / 360)));

const WHO = ['a', 'b', 'c', 'd', 'e', 'f'];

/** Needs of a few athletes, and sets that would serve them, for a ground of so many lanes. */
const problem = (mostNeeds: number, mostOffers: number) =>
  fc
    .record({
      needs: fc.integer({ min: 1, max: mostNeeds }),
      lanes: fc.integer({ min: 1, max: 4 }),
    })
    .chain(({ needs: many, lanes }) =>
      fc.record({
        lanes: fc.constant(lanes),
        seconds: fc.integer({ min: 0, max: 2400 }),
        needs: fc.array(
          fc.record({ weight: fc.integer({ min: 1, max: 9 }), athleteId: fc.constantFrom(...WHO) }),
          { minLength: many, maxLength: many },
        ),
        offers: fc.array(
          fc.record({
            repS: fc.integer({ min: 30, max: 300 }),
            serves: fc.uniqueArray(
              fc.record({ need: fc.nat(many - 1), share: fc.constantFrom(0.6, 1) }),
              { selector: ({ need }) => need, minLength: 1, maxLength: many },
            ),
            mayJoin: fc.subarray(WHO),
          }),
          { maxLength: mostOffers },
        ),
      }),
    )
    .map(({ needs, offers, ...room }) => ({
      ...room,
      needs: needs.map((need): Need => ({
        ...{ ...need, kind: 'check', what: `${need.weight}`, movement: null, fault: null },
        rung: null,
      })),
      offers: offers.map(({ repS, serves, mayJoin }, i): SetOffer => {
        const athleteIds = [...new Set(serves.map(({ need }) => needs[need]!.athleteId))];
        const secondsFor = (ids: string[], lanes: number, times: number): number =>
          times * repS * Math.ceil(ids.length / lanes);
        return {
          set: freshDrillSet(`set${i}`, { kind: 'warm-up', name: '' }, athleteIds),
          ...{ name: `set ${i}`, serves, secondsFor },
          seconds: secondsFor(athleteIds, room.lanes, 1),
          mayRepeat: i % 2 === 0,
          lanes: Math.min(room.lanes, athleteIds.length),
          mayJoin: mayJoin.filter((id) => !athleteIds.includes(id)),
        };
      }),
    }));

const setsOf = ({ blocks }: SetChoice): ChosenSet[] => blocks.flatMap(({ sets }) => sets);

describe('the best offers', () => {
  it('do as much as the best of all that could be tried, and fit', () => {
    fc.assert(
      fc.property(problem(8, 9), ({ needs, offers, seconds, lanes }) => {
        const peopleOf = (o: number): Set<string> =>
          new Set(offers[o]!.serves.map(({ need }) => needs[need]!.athleteId));
        const hasRoom = (chosen: readonly number[]): boolean =>
          chosen.reduce((sum, o) => sum + offers[o]!.seconds * offers[o]!.lanes, 0) <=
            seconds * lanes &&
          chosen.reduce((sum, o) => sum + offers[o]!.lanes, 0) <= mostIn(seconds) * lanes &&
          WHO.every(
            (id) =>
              chosen.reduce((sum, o) => sum + (peopleOf(o).has(id) ? offers[o]!.seconds : 0), 0) <=
              seconds,
          );
        const weights = needs.map(({ weight }) => weight);
        const best = Math.max(
          ...subsets(offers.length)
            .filter(hasRoom)
            .map((chosen) => worthOf(chosen, offers, weights)),
        );
        const chosen = bestOffers(offers, needs, { seconds, lanes });
        expect(hasRoom(chosen)).toBe(true);
        expect(worthOf(chosen, offers, weights)).toBeGreaterThan(best - 0.03);
      }),
      { numRuns: 300 },
    );
  });
});

describe('blocks', () => {
  it('are six at most, within the time and the lanes, with everybody in one place', () => {
    fc.assert(
      fc.property(problem(20, 16), ({ needs, offers, seconds, lanes }) => {
        const choice = chooseBlocks(needs, offers, { seconds, lanes });
        expect(choice.blocks.length).toBeLessThanOrEqual(mostIn(seconds));
        expect(choice.seconds).toBeLessThanOrEqual(seconds);
        for (const { sets, seconds: blockS } of choice.blocks) {
          const ids = sets.flatMap(({ set }) => set.athleteIds);
          expect(new Set(ids).size).toBe(ids.length);
          expect(sets.reduce((sum, { set }) => sum + (set.lanes ?? lanes), 0)).toBeLessThanOrEqual(
            lanes,
          );
          expect(sets.map(({ set }) => set.beside)).toEqual(sets.map((_, i) => i > 0));
          expect(blockS).toBe(Math.max(...sets.map((set) => set.seconds)));
        }
        const ids = setsOf(choice).map(({ set }) => set.id);
        expect(new Set(ids).size).toBe(ids.length);
        // Nothing is said to be left out that would have found room.
        for (const { why } of choice.leftOut)
          expect(why).not.toBe('too little gained for its minutes');
      }),
      { numRuns: 300 },
    );
  });
});

const athlete = (id: string, change: Partial<Athlete> = {}): Athlete =>
  ({
    id,
    name: id,
    squad: 'Terns',
    hand: 'right',
    takeoffFoot: 'left',
    heightM: 1.75,
    shoeM: 0.28,
    legM: null,
    birthYear: 2004,
    archived: false,
    restrictions: [],
    trials: [],
    readings: [],
    positions: [],
    ...change,
  }) as unknown as Athlete;

const cue = (athleteId: string, movement: string, fault: string) => ({
  ...{ athleteId, movement, fault, reason: '' },
});

const NO_LADDER = { rungChoices: [], away: [] };

const ask = (athletes: Athlete[], known: Needs, on = '2031-05-14', lanes = 1) => {
  let next = 0;
  const needs = needsOf(athletes, known, movementOf, on);
  const offers = offersFor(needs, {
    plans: [],
    athletes,
    bodies: new Map(athletes.map((athlete) => [athlete.id, bodyOf(athlete)])),
    finds: { planOf: () => undefined, movementOf },
    ground: null,
    conditions: { lanes, people: athletes, on },
    newId: () => `set${(next += 1)}`,
  });
  return { needs, offers };
};

/** On one lane. */
const choose = (needs: Need[], offers: SetOffer[], seconds: number) => {
  const choice = chooseBlocks(needs, offers, { seconds, lanes: 1 });
  return { ...choice, sets: setsOf(choice) };
};

describe('choosing sets', () => {
  const jump = movementOf('straight-run-up')!;
  const [worst] = [...jump.faults].sort((a, b) => b.severity - a.severity);

  it('puts the drill against a cued fault in, says for whom, and what there is no time for', () => {
    const athletes = [athlete('a'), athlete('b'), athlete('c')];
    const known = {
      cues: ['a', 'b'].map((id) => cue(id, jump.code, worst!.code)),
      rungs: [],
      ...NO_LADDER,
    };
    const { needs, offers } = ask(athletes, known);
    expect(needs.filter((need) => need.kind === 'check')).toHaveLength(3);
    const all = choose(needs, offers, 3600);
    expect(all.leftOut).toEqual([]);
    const own = all.sets.find(({ reasons }) => reasons.some((reason) => reason.kind === 'cue'))!;
    expect(own.set.work).toMatchObject({ movement: jump.code, drill: worst!.drills[0] });
    expect(own.set.athleteIds).toEqual(['a', 'b', 'c']);
    expect(own.joining).toEqual(['c']);
    expect(own.reasons).toEqual([{ kind: 'cue', what: `“${worst!.cue}”`, athleteIds: ['a', 'b'] }]);
    // With time for the two of it, it is the one that does more.
    const { seconds } = offers.find(({ set }) => set.id === own.set.id)!;
    const some = choose(needs, offers, seconds);
    expect(some.sets.map((set) => set.set.id)).toEqual([own.set.id]);
    expect(some.leftOut).toMatchObject([{ kind: 'check', athleteIds: ['a', 'b', 'c'] }]);
    expect(some.leftOut[0]!.why).toMatch(/^it takes \d+ min more$/);
    // What is said to be missing is what is missing: a minute short is a minute.
    const check = Math.min(
      ...offers.flatMap(({ seconds, serves }) =>
        serves.some(({ need }) => needs[need]!.kind === 'check') ? [seconds] : [],
      ),
    );
    const nearly = choose(needs, offers, seconds + check - 50);
    expect(nearly.leftOut[0]!.why).toBe('it takes 1 min more');
    expect(choose(needs, offers, 0).sets).toEqual([]);
  });

  it('makes four to six blocks for a squad, beside one another where lanes allow, with nobody idle', () => {
    const squad = [...'abcdefghijkl'].map((id) => athlete(id));
    const faults = jump.faults.filter(({ drills }) => drills.length > 0).slice(0, 4);
    const known = {
      cues: squad.slice(0, 10).map(({ id }, i) => cue(id, jump.code, faults[i % 4]!.code)),
      rungs: [],
      ...NO_LADDER,
    };
    const room = { seconds: 4500, lanes: 4 };
    const { needs, offers } = ask(squad, known, '2031-05-14', room.lanes);
    const { blocks, leftOut } = chooseBlocks(needs, offers, room);
    expect(leftOut).toEqual([]);
    expect(blocks.length).toBeGreaterThanOrEqual(4);
    expect(blocks.length).toBeLessThanOrEqual(6);
    expect(Math.max(...blocks.map(({ sets }) => sets.length))).toBeGreaterThan(1);
    for (const { sets } of blocks) {
      expect(sets.flatMap(({ set }) => set.athleteIds)).toHaveLength(squad.length);
    }
    // Who joins is told apart from those for whom it is.
    const joining = blocks.flatMap(({ sets }) => sets.flatMap((set) => set.joining));
    expect(joining).toEqual(expect.arrayContaining(['k', 'l']));
  });

  it('gives nobody what they are held back from, and says so', () => {
    const hurt = { kind: 'pain', from: '2031-05-01', until: null, share: 0.5, note: '' };
    const athletes = [athlete('a', { restrictions: [hurt as never] })];
    const known = { cues: [cue('a', jump.code, worst!.code)], rungs: [], ...NO_LADDER };
    const { needs, offers } = ask(athletes, known);
    const choice = choose(needs, offers, 3600);
    expect(
      choice.sets.flatMap(({ reasons }) => reasons.filter((reason) => reason.kind === 'cue')),
    ).toEqual([]);
    expect(choice.leftOut).toContainEqual({
      kind: 'cue',
      what: `“${worst!.cue}”`,
      athleteIds: ['a'],
      why: 'held back from what would help',
    });
  });

  it('goes a rung up after two good sessions on both sides, and one down after a bad one', () => {
    const rows = (athleteId: string, clean: number): Needs['rungs'] =>
      ['s1', 's2'].flatMap((sessionId) =>
        (['own', 'other'] as const).map((side) => ({
          ...{
            athleteId,
            movement: jump.code,
            sessionId,
            rung: 'half',
            side,
            reps: 6,
            clean,
            date: `2031-05-0${sessionId[1]}`,
          },
        })),
      );
    const athletes = [athlete('up'), athlete('down'), athlete('stay')];
    const known = {
      cues: [],
      rungs: [...rows('up', 5), ...rows('down', 2), ...rows('stay', 4)],
      ...NO_LADDER,
    };
    const { needs, offers } = ask(athletes, known);
    expect(
      needs
        .filter((need) => need.kind === 'rung')
        .map(({ athleteId, rung, what }) => [athleteId, rung, what]),
    ).toEqual([
      ['up', 'full', 'ready for full speed'],
      ['down', 'walk', 'half speed is too high yet'],
    ]);
    const sets = choose(needs, offers, 7200).sets.map((set) => set.set);
    expect(
      sets.find((set) => set.athleteIds.includes('up') && set.vary.rungs[0] === 'full'),
    ).toMatchObject({ vary: { sides: ['own', 'other'] }, athleteIds: ['up'] });
    expect(sets.some((set) => set.vary.rungs[0] === 'walk')).toBe(true);
  });

  it('looks a week after whether what a cue has cleared stays away, in the whole movement', () => {
    const athletes = [athlete('a')];
    const since = '2031-05-07';
    const known = {
      ...{ cues: [], rungs: [], rungChoices: [] },
      away: [{ athleteId: 'a', movement: jump.code, fault: worst!.code, since }],
    };
    const dueOn = (on: string) =>
      ask(athletes, known, on).needs.filter((need) => need.kind === 'away');
    expect(dueOn('2031-05-13')).toEqual([]);
    expect(dueOn('2031-05-14')).toMatchObject([{ fault: worst!.code }]);
    const { needs, offers } = ask(athletes, known);
    const [set] = choose(needs, offers, 3600).sets.filter(({ reasons }) =>
      reasons.some((reason) => reason.kind === 'away'),
    );
    expect(set!.set.work).toEqual({ kind: 'movement', movement: jump.code, drill: null });
  });

  it('stands on the rung that a coach has chosen until something was run since', () => {
    const row = (date: string, rung: string): Needs['rungs'][number] => ({
      ...{ athleteId: 'a', movement: jump.code, sessionId: date, date, rung },
      ...{ side: 'own', reps: 12, clean: 3 },
    });
    const choice = {
      ...{ athleteId: 'a', movement: jump.code, rung: 'walk' as const, reason: 'shy' },
      ...{ person: 'Somebody', day: '2031-05-05' },
    };
    const stand = (rungs: Needs['rungs'], rungChoices: Needs['rungChoices']) =>
      laddersOf({ rungs, rungChoices }, movementOf)[0];
    const before = row('2031-05-01', 'half');
    expect(stand([before], [])).toMatchObject({ rung: 'half', step: 'down', next: 'walk' });
    expect(stand([before], [choice])).toMatchObject({ rung: 'walk', step: 'stay', choice });
    expect(stand([before, row('2031-05-05', 'half')], [choice])).toMatchObject({ rung: 'walk' });
    expect(stand([before, row('2031-05-06', 'walk')], [choice])).toMatchObject({
      ...{ rung: 'walk', step: 'down', next: 'stand', reps: 12 },
    });
    expect(stand([before], [{ ...choice, rung: null }])).toMatchObject({ rung: 'half' });
  });
});
