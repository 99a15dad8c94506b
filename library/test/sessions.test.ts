import { type Body, bodyOf } from '@gravek/core/layout/body';
import { keptVariants, struckKey, variantFrom, variantsOf } from '@gravek/core/session/variants';
import type { DrillSet, Work } from '@gravek/contract/drillSet';
import type { Movement } from '@gravek/contract/movement';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chainCode } from '../src/movement/chains';
import { movementOf, MOVEMENTS } from '../src/movement/movements';
import { solve } from '../src/planning/solvePlan';
import { bodyLoad } from '../src/session/bodyLoad';
import { fieldBase, fieldRun, movementCode } from '../src/session/fieldRun';
import { mends } from '../src/session/mend';
import { rotationAxis } from '../src/session/rotationAxis';
import { sessionFigures, solveRuns } from '../src/session/sessionFigures';
import { asDrillSet, freshDrillSet } from '../src/session/sessionFit';
import { loadsOf, mostLoaded, sessionLoads, weekLimit } from '../src/session/sessionLoad';
import {
  drillSetTime,
  makeRate,
  sessionReps,
  type SetTime,
  suggestedRestS,
} from '../src/session/sessionTime';
import { allOf } from '../src/session/spentTime';
import { placed, twoPlaces } from '../src/session/timeAxis';
import { targetWords, variantWords, variesWords } from '../src/session/setWords';
import {
  asVaried,
  type Base,
  baseOf,
  demandOfSet,
  type Finds,
  keepSolved,
  notJoined,
  plainChoices,
  solvedOf,
  variedRun,
} from '../src/session/work';

const finds: Finds = {
  planOf: () => undefined,
  movementOf: (code) => {
    try {
      return movementOf(code);
    } catch {
      return undefined;
    }
  },
};
const body = (change: object = {}): Body =>
  bodyOf({
    hand: 'right',
    takeoffFoot: 'left',
    trials: [],
    heightM: 1.8,
    legM: null,
    shoeM: null,
    ...change,
  });
const ADULT = body();
const LEFT = body({ hand: 'left', takeoffFoot: 'right' });
const CHILD = body({ heightM: 1.4, ageYears: 10 });

const work = (movement: string, drill: string | null = null): Work => ({
  kind: 'movement',
  movement,
  drill,
});
const people = (n: number): string[] => Array.from({ length: n }, (_, i) => `p${i}`);
const setOf = (work: Work, n: number, change: Partial<DrillSet> = {}): DrillSet => ({
  ...freshDrillSet('s', work, people(n)),
  ...change,
});
const vary = (change: Partial<DrillSet['vary']>): DrillSet['vary'] => ({
  ...freshDrillSet('s', work('gaps'), []).vary,
  ...change,
});
const base = (work: Work): Base => baseOf(work, finds)!;

describe('what a combination makes of the work', () => {
  it('runs every movement slower at a slower pace, for each body', () => {
    for (const movement of MOVEMENTS) {
      const own = base(work(movement.code));
      for (const body of [ADULT, LEFT, CHILD]) {
        const at = (pace: number) =>
          variedRun(own, variantFrom(`pace=${pace}`, 'own'), body).outline;
        const [full, half] = [variedRun(own, variantFrom('', 'own'), body).outline, at(0.5)];
        expect(full, movement.code).not.toBeNull();
        expect(half!.totalTimeS, movement.code).toBeGreaterThan(full!.totalTimeS - 1e-9);
      }
    }
  });

  it('leads with the foot that is asked, whoever it is', () => {
    for (const code of ['close-and-shorten', 'wall-switches', 'slide-close-out', 'gaps']) {
      for (const body of [ADULT, LEFT, CHILD]) {
        for (const foot of ['left', 'right'] as const) {
          const run = variedRun(base(work(code)), variantFrom(`lead=${foot}`, 'own'), body);
          expect(run.outline!.firstFoot, code).toBe(foot);
        }
      }
    }
  });

  it('takes the exit that is asked, and logs a chain by its parts', () => {
    const stutter = base(work('stutter-read-go'));
    const read = stutter.movement!.phases.find((phase) => phase.read)!;
    const [first, second] = read.read!.options;
    const way = (option: string) =>
      variedRun(stutter, variantFrom(`exit=${read.code}:${option}`, 'own'), ADULT).phases;
    expect(way(first!.code)).toContain(first!.to);
    expect(way(second!.code)).not.toEqual(way(first!.code));

    const chain = base(work(chainCode(['jab-cross', 'floater'])));
    const other = variantFrom('move=hesitation end=near-side', 'own');
    expect(movementCode(chain, other)).toBe('hesitation--near-side');
    expect(movementCode(chain, variantFrom('end=reverse', 'own'))).toBe('jab-cross--reverse');
    expect(movementCode(base({ kind: 'warm-up', name: 'Squats' }), other)).toBeNull();
    expect(variantWords(chain, other)).toEqual(['Hesitation', 'near side']);
  });

  it('says which moves and endings cannot be joined, and why; struck out, nothing is wrong', () => {
    const chain = base(work(chainCode(['jab-cross', 'floater'])));
    const set = setOf(work(chainCode(['jab-cross', 'floater'])), 3, {
      vary: vary({ moves: ['jab-rise', 'jab-cross'], endings: ['floater', 'near-side'] }),
    });
    const apart = notJoined(chain, set);
    for (const { variant, why } of apart) {
      expect(why.length).toBeGreaterThan(10);
      expect(asVaried({ movement: chain.movement!, choices: chain.choices! }, variant)).toEqual({
        why,
      });
    }
    const struck = apart.map(({ variant }) => struckKey(variant));
    expect(notJoined(chain, { ...set, struck })).toEqual([]);
    expect(keptVariants({ ...set, struck })).toHaveLength(4 - apart.length);
  });

  it('bars from a set whoever is barred from one of its combinations', () => {
    const set = setOf(work('close-and-shorten'), 1, { vary: vary({ paces: [0.25] }) });
    expect(demandOfSet(base(set.work), set)).not.toContain('sprint');
    const both = { ...set, vary: vary({ paces: [0.25, 1] }) };
    expect(demandOfSet(base(set.work), both)).toContain('sprint');
  });

  it('is on a phone what it was solved to with the plan, and solved there when it differs', () => {
    const own = base(work('give-ground'));
    const { outline } = variedRun(own, variantFrom('', 'own'), ADULT);
    const kept = { ...outline!, totalTimeS: 99 };
    const plan = {
      drillSetId: 'd',
      name: 'Mirror',
      movement: 'give-ground',
      choices: own.choices,
      cautions: [],
      outlines: [{ athleteId: 'ana', own: kept, other: null }],
    };
    const ana = { id: 'ana', body: ADULT };
    const on = fieldBase(plan, movementOf);
    expect(fieldRun(plan, on, variantFrom('', 'own'), ana).outline!.totalTimeS).toBe(99);
    expect(fieldRun(plan, on, variantFrom('pace=0.5', 'own'), ana).outline!.totalTimeS).not.toBe(
      99,
    );
    expect(
      fieldRun(plan, on, variantFrom('pace=0.5', 'own'), { ...ana, body: null }).outline,
    ).toBeNull();
  });
});

describe('what is put on a body', () => {
  it('counts feet, take-offs, throws and fast metres of every movement', () => {
    for (const movement of MOVEMENTS) {
      for (const body of [ADULT, LEFT, CHILD]) {
        const load = bodyLoad(solve(movement, plainChoices(movement, null), body), body)!;
        expect(load.contacts, movement.code).toBeGreaterThan(0);
        for (const part of Object.values(load)) expect(part).toBeGreaterThanOrEqual(0);
        expect(load.jumps > 0, movement.code).toBe(hasFlight(movement));
      }
    }
    const runUp = movementOf('straight-run-up');
    const load = bodyLoad(solve(runUp, plainChoices(runUp, null), ADULT), ADULT)!;
    expect(load.sprintM).toBeGreaterThan(10);
    expect(bodyLoad({ layout: null }, ADULT)).toBeNull();
  });

  /** Whether anybody leaves the ground in a movement as it is planned. */
  const hasFlight = (movement: Movement): boolean =>
    solve(movement, plainChoices(movement, null), ADULT).layout!.footfalls.some(
      (fall) => fall.takeOff,
    );

  it('adds up per athlete: reps, rounds, combinations, fewer for reduced volume', () => {
    const set = setOf(work('gaps'), 2, {
      sets: 2,
      reps: 4,
      vary: vary({ sides: ['own', 'other'] }),
    });
    const bodies = new Map(people(2).map((id) => [id, ADULT]));
    const reduced = { kind: 'reduced' as const, from: '2031-01-01', until: null, share: 0.5 };
    const [loads] = loadsOf({
      sets: [{ set, base: base(set.work) }],
      bodies: [...bodies],
      conditions: { people: [{ id: 'p1', restrictions: [reduced] }], on: '2031-05-01' },
      makes: [],
    });
    const once = variedRun(base(set.work), variantFrom('', 'own'), ADULT).load!.contacts;
    expect(loads!.get('p0')!.contacts).toBe(16 * once);
    expect(loads!.get('p1')!.contacts).toBe(8 * once);
    const both = sessionLoads([loads!, loads!]);
    expect(both.get('p0')!.contacts).toBe(32 * once);
  });

  it('points out who has most, and first of all whoever is over the club’s limit', () => {
    const none = { contacts: 0, jumps: 0, throws: 0, sprintM: 0 };
    const loads = new Map([
      ['ana', { ...none, jumps: 30 }],
      ['bo', { ...none, jumps: 20 }],
    ]);
    const weeks = {
      before: Array(4).fill({ ...none, jumps: 20 }),
      thisWeek: { ...none, jumps: 5 },
    };
    const [most] = mostLoaded(
      loads,
      () => weeks,
      () => null,
    );
    expect(most).toMatchObject({ kind: 'jumps', athleteId: 'ana', here: 30, week: 35 });
    expect(most!.check).toMatchObject({ usual: 20, level: 'much-more' });
    const [over] = mostLoaded(
      loads,
      () => undefined,
      (id) => (id === 'bo' ? 15 : 40),
    );
    expect(over).toMatchObject({ athleteId: 'bo', over: true, limit: 15 });
    expect(
      mostLoaded(
        new Map([['ana', none]]),
        () => weeks,
        () => null,
      ),
    ).toEqual([]);
  });
});

describe('a limit of a week', () => {
  const limits = [
    { kind: 'jumps', upToAge: 17, week: 80 },
    { kind: 'jumps', upToAge: 12, week: 40 },
    { kind: 'contacts', upToAge: 12, week: 600 },
  ] as const;
  it.each([
    [2019, 'jumps', 40],
    [2018, 'jumps', 80],
    [2014, 'jumps', 80],
    [2013, 'jumps', null],
    [2018, 'contacts', null],
    [2025, 'throws', null],
    [null, 'jumps', null],
  ] as const)('for somebody born in %s: %s at most %s', (born, kind, week) => {
    // Whoever turns thirteen in the year is beyond twelve all of it.
    expect(weekLimit([...limits], born, '2031-05-14', kind)).toBe(week);
  });
});

describe('once round', () => {
  const of = (change: Partial<DrillSet>, people: number) => {
    const ids = Array.from({ length: people }, (_, i) => `a${i}`);
    const set = { ...freshDrillSet('s', { kind: 'warm-up', name: '' }, ids), ...change };
    return rotationAxis(set, drillSetTime(set, null, undefined, { lanes: 3 }));
  };
  it('has everybody perform once and nobody do two things, and is as long as its shifts', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 60 }),
        fc.constantFrom<Partial<DrillSet>>(
          { stand: 'turns' },
          { stand: 'pairs' },
          { stand: 'roles', helpers: ['feeder', 'collector'] },
        ),
        (people, change) => {
          const axis = of(change, people)!;
          expect(axis.rows).toHaveLength(people);
          for (const { parts } of axis.rows) {
            expect(parts).toHaveLength(axis.shifts);
            expect(parts.filter((part) => part === 0)).toHaveLength(1);
          }
          expect(axis.shiftS).toBeGreaterThan(0);
        },
      ),
    );
    expect(of({ stand: 'row' }, 12)).toBeNull();
    expect(of({ stand: 'turns' }, 1)).toBeNull();
  });
});

describe('minutes', () => {
  const time = (set: DrillSet, lanes = 1) => drillSetTime(set, base(set.work), ADULT, { lanes })!;

  it('fall with lanes, and a row on a call takes as long as one', () => {
    const turns = setOf(work('give-ground'), 12, { restS: 0 });
    expect(time(turns, 3).totalS).toBeLessThan(time(turns, 1).totalS / 2);
    const row = time({ ...turns, stand: 'row' });
    const other = time({ ...turns, stand: 'row', athleteIds: ['p0'] });
    expect(row.totalS).toBeCloseTo(other.totalS, 6);
    expect(row.performing).toBe(12);
    expect(time({ ...turns, stand: 'pairs' }).performing).toBe(6);
    const roles = { ...turns, stand: 'roles' as const, helpers: ['feeder' as const] };
    expect(time(roles, 9).performing).toBe(6);
    const standing = ({ spent, totalS }: SetTime): number => spent.standS / totalS;
    expect(standing(time(roles, 2))).toBeLessThan(standing(time(turns, 2)));
    const stations = {
      ...turns,
      stand: 'stations' as const,
      vary: vary({ rungs: ['walk', 'full'] }),
    };
    expect(time(stations).performing).toBe(2);
  });

  it('allow for what was missed to come once more, but not for whoever may do fewer reps', () => {
    const makes = setOf(work('two-step-finish'), 2, {
      target: 'makes',
      amount: 3,
      reps: 4,
      sets: 1,
    });
    const again = { ...makes, retryMissed: true };
    expect(time(again).reps).toBeGreaterThan(time(makes).reps);
    expect(time(again).reps).toBeCloseTo(time({ ...makes, reps: 8 }).reps, 9);
    expect(time({ ...again, stand: 'stations' }).reps).toBe(
      time({ ...makes, stand: 'stations' }).reps,
    );
    const reduced = { kind: 'reduced' as const, share: 0.5, from: '2031-01-01', until: null };
    const most = (drillSet: DrillSet) =>
      sessionReps({ date: '2031-02-01', drillSets: [drillSet] }, [
        { id: 'p0', restrictions: [reduced] },
      ]);
    expect([most(makes), most(again)]).toEqual([2 + 4, 2 + 8]);
    expect(targetWords(again)).toBe('3 makes, on after 4; what was missed once more');
  });

  it('never fall when there is more to do, for any set', () => {
    fc.assert(
      fc.property(
        fc.record({
          n: fc.integer({ min: 1, max: 30 }),
          sets: fc.integer({ min: 1, max: 4 }),
          reps: fc.integer({ min: 1, max: 8 }),
          stand: fc.constantFrom<DrillSet['stand']>('turns', 'row', 'pairs', 'stations', 'roles'),
          lanes: fc.integer({ min: 1, max: 5 }),
          makes: fc.boolean(),
        }),
        ({ n, sets, reps, stand, lanes, makes }) => {
          const set = setOf(work('wall-switches'), n, {
            sets,
            reps,
            stand,
            helpers: ['feeder'],
            ...(makes ? { target: 'makes' as const, amount: 1 } : {}),
          });
          const now = time(set, lanes);
          expect(Math.min(...Object.values(now.spent))).toBeGreaterThanOrEqual(0);
          expect(now.spent.workS).toBeGreaterThan(0);
          expect(allOf(now.spent)).toBeCloseTo(now.totalS, 6);
          expect(time({ ...set, reps: reps + 1 }, lanes).totalS).toBeGreaterThan(now.totalS);
          expect(time({ ...set, sets: sets + 1 }, lanes).totalS).toBeGreaterThan(now.totalS);
          const both = { ...set, vary: vary({ sides: ['own', 'other'] }) };
          if (stand !== 'stations') expect(time(both, lanes).totalS).toBeGreaterThan(now.totalS);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('of makes follow from own rates, a half until ten tries are counted', () => {
    expect([makeRate(undefined), makeRate({ tried: 9, made: 9 })]).toEqual([0.5, 0.5]);
    expect(makeRate({ tried: 20, made: 18 })).toBeCloseTo(18.5 / 21, 9);
    const set = setOf(work('two-step-finish'), 4, { target: 'makes', amount: 4, reps: 12 });
    const reps = (tried: number, made: number): number =>
      drillSetTime(set, base(set.work), ADULT, { makesOf: () => ({ tried, made }) })!.reps;
    expect(reps(40, 36)).toBeLessThan(reps(40, 12));
    expect(reps(40, 40)).toBeGreaterThanOrEqual(4 * 4 * set.sets);
  });

  it('go on a time axis one after the other, or beside; who would be in two places is told', () => {
    const at = placed(
      [{ beside: false }, { beside: false }, { beside: true }, { beside: false }],
      [60, 100, 30, 10],
    );
    expect(at).toEqual([
      { startS: 0, endS: 60 },
      { startS: 60, endS: 160 },
      { startS: 60, endS: 90 },
      { startS: 160, endS: 170 },
    ]);
    const sets = [['a'], ['a', 'b'], ['b', 'c'], ['c']].map((athleteIds) => ({ athleteIds }));
    expect([...twoPlaces(sets, at)]).toEqual([[2, ['b']]]);
    // The first has nothing to stand beside.
    expect(placed([{ beside: true }], [5])).toEqual([{ startS: 0, endS: 5 }]);
  });

  it('ask for more rest the farther and the faster', () => {
    expect(suggestedRestS(20, 1)).toBe(120);
    expect(suggestedRestS(20, 0.5)).toBe(15);
    expect(suggestedRestS(200, 1)).toBe(300);
  });
});

describe('a session that does not fit', () => {
  const set = setOf(work('close-and-shorten'), 12, {
    reps: 6,
    vary: vary({ paces: [0.5, 1], leadFeet: ['left', 'right'] }),
  });
  const ask = (drillSets: DrillSet[], slotS: number | null) =>
    sessionFigures({
      drillSets,
      baseOfSet: (set) => base(set.work),
      bodies: new Map(people(12).map((id) => [id, ADULT])),
      conditions: { lanes: 3 },
      slotS,
    });

  it('is offered changes that save what they say, the one that is enough first', () => {
    const long = ask([{ ...set, lanes: 1 }], null);
    const figures = ask([{ ...set, lanes: 1 }], long.totalS - 300);
    expect(figures.overS).toBeCloseTo(300, 6);
    const { mends: offers } = figures.sets[0]!;
    expect(offers.length).toBeGreaterThan(1);
    for (const offer of offers) {
      const then = ask([offer.set], null);
      expect(long.totalS - then.totalS).toBeCloseTo(offer.savesS, 6);
    }
    expect(offers[0]!.savesS).toBeGreaterThanOrEqual(300);
    expect(mends(set, 0, 3, () => 100)).toEqual([]);
  });

  it('says so on the line that goes beyond, not on those before', () => {
    const short = { ...set, id: 'a', reps: 1 };
    const whole = ask([short, { ...set, id: 'b' }], null);
    const figures = ask([short, { ...set, id: 'b' }], whole.totalS - 60);
    expect(figures.sets.map((set) => Math.round(set.overS))).toEqual([0, 60]);
    expect(whole.sets.every((set) => set.overS === 0 && set.mends.length === 0)).toBe(true);
  });

  it('has nothing to say of an empty one, nor breaks on figures that are half typed', () => {
    expect(ask([{ ...set, sets: NaN }, set], null).reps).toBe(12 * 2 * 2 * 6 * set.sets);
    expect(ask([], 600)).toMatchObject({ totalS: 0, overS: 0, spent: null, people: 0 });
    for (const change of [
      { reps: 0 },
      { sets: NaN },
      { amount: -30, target: 'seconds' as const },
    ]) {
      expect(ask([{ ...set, ...change }], 600).totalS).toBe(0);
    }
    const out = { ...set, struck: variantsOf(set.vary).map(struckKey) };
    expect(ask([out], 600).sets[0]!.time).toBeNull();
  });
});

describe('runs that are solved elsewhere', () => {
  it('are all that the figures ask for, and give the same figures', () => {
    const sets = ['close-and-shorten', 'straight-run-up', 'jab-and-go'].map((code) =>
      setOf(work(code), 3, { id: code, vary: vary({ paces: [0.5, 1], sides: ['own', 'other'] }) }),
    );
    const [adult, left, child] = [body(), body({ hand: 'left' }), body({ heightM: 1.4 })];
    const bodies = new Map([adult, left, child].map((body, i) => [`p${i}`, body]));
    const ask = (of: typeof bodies) => ({
      ...{ drillSets: sets, baseOfSet: (set: DrillSet) => base(set.work), bodies: of },
      ...{ conditions: { lanes: 2 }, slotS: 600 },
    });
    const there = structuredClone(bodies);
    solveRuns({ ...ask(there), baseOfSet: (set) => structuredClone(base(set.work)) });
    for (const [id, other] of bodies) keepSolved(other, structuredClone(solvedOf(there.get(id)!)));
    const kept = [...bodies.values()].map((body) => solvedOf(body).length);
    expect(Math.min(...kept)).toBeGreaterThan(0);

    const figures = sessionFigures(ask(bodies));
    expect([...bodies.values()].map((body) => solvedOf(body).length)).toEqual(kept);
    expect(figures).toEqual(sessionFigures(ask(structuredClone(bodies))));
  });
});

describe('the kinds of load', () => {
  it.each(MOVEMENTS.map(({ code }) => code))('that %s has are those that are reckoned', (code) => {
    const set = setOf(work(code), 2, { vary: vary({ sides: ['own', 'other'] }) });
    const bodies = new Map(people(2).map((id) => [id, body()]));
    const { loadKinds } = sessionFigures({
      ...{ drillSets: [set], baseOfSet: (set: DrillSet) => base(set.work), bodies },
      ...{ conditions: {}, slotS: null },
    });
    const loads = loadsOf({
      sets: [{ set, base: base(set.work) }],
      bodies: [...bodies],
      conditions: {},
      makes: [],
    });
    const most = mostLoaded(
      sessionLoads(loads),
      () => undefined,
      () => null,
    );
    expect(most.map((one) => one.kind)).toEqual(loadKinds);
    expect(loadKinds).toContain('contacts');
  });
});

describe('a line of words', () => {
  it('says how a set varies and until when', () => {
    const chain = work(chainCode(['jab-cross', 'floater']));
    const set = setOf(chain, 2, {
      vary: vary({
        moves: ['jab-cross', 'jab-straight', 'hesitation'],
        endings: ['near-side', 'floater'],
        sides: ['own', 'other'],
      }),
      order: 'mixed',
      target: 'makes',
      amount: 5,
      reps: 8,
    });
    expect(variesWords(base(chain), set)).toBe('3 moves × 2 endings × both sides: 12, mixed');
    expect(targetWords(set)).toBe('5 makes of each, on after 8');
    expect(variesWords(base(chain), setOf(chain, 2))).toBe('');
    expect(targetWords(setOf(chain, 2))).toBe('4 reps');
  });

  it('reads a set of before as it was', () => {
    const before = {
      id: 'd',
      approachId: 'a',
      athleteIds: ['p'],
      pace: 0.5,
      sides: ['other' as const],
      ...{ sets: 3, reps: 2, restS: 10, setRestS: 20 },
    };
    const now = asDrillSet(before);
    expect(now).toMatchObject({ work: { kind: 'plan', approachId: 'a' }, sets: 3, reps: 2 });
    expect(now.vary).toMatchObject({ sides: ['other'], paces: [0.5] });
    expect(asDrillSet(now)).toBe(now);
  });
});
