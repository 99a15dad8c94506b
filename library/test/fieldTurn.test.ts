import { bodyOf } from '@gravek/core/layout/body';
import { inLogOrder, standing, turnKey } from '@gravek/core/session/repLog';
import type { Turn } from '@gravek/core/session/runOrder';
import { variantFrom } from '@gravek/core/session/variants';
import type { DrillSet } from '@gravek/contract/drillSet';
import type { RunAthlete, RunPlan } from '@gravek/contract/run';
import type { NewRep, StoredRep } from '@gravek/contract/session';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fieldRow, pressOf, repOf, type FieldRow, type Seen } from '../src/field/log';
import { spareTime } from '../src/field/spareTime';
import { drillSetTime } from '../src/session/sessionTime';
import { ownLists } from '../src/field/ownList';
import { marksFrom, NOTHING_PRESSED, pressed, type Press } from '../src/field/press';
import { exitsToRead } from '../src/field/reads';
import { rowCalls, wordsOfRow } from '../src/field/row';
import {
  isCountedAlone,
  isRow,
  setOrder,
  setRun,
  setWorks,
  type FieldSession,
} from '../src/field/sets';
import { phasesOfRep } from '../src/field/shows';
import { filmedRows, voidOf } from '../src/field/takenBack';
import { turnView } from '../src/field/turn';
import { movementOf } from '../src/movement/movements';
import { readsTo } from '../src/planning/plan';
import {
  addResults,
  fewestMade,
  resultsOfCounts,
  slowsBy,
  splitsOf,
  type ResultCount,
} from '../src/cue/results';
import { freshDrillSet } from '../src/session/sessionFit';
import { toldTo } from '../src/movement/sides';
import { baseOf, plainChoices } from '../src/session/work';

const giveGround = movementOf('give-ground');
const athlete = (id: string, change: Partial<RunAthlete> = {}): RunAthlete => ({
  ...{ id, name: `${id} of the hall`, hand: 'right', takeoffFoot: 'left', shoeM: null },
  ...{ archived: false, restrictions: [] },
  body: bodyOf({
    ...{ hand: 'right', takeoffFoot: 'left', trials: [], heightM: 1.8, legM: null, shoeM: null },
  }),
  ...change,
});
const PEOPLE = ['ana', 'bo', 'cy'];

const aSet = (change: Partial<DrillSet> = {}): DrillSet => ({
  ...freshDrillSet('d1', { kind: 'movement', movement: 'give-ground', drill: null }, PEOPLE),
  ...{ sets: 1, reps: 4, call: null },
  ...change,
});
const planOf = (set: DrillSet): RunPlan => ({
  ...{ drillSetId: set.id, name: giveGround.name, movement: giveGround.code },
  ...{ choices: plainChoices(giveGround, null), cautions: [], outlines: [] },
});
const bundleOf = (set: DrillSet) => ({
  session: { drillSets: [set] } as never,
  plans: [planOf(set)],
  cues: [],
});
const workOf = (set: DrillSet) => setWorks(bundleOf(set), movementOf)[0]!;
const atField = (set: DrillSet, change: Partial<FieldSession> = {}, late: string[] = []) =>
  setRun(workOf(set), setOrder({ set }, late), {
    ...{ athletes: PEOPLE.map((id) => athlete(id)), log: [], painElsewhere: new Map() },
    ...{ device: 'phone', first: null, lanes: 1, today: '2031-05-14' },
    ...change,
  });
let made = 0;
const named = () => ({
  id: `r${(made += 1)}`,
  sessionId: 's1',
  at: `2031-05-14T10:00:${String(made % 60).padStart(2, '0')}.000Z`,
});
const stored = (rep: NewRep): FieldRow =>
  fieldRow({ ...rep, device: 'phone', deviceNo: (made += 1) });

const turnOf = (set: DrillSet): Turn => atField(set).state.up!;
const on = (change: object = {}) => ({
  turn: turnOf(aSet()),
  set: { target: 'attempts' as const, amount: 1 },
  movement: giveGround,
  wanted: 'give:left',
  cue: 'on-heels',
  ...change,
});

describe('a press in a turn', () => {
  it('marks and unmarks; an answer takes along what is marked and leaves nothing for the next', () => {
    const one = pressed(NOTHING_PRESSED, { press: 'fault', fault: 'on-heels' }, on());
    expect(one).toMatchObject({ marks: { faults: ['on-heels'] }, answer: null });
    expect(pressed(one.marks, { press: 'fault', fault: 'on-heels' }, on()).marks.faults).toEqual(
      [],
    );
    const { marks, answer } = pressed(one.marks, { press: 'log' }, on());
    expect(answer).toMatchObject({ outcome: 'fault', faults: ['on-heels'], cue: 'on-heels' });
    expect(marks).toEqual(NOTHING_PRESSED);
    expect(pressed(NOTHING_PRESSED, { press: 'log' }, on()).answer?.outcome).toBe('clean');
    expect(pressed(NOTHING_PRESSED, { press: 'log' }, on({ movement: null })).answer?.outcome).toBe(
      'done',
    );
    expect(pressed(one.marks, { press: 'pain' }, on()).answer?.outcome).toBe('pain');
  });

  it('that says the wrong way asks what else showed, and can be taken back', () => {
    const way = { press: 'way', exit: 'give:right', lateS: 0.613, lateBy: 'sound' } as const;
    const { marks, answer } = pressed(NOTHING_PRESSED, way, on());
    expect(answer).toBeNull();
    expect(marks.faults).toEqual(['wrong-side']);
    expect(pressed(marks, { press: 'not-that-way' }, on()).marks).toEqual(NOTHING_PRESSED);
    const logged = pressed(marks, { press: 'log' }, on()).answer;
    expect(logged).toMatchObject({ taken: 'give:right', exit: 'give:left', outcome: 'fault' });
    expect(logged).toMatchObject({ lateS: 0.61, lateBy: 'sound' });
    // The right way is an answer at once; nothing that comes late is timed.
    const late = { ...way, exit: 'give:left', lateS: 3.2, lateBy: 'tap' } as const;
    expect(pressed(NOTHING_PRESSED, late, on()).answer).toMatchObject({
      ...{ taken: 'give:left', lateS: null, lateBy: null, outcome: 'clean' },
    });
    expect(
      pressed(NOTHING_PRESSED, { ...way, lateS: null }, on({ wanted: null })).answer,
    ).toMatchObject({ taken: 'give:right', exit: null, lateS: null, lateBy: null });
  });

  it('that is no hold asks what was meant; said again it counts', () => {
    const short = pressed(NOTHING_PRESSED, { press: 'held', seconds: 0.3 }, on());
    expect(short).toMatchObject({ marks: { askedS: 0.3 }, answer: null });
    expect(pressed(short.marks, { press: 'hold-again' }, on()).marks.askedS).toBeNull();
    expect(pressed(short.marks, { press: 'held', seconds: 0.3 }, on()).answer?.heldS).toBe(0.3);
    expect(pressed(NOTHING_PRESSED, { press: 'held', seconds: 0.5 }, on()).answer?.heldS).toBe(0.5);
  });

  it('counts touches up to what is asked, in order, and logs only when it is told to', () => {
    const touches = on({ set: { target: 'touches', amount: 3 } });
    const run = (list: readonly Press[]) =>
      list.reduce((marks, press) => pressed(marks, press, touches).marks, NOTHING_PRESSED);
    const at = (atS: number): Press => ({ press: 'touched', atS });
    const marks = run([at(0), at(1.204), at(1.1), at(2), at(2.5), at(3)]);
    expect(marks.touchS).toEqual([0, 1.2, 2]);
    expect(pressed(marks, { press: 'log' }, touches).answer).toMatchObject({
      outcome: 'clean',
      touchS: [0, 1.2, 2],
    });
    expect(run([at(0), at(1), { press: 'touches-anew' }]).touchS).toEqual([]);
    // A count that was taken back is not gone on with: its clock has stopped.
    const back = { ...NOTHING_PRESSED, touchS: [0, 1.2] };
    expect(pressed(back, at(0), touches).marks.touchS).toEqual([0]);
    expect(pressed(marks, { press: 'log' }, on()).answer).not.toHaveProperty('touchS');
  });

  it('has what was tapped again once its answer was taken back', () => {
    const row = stored({
      ...repOf(
        workOf(aSet()),
        athlete('ana'),
        seenOf({ outcome: 'fault', faults: ['on-heels'] }),
        named(),
      ),
      ...{ touchS: [0, 1], heldS: 3.2, ranS: 61 },
    });
    expect(marksFrom(giveGround, row)).toMatchObject({
      ...{ faults: ['on-heels'], touchS: [0, 1], askedS: 3.2, ranS: 61 },
    });
    expect(marksFrom(giveGround, null)).toEqual(NOTHING_PRESSED);
  });
});

const seenOf = (change: Partial<Seen>): Seen => ({
  turn: turnOf(aSet()),
  outcome: 'clean',
  ...change,
});

describe('the row that a press logs', () => {
  const log = (set: DrillSet, seen: Partial<Seen>): NewRep =>
    repOf(workOf(set), athlete('ana'), { ...seenOf(seen), turn: turnOf(set) }, named());

  it('says what could be seen, and calls a wrong answer a fault', () => {
    const clean = log(aSet(), { exit: 'give:left', taken: 'give:left' });
    expect(clean).toMatchObject({ outcome: 'clean', right: true, faults: [] });
    expect(clean.could).toContain('wrong-side');
    const wrong = log(aSet(), { exit: 'give:left', taken: 'give:right' });
    expect(wrong).toMatchObject({ outcome: 'fault', right: false, faults: ['wrong-side'] });
    expect(log(aSet(), { outcome: 'skip' })).toMatchObject({ load: null, could: [], faults: [] });
  });

  it('counts metres and minutes where the set asks for them, by the clock or by a device', () => {
    const measured = {
      ...{ by: 'pod' as const, simulated: false, steps: [], perMinute: true },
      course: [0, 60].map((atS) => ({
        ...{ atS, cadenceSpm: 170, speedMps: 3, plannedSpm: null, plannedMps: null },
      })),
    };
    const metres = aSet({ target: 'metres', amount: 400 });
    expect(log(metres, { ranS: 61.2 })).toMatchObject({ ranM: 400, ranS: 61.2 });
    expect(log(metres, {})).toMatchObject({ ranM: 400, ranS: null });
    const minutes = aSet({ target: 'minutes', amount: 5 });
    expect(log(minutes, { measured })).toMatchObject({ ranM: 360, ranS: 120 });
    expect(log(minutes, { measured: { ...measured, simulated: true } })).toMatchObject({
      ...{ ranM: null, ranS: null },
    });
    expect(log(minutes, { outcome: 'skip', ranS: 20 })).toMatchObject({ ranM: null, ranS: null });
    expect(log(aSet(), { measured, ranS: 5 })).toMatchObject({ ranM: null, ranS: null });
  });

  it('is taken back within its turn, and nothing of another turn changes', () => {
    const set = aSet();
    const turns = setOrder({ set }, []).turns;
    fc.assert(
      fc.property(fc.array(fc.nat({ max: turns.length - 1 }), { maxLength: 12 }), (picks) => {
        const rows: FieldRow[] = [];
        for (const pick of picks) {
          const turn = turns[pick]!;
          const key = turnKey(turn);
          const before = standing(rows).filter((row) => turnKey(row) !== key);
          const stands = standing(rows).find((row) => turnKey(row) === key);
          rows.push(
            stored(
              stands
                ? voidOf(stands, named())
                : repOf(workOf(set), athlete(turn.athleteId), { turn, outcome: 'clean' }, named()),
            ),
          );
          expect(standing(rows).filter((row) => turnKey(row) !== key)).toEqual(before);
          expect(standing(rows).some((row) => turnKey(row) === key)).toBe(!stands);
        }
      }),
    );
  });

  it('of a film takes the place of all that was logged of its rep, and a hold stays too short', () => {
    const set = aSet({ target: 'seconds', amount: 3 });
    const asStored = (rep: NewRep, arrival: number): StoredRep => ({
      ...{ ...rep, device: 'phone', deviceNo: arrival, arrival },
    });
    const logged = [
      asStored(log(set, { heldS: 2 }), 1),
      asStored({ ...log(set, { heldS: 2 }), faults: ['shaded'] }, 2),
    ] as [StoredRep, StoredRep];
    const rows = filmedRows(
      set,
      logged,
      { faults: [], measured: null, reactionS: 0.42 },
      () => named().id,
      '2031-05-15T08:00:00.000Z',
    );
    expect(rows.map(({ outcome, voids }) => [outcome, voids])).toEqual([
      ['void', logged[0].id],
      ['void', logged[1].id],
      ['fault', null],
    ]);
    expect(rows[2]).toMatchObject({
      faults: ['shaded'],
      watched: true,
      lateS: 0.42,
      lateBy: 'film',
    });
    const alone = filmedRows(
      set,
      [logged[0]],
      { faults: [], measured: null, reactionS: null },
      () => named().id,
      '2031-05-15T08:00:00.000Z',
    );
    expect(alone[1]).toMatchObject({ outcome: 'fault', faults: [], lateS: null });
  });
});

describe('a drill set under way', () => {
  it('has one up where makes, touches or seconds count, and a whole row where they do not', () => {
    const row = aSet({ stand: 'row' });
    expect(atField(row).now).toHaveLength(3);
    expect(isRow(workOf(row))).toBe(true);
    for (const target of ['makes', 'touches', 'seconds'] as const) {
      const alone = workOf(aSet({ stand: 'row', target, amount: 2 }));
      expect(isCountedAlone(alone)).toBe(true);
      expect(atField(alone.set).now).toHaveLength(1);
    }
    expect(isRow(workOf(aSet({ stand: 'row', target: 'minutes', amount: 5 })))).toBe(true);
    // All hold a plank together: of a warm-up nobody counts one by one.
    const plank = aSet({ stand: 'row', target: 'seconds', amount: 30 });
    expect(
      isRow({ ...workOf(plank), base: { name: 'Plank', movement: null, choices: null } }),
    ).toBe(true);
  });

  it('passes over who has left, lets in who comes late, and takes back one press as a whole', () => {
    const set = aSet({ stand: 'row' });
    const work = workOf(set);
    const order = setOrder({ set }, ['dee']);
    const at = { ...named(), at: '2031-05-14T11:00:00.000Z' };
    const log = order.turns
      .filter(({ rep }) => rep === 1)
      .map((turn) =>
        stored(
          repOf(
            work,
            athlete(turn.athleteId),
            { turn, outcome: turn.athleteId === 'bo' ? 'pain' : 'clean' },
            { ...at, id: named().id },
          ),
        ),
      );
    const now = atField(set, { log, athletes: [...PEOPLE, 'dee'].map((id) => athlete(id)) }, [
      'dee',
    ]);
    expect(now.people).toEqual(['ana', 'bo', 'cy', 'dee']);
    expect([...now.away.keys()]).toEqual(['bo']);
    expect(now.now.map(({ athleteId, rep }) => `${athleteId} ${rep}`)).toEqual([
      ...['ana 2', 'cy 2', 'dee 2'],
    ]);
    expect(pressOf(log, now.last!)).toHaveLength(4);
    expect(inLogOrder(log).at(-1)).toBe(now.last);
  });

  it('asks everybody in a row for the way that they hear, whichever hand they use', () => {
    const post = movementOf('post-footwork');
    const person = (id: string, hand: 'left' | 'right', movement = post) => ({
      ...{ athleteId: id, name: id },
      exits: exitsToRead(
        toldTo(movement, { hand, takeoffFoot: 'left' }, 'own'),
        plainChoices(movement, null),
      ),
    });
    const people = [person('Ana', 'right'), person('Mira', 'left')];
    const calls = rowCalls(people[0]!.exits, people);
    // Both have the word, each of the other way: it is called for both.
    const open = calls.find(({ code }) => code === 'land:behind-left')!;
    expect(open).toMatchObject({ name: 'Behind, left open', isTwoSided: false });
    expect([...open.codeBy]).toEqual([
      ['Ana', 'land:behind-left'],
      ['Mira', 'land:behind'],
    ]);
    // Who has no such word is told their own.
    const lone = (id: string, code: string, name: string) => ({
      ...{ athleteId: id, name: id },
      exits: [{ code, name, weight: 1 }],
    });
    const apart = [lone('Ana', 'go:a', 'Left'), lone('Mira', 'go:a', 'Right')];
    expect(rowCalls(apart[0]!.exits, apart)[0]).toMatchObject({
      name: 'Left; Mira: Right',
      isTwoSided: true,
    });
    expect(calls.find(({ code }) => code === 'land:low')).toMatchObject({
      ...{ name: 'End-line side', isTwoSided: false },
    });
    // Where somebody has the other side under the same word, the word holds.
    const sides = (left: string, right: string) => [
      { code: left, name: 'Left', weight: 1 },
      { code: right, name: 'Right', weight: 1 },
    ];
    const both = [
      { athleteId: 'Ana', name: 'Ana', exits: sides('go:a', 'go:b') },
      { athleteId: 'Mira', name: 'Mira', exits: sides('go:b', 'go:a') },
    ];
    const [left] = rowCalls(both[0]!.exits, both);
    expect(left).toMatchObject({ name: 'Left', isTwoSided: false });
    expect([...left!.codeBy]).toEqual([
      ['Ana', 'go:a'],
      ['Mira', 'go:b'],
    ]);
    expect(
      wordsOfRow([
        { name: 'Ana', words: 'to the right' },
        { name: 'Bo', words: 'to the left' },
        { name: 'Cy', words: 'to the left' },
      ]),
    ).toEqual(['to the left', 'Ana: to the right']);
  });

  it('comes to a read behind another by the exit that leads there, and asks its exits', () => {
    const post = movementOf('post-footwork');
    expect(readsTo(post, 'lean')).toEqual({ land: 'gives' });
    expect(readsTo(post, 'land')).toEqual({});
    const base = baseOf(
      { kind: 'movement', movement: 'post-footwork', drill: null },
      { planOf: () => undefined, movementOf },
    )!;
    const variant = variantFrom('exit=lean:stays-tight', 'own');
    expect(phasesOfRep(base, variant, null)).toEqual(
      expect.arrayContaining(['lean', 'spin-lean', 'power-spin']),
    );
    expect(
      exitsToRead(post, plainChoices(post, null), 'lean:stays-tight').map(({ code }) => code),
    ).toEqual(['lean:steps-off', 'lean:stays-tight']);
    expect(exitsToRead(post, plainChoices(post, null))[0]!.code).toBe('land:behind');
  });

  it('shows of a turn the cue that was given last', () => {
    const set = aSet();
    const at = atField(set);
    const row = stored(repOf(at, athlete('ana'), { ...seenOf({}), cue: 'shaded' }, named()));
    expect(turnView(bundleOf(set), [row], at, at.state.up!).cue).toBe('shaded');
    const cues = [
      { athleteId: 'ana', movement: 'give-ground', reps: 12, fault: 'on-heels', likely: [] },
    ];
    expect(turnView({ cues }, [], at, at.state.up!).cue).toBe('on-heels');
    expect(variantFrom(at.state.up!.variant, 'own').exit).toBeNull();
  });
});

describe('results', () => {
  const count = (change: Partial<ResultCount>): ResultCount => ({
    ...{ side: 'own', exit: null, spot: null, tried: 0, made: 0, held: 0, heldS: 0, bestHeldS: 0 },
    ...{ rounds: [], runs: 0, ranM: 0, ranS: 0 },
    ...change,
  });

  it('time touches from the go that was called, else from the first', () => {
    expect(splitsOf([0, 1, 2.5])).toEqual([1, 1.5]);
    expect(splitsOf([0.8, 2])).toEqual([0.8, 1.2]);
    expect(splitsOf([0])).toEqual([]);
  });

  it('hold the last round against the first of each set, whichever count it came in', () => {
    const round = (drillSetId: string, turn: number, everyS: number) => ({
      ...{ drillSetId, turn, touchS: [0, everyS, 2 * everyS] },
    });
    const [all] = resultsOfCounts([
      count({ rounds: [round('b', 1, 2), round('a', 3, 1.1)] }),
      count({ rounds: [round('a', 1, 1), round('a', 2, 5)] }),
      count({}),
    ]);
    expect(all).toMatchObject({ rounds: 4, touches: 12, splits: 8, bestSplitS: 1, compared: 1 });
    expect(slowsBy(all!)).toBeCloseTo(0.1);
    expect(slowsBy(addResults([all!, all!], 'side')[0]!)).toBeCloseTo(0.1);
    expect(resultsOfCounts([count({})])).toEqual([]);
    expect(slowsBy(resultsOfCounts([count({ tried: 1 })])[0]!)).toBeNull();
  });

  it('say where fewest are made, once it was tried a few times', () => {
    const at = (spot: string, made: number, tried: number) => count({ spot, made, tried });
    const results = (list: ResultCount[]) => resultsOfCounts(list);
    expect(
      fewestMade(results([at('wing', 2, 10), at('top', 8, 10), at('corner', 0, 2)]), 'spot')?.spot,
    ).toBe('wing');
    expect(fewestMade(results([at('wing', 5, 10), at('top', 5, 10)]), 'spot')).toBeNull();
    expect(fewestMade(results([at('wing', 0, 10)]), 'spot')).toBeNull();
  });
});

describe('a list for an athlete alone', () => {
  const listsOf = (set: DrillSet, who: RunAthlete, isYoung = false) =>
    ownLists(
      {
        ...bundleOf(set),
        session: { id: 's1', date: '2031-05-14', drillSets: [set] },
        athletes: [who],
      } as never,
      who.id,
      movementOf,
      { isYoung, today: '2031-05-14' },
    );
  const makes = aSet({ target: 'makes', amount: 5, reps: 8, retryMissed: true });

  it('has every combination on its side, in their words, and a cap for the young', () => {
    const both = { ...makes, vary: { ...makes.vary, sides: ['own' as const, 'other' as const] } };
    const [list] = listsOf(both, athlete('ana'));
    expect(list!.rules).toEqual({ makes: 5, tries: 8, again: true });
    expect(list!.items.map(({ side }) => side)).toEqual(['own', 'other']);
    const feet = list!.items.map(({ layout }) => layout!.footfalls.find(({ n }) => n === 1)!.foot);
    expect(feet).toEqual(list!.items.map(({ outline }) => outline!.firstFoot));
    expect(new Set(feet).size).toBe(2);
    expect(listsOf(both, athlete('ana'), true)[0]!.rules).toMatchObject({ makes: 2, tries: 4 });
  });

  it('has nothing that takes a partner, nor what somebody is held back from', () => {
    const held = (kind: 'pain' | 'reduced') =>
      athlete('ana', {
        restrictions: [{ kind, from: '2031-05-01', until: null, share: 0.5, note: '' }] as never,
      });
    expect(listsOf({ ...makes, stand: 'pairs' }, athlete('ana'))).toEqual([]);
    expect(listsOf({ ...makes, helpers: ['feeder'] }, athlete('ana'))).toEqual([]);
    expect(listsOf(makes, held('pain'))).toEqual([]);
    expect(listsOf(makes, held('reduced'))[0]!.rules).toMatchObject({ makes: 5, tries: 4 });
    expect(listsOf(makes, athlete('somebody else'))).toEqual([]);
  });
});

describe('a set that ends early', () => {
  const pacerOf = () => athlete('ana').body!;
  const set = aSet({ reps: 6, restS: 30 });
  const next = { set: aSet({ id: 'd2', reps: 4, restS: 20 }), base: workOf(aSet()).base };
  const turns = setOrder({ set }, []).turns;
  /** Answers of the whole set, so many seconds apart. */
  const log = (apartS: number): FieldRow[] =>
    turns.map(({ key: _, ...turn }, i) =>
      stored({
        ...turn,
        ...{ id: `t${i}`, sessionId: 's1', movement: 'give-ground', part: null, faults: [] },
        ...{ outcome: 'clean', leadFoot: null, speedPct: null, cue: null, voids: null },
        at: new Date(Date.UTC(2031, 4, 14, 10) + 1000 * apartS * i).toISOString(),
      } as never),
    );
  const spare = (apartS: number, to: Parameters<typeof spareTime>[1] = next) =>
    spareTime(workOf(set), to, log(apartS), { pacerOf, lanes: 1 });
  const planned = drillSetTime(set, workOf(set).base, pacerOf(), { lanes: 1 })!;

  it('gives its time back, as reps of the next that fit into it', () => {
    const each = planned.totalS / turns.length;
    expect(spare(each)).toBeNull();
    const early = spare(each / 2)!;
    expect(early.seconds).toBeGreaterThan(0.25 * planned.totalS);
    const longer = (more: number) =>
      drillSetTime({ ...next.set, reps: 4 + more }, next.base, pacerOf(), { lanes: 1 })!.totalS;
    expect(longer(early.moreReps) - longer(0)).toBeLessThanOrEqual(early.seconds);
    expect(longer(early.moreReps + 1) - longer(0)).toBeGreaterThan(early.seconds);
  });

  it('says minutes only where no set follows, or makes decide', () => {
    const alone = spareTime(workOf(set), undefined, log(1), { pacerOf, lanes: 1 });
    expect(alone).toMatchObject({ moreReps: 0 });
    const makes = { ...next, set: { ...next.set, target: 'makes' as const } };
    expect(spare(1, makes)).toMatchObject({ moreReps: 0 });
    expect(spareTime(workOf(set), next, log(1).slice(0, 1), { pacerOf, lanes: 1 })).toBeNull();
  });
});
