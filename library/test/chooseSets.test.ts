import { bodyOf } from '@gravek/core/layout/body';
import type { Athlete } from '@gravek/contract/athlete';
import type { Needs } from '@gravek/contract/run';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { laddersOf } from '../src/cue/ladder';
import { movementOf } from '../src/movement/movements';
import { bestOffers, chooseSets, offersFor } from '../src/session/chooseSets';
import { needsOf } from '../src/session/needs';

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

describe('the best offers', () => {
  it('do as much as the best of all that could be tried, and fit', () => {
    const problem = fc.integer({ min: 1, max: 8 }).chain((needs) =>
      fc.record({
        weights: fc.array(fc.integer({ min: 1, max: 9 }), { minLength: needs, maxLength: needs }),
        offers: fc.array(
          fc.record({
            seconds: fc.integer({ min: 30, max: 900 }),
            serves: fc.uniqueArray(
              fc.record({
                need: fc.nat(needs - 1),
                share: fc.constantFrom(0.6, 1),
              }),
              { selector: (one) => one.need, maxLength: needs },
            ),
          }),
          { maxLength: 9 },
        ),
        seconds: fc.integer({ min: 0, max: 2400 }),
      }),
    );
    fc.assert(
      fc.property(problem, ({ weights, offers, seconds }) => {
        const timeOf = (chosen: readonly number[]): number =>
          chosen.reduce((sum, o) => sum + offers[o]!.seconds, 0);
        const best = Math.max(
          ...subsets(offers.length)
            .filter((chosen) => timeOf(chosen) <= seconds)
            .map((chosen) => worthOf(chosen, offers, weights)),
        );
        const chosen = bestOffers(
          offers,
          weights.map((weight) => ({ weight })),
          seconds,
        );
        expect(timeOf(chosen)).toBeLessThanOrEqual(seconds);
        expect(worthOf(chosen, offers, weights)).toBeGreaterThan(best - 0.02);
      }),
      { numRuns: 400 },
    );
  });
});

const athlete = (id: string, change: Partial<Athlete> = {}): Athlete =>
  ({
    id,
    name: id,
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

const ask = (athletes: Athlete[], known: Needs, on = '2031-05-14') => {
  let next = 0;
  const needs = needsOf(athletes, known, movementOf, on);
  const offers = offersFor(needs, {
    plans: [],
    athletes,
    bodies: new Map(athletes.map((athlete) => [athlete.id, bodyOf(athlete)])),
    finds: { planOf: () => undefined, movementOf },
    ground: null,
    conditions: { lanes: 1, people: athletes, on },
    newId: () => `set${(next += 1)}`,
  });
  return { needs, offers };
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
    const all = chooseSets(needs, offers, 3600);
    expect(all.leftOut).toEqual([]);
    const own = all.sets.find(({ reasons }) => reasons.some((reason) => reason.kind === 'cue'))!;
    expect(own.set.work).toMatchObject({ movement: jump.code, drill: worst!.drills[0] });
    expect(own.set.athleteIds).toEqual(['a', 'b']);
    expect(own.reasons).toEqual([{ kind: 'cue', what: `“${worst!.cue}”`, athleteIds: ['a', 'b'] }]);
    // With time for one of them it is the one that does more.
    const some = chooseSets(needs, offers, own.seconds);
    expect(some.sets.map((set) => set.set.id)).toEqual([own.set.id]);
    expect(some.leftOut).toMatchObject([{ kind: 'check', athleteIds: ['a', 'b', 'c'] }]);
    expect(some.leftOut[0]!.why).toMatch(/^no time: \d+ min more$/);
    // What is said to be missing is what is missing: a minute short is a minute.
    const check = Math.min(
      ...offers.flatMap(({ seconds, serves }) =>
        serves.some(({ need }) => needs[need]!.kind === 'check') ? [seconds] : [],
      ),
    );
    const nearly = chooseSets(needs, offers, own.seconds + check - 50);
    expect(nearly.leftOut[0]!.why).toBe('no time: 1 min more');
    expect(chooseSets(needs, offers, 0).sets).toEqual([]);
  });

  it('gives nobody what they are held back from, and says so', () => {
    const hurt = { kind: 'pain', from: '2031-05-01', until: null, share: 0.5, note: '' };
    const athletes = [athlete('a', { restrictions: [hurt as never] })];
    const known = { cues: [cue('a', jump.code, worst!.code)], rungs: [], ...NO_LADDER };
    const { needs, offers } = ask(athletes, known);
    const choice = chooseSets(needs, offers, 3600);
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
    const sets = chooseSets(needs, offers, 7200).sets.map((set) => set.set);
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
    const [set] = chooseSets(needs, offers, 3600).sets.filter(({ reasons }) =>
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
