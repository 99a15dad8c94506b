import { bodyOf } from '@gravek/core/layout/body';
import type { LogRow } from '@gravek/core/session/repLog';
import { type Turn, turnOrder } from '@gravek/core/session/runOrder';
import { variantFrom } from '@gravek/core/session/variants';
import { runSetOf } from '@gravek/contract/drillSet';
import type { Movement } from '@gravek/contract/movement';
import { describe, expect, it } from 'vitest';
import { addReads, misreadMost } from '../src/cue/ledger';
import { exitsToCall, exitsToRead } from '../src/field/reads';
import { rowPlaces, watchedAfter } from '../src/field/row';
import {
  answersRead,
  faultsToShow,
  likelyFirst,
  phasesOfRep,
  tapsOf,
  viewOfRep,
  wrongAnswerTo,
} from '../src/field/shows';
import { movementOf, MOVEMENTS } from '../src/movement/movements';
import { withFaultPhases } from '../src/movement/olderMovement';
import { sidePhrase, toldTo } from '../src/movement/sides';
import { freshDrillSet } from '../src/session/sessionFit';
import { sideWords } from '../src/session/setWords';
import { type Base, plainChoices } from '../src/session/work';

const whole = (movement: Movement, drill: string | null = null): Base => ({
  name: movement.name,
  movement,
  choices: plainChoices(movement, drill),
});
const plain = variantFrom('', 'own');
const giveGround = movementOf('give-ground');
const closing = movementOf('close-and-shorten');

describe('what can be seen of a rep', () => {
  it('is on every exit at least three faults, each in a phase that is run, and all of them with a cue', () => {
    for (const movement of MOVEMENTS) {
      const base = whole(movement);
      const exits = movement.phases.flatMap((phase) =>
        (phase.read?.options ?? []).map((option) => `${phase.code}:${option.code}`),
      );
      for (const exit of [null, ...exits]) {
        const phases = phasesOfRep(base, plain, exit);
        const shown = faultsToShow(movement, phases, null);
        expect(shown.length, `${movement.code} ${exit}`).toBeGreaterThanOrEqual(3);
        for (const fault of shown) {
          expect(fault.read).not.toBe(true);
          expect(fault.phases.some((phase) => phases.includes(phase))).toBe(true);
        }
      }
    }
  });

  it('follows the exit that was taken, not the one that was asked', () => {
    const rep = { exit: 'give:left', asked: 'give:left', faults: [] };
    const right = viewOfRep(whole(giveGround), plain, { ...rep, taken: 'give:left' });
    expect(right).toMatchObject({ right: true, faults: [] });
    expect(right.could).toContain('caught-flat');
    const sat = viewOfRep(whole(giveGround), plain, { ...rep, taken: 'give:stops' });
    expect(sat).toMatchObject({ right: false, faults: ['wrong-side'] });
    expect(sat.could).toContain('wrong-side');
    expect(sat.could).not.toContain('caught-flat');
    // Nobody said which way: nothing is right or wrong, but the read was asked.
    const open = viewOfRep(whole(giveGround), plain, { ...rep, taken: null });
    expect(open).toMatchObject({ right: null, faults: [] });
    expect(open.could).toContain('wrong-side');
    const notAsked = viewOfRep(whole(giveGround), plain, { ...rep, asked: null, taken: null });
    expect(notAsked.could).not.toContain('wrong-side');
  });

  it('is of a drill only its part, and without what is no fault in a school', () => {
    const stamp = viewOfRep(whole(giveGround, 'tape-start'), plain, {
      ...{ exit: null, asked: null, taken: null, faults: [] },
    });
    expect(stamp.could).toEqual(['wrong-depth', 'shaded']);
    const base = whole(giveGround);
    const choices = { ...base.choices, schools: { trigger: 'no-trigger' } } as Base['choices'];
    const { could } = viewOfRep({ ...base, choices }, plain, {
      ...{ exit: null, asked: null, taken: null, faults: [] },
    });
    expect(could).not.toContain('no-stamp');
    expect(could).toContain('on-heels');
  });

  it('is nothing in a warm-up, and all that was tapped is kept', () => {
    const warmUp: Base = { name: 'Skips', movement: null, choices: null };
    const rep = { exit: null, asked: null, taken: null, faults: ['gone-since'] };
    expect(viewOfRep(warmUp, plain, rep)).toEqual({
      could: [],
      right: null,
      faults: ['gone-since'],
    });
  });

  it('is offered with the cue first, then what the drill is against, then what showed before', () => {
    const faults = faultsToShow(giveGround, phasesOfRep(whole(giveGround), plain, null), null);
    const order = likelyFirst(faults, 'half-shoe-lane', {
      fault: 'shaded',
      likely: ['stands-up', 'on-heels'],
    }).map(({ code }) => code);
    expect(order[0]).toBe('shaded');
    expect(order.slice(1, 4).sort()).toEqual(['long-back-steps', 'on-heels', 'wide-feet']);
    expect(order[4]).toBe('stands-up');
    expect(order).toHaveLength(faults.length);
  });
});

describe('a read', () => {
  it('is answered by any exit that leads to the same phase', () => {
    expect(answersRead(closing, 'sprint:square', 'sprint:unsure')).toBe(true);
    expect(answersRead(closing, 'sprint:square', 'sprint:side-on')).toBe(false);
    expect(answersRead(closing, 'sprint:gone', 'sprint:gone')).toBe(true);
    expect(answersRead(closing, 'sprint:gone', 'sprint:square')).toBe(false);
    for (const movement of MOVEMENTS) {
      for (const { code, read } of movement.phases) {
        for (const option of read?.options ?? []) {
          expect(wrongAnswerTo(movement, `${code}:${option.code}`)?.cue).toBeTruthy();
        }
      }
    }
  });

  it('calls only the exit that set or plan has chosen, and any where none was', () => {
    const { choices } = whole(giveGround);
    const exits = exitsToRead(giveGround, choices);
    expect(exits.map(({ code }) => code)).toEqual(['give:right', 'give:left', 'give:stops']);
    const left = { ...plain, exit: 'give:left' };
    expect(exitsToCall(exits, choices, left).map(({ code }) => code)).toEqual(['give:left']);
    const planned = { ...choices, reads: { give: 'stops' } } as NonNullable<typeof choices>;
    expect(exitsToCall(exits, planned, plain).map(({ code }) => code)).toEqual(['give:stops']);
    expect(exitsToCall(exits, choices, plain)).toEqual(exits);
  });

  it('says which way is misread most, and as what', () => {
    const one = {
      ...{
        exit: 'give:left',
        reps: 20,
        right: 14,
        timed: 10,
        lateS: 0.5,
        heard: 0,
        reactionS: null,
      },
      taken: [
        { exit: 'give:left', reps: 14 },
        { exit: 'give:right', reps: 5 },
        { exit: 'give:stops', reps: 1 },
      ],
    };
    const two = {
      ...{
        exit: 'give:right',
        reps: 20,
        right: 18,
        timed: 0,
        lateS: null,
        heard: 5,
        reactionS: 0.4,
      },
      taken: [
        { exit: 'give:right', reps: 18 },
        { exit: 'give:left', reps: 2 },
      ],
    };
    expect(misreadMost(giveGround, [one, two])).toEqual({
      ...{ asked: 'give:left', taken: 'give:right', reps: 20, wrong: 6 },
    });
    expect(misreadMost(giveGround, [two])).toBeNull();
    expect(misreadMost(giveGround, [])).toBeNull();
    const both = addReads([one, one, two]);
    expect(both[0]).toMatchObject({ reps: 40, right: 28, lateS: 0.5 });
    expect(both[0]!.taken[1]).toEqual({ exit: 'give:right', reps: 10 });
    expect(both[1]).toMatchObject({ lateS: null, heard: 5, reactionS: 0.4 });
    // Means weigh by what was timed, not by all that was read.
    const [mixed] = addReads([one, { ...one, timed: 30, lateS: 0.9 }]);
    expect(mixed!.lateS).toBeCloseTo(0.8);
  });

  it('gives back what was tapped, without the wrong answer that it gave itself', () => {
    const row = { faults: ['wrong-side', 'on-heels'], right: false };
    expect(tapsOf(giveGround, row)).toEqual(['on-heels']);
    expect(tapsOf(giveGround, { ...row, right: null })).toEqual(row.faults);
    expect(tapsOf(null, row)).toEqual(row.faults);
  });
});

describe('a row on call', () => {
  const people = ['ana', 'bo', 'cy', 'dana', 'eli', 'finn'];
  const work = { kind: 'movement' as const, movement: 'gaps', drill: null };
  const set = { ...freshDrillSet('set', work, people), sets: 1, reps: 4, stand: 'row' as const };
  const turns = turnOrder({ ...runSetOf(set), athleteIds: people });
  const at = (rep: number, gone: readonly string[] = []): Turn[] =>
    turns.filter((turn) => turn.rep === rep && !gone.includes(turn.athleteId));
  let made = 0;
  const logged = (turn: Turn, watched: boolean): LogRow & { watched: boolean } => ({
    ...turn,
    ...{ id: `${(made += 1)}`, outcome: 'clean', made: null, voids: null, watched },
    ...{ device: 'phone', deviceNo: made, arrival: made },
  });

  it('keeps everybody in their place, also who has stopped, and watches all of them in turn', () => {
    const log: (LogRow & { watched: boolean })[] = [];
    const seen: string[][] = [];
    for (let rep = 1; rep <= 4; rep += 1) {
      const gone = rep > 2 ? ['cy'] : [];
      const places = rowPlaces(people, at(rep, gone), log, 2);
      expect(places.map(({ athleteId }) => athleteId)).toEqual(people);
      expect(places.filter(({ turn }) => !turn).map(({ athleteId }) => athleteId)).toEqual(gone);
      const watched = places.filter(({ isWatched }) => isWatched);
      expect(watched.every(({ turn }) => turn !== null)).toBe(true);
      seen.push(watched.map(({ athleteId }) => athleteId));
      if (rep < 2) expect(watchedAfter(places, 2)).toEqual(['cy', 'dana']);
      for (const { turn, isWatched } of places) if (turn) log.push(logged(turn, isWatched));
    }
    // Bo and Dana stand next to each other once Cy has stopped.
    expect(seen).toEqual([
      ['ana', 'bo'],
      ['cy', 'dana'],
      ['eli', 'finn'],
      ['ana', 'bo'],
    ]);
  });

  it('watches the same again after what was taken back', () => {
    const first = at(1).map((turn) => logged(turn, ['ana', 'bo', 'cy'].includes(turn.athleteId)));
    const voids = first.map((row) => ({
      ...row,
      id: `v${row.id}`,
      outcome: 'void' as const,
      voids: row.id,
    }));
    const places = rowPlaces(people, at(1), [...first, ...voids], 3);
    expect(places.filter(({ isWatched }) => isWatched).map(({ athleteId }) => athleteId)).toEqual([
      'ana',
      'bo',
      'cy',
    ]);
  });
});

describe('left and right', () => {
  const lefty = bodyOf({
    ...{ trials: [], heightM: 1.8, legM: null, shoeM: null, hand: 'left', takeoffFoot: 'right' },
  });

  it('are named as sides, and exits by the side to which a left-hander goes', () => {
    expect(sidePhrase(giveGround, lefty, 'own')).toBe('to the right');
    expect(sidePhrase(giveGround, lefty, 'other')).toBe('to the left');
    expect(sidePhrase(movementOf('straight-run-up'), lefty, 'own')).toBe('off the right foot');
    const corner = movementOf('line-first-steps');
    expect(sideWords(corner, [], 'other')).toBe('left');
    const post = movementOf('post-footwork');
    const names = (movement: Movement) =>
      exitsToRead(movement, plainChoices(movement, null)).map(({ name }) => name);
    expect(names(post)).toContain('Behind, left open');
    expect(names(toldTo(post, lefty))).toContain('Behind, right open');
  });
});

describe('a movement from before faults named their phases', () => {
  const older = (movement: Movement) => ({
    ...movement,
    faults: movement.faults.map(({ phases, read: _, ...fault }) => ({
      ...fault,
      phase: phases[0],
    })),
  });

  it('comes to what the built-in one says, and is left alone where it is new', () => {
    for (const movement of MOVEMENTS) {
      const now = withFaultPhases(older(movement), movement.code) as unknown as Movement;
      const placed = ({ faults }: Movement) =>
        faults.map(({ code, phases, read = false }) => [code, [...phases].sort(), read]);
      expect(placed(now), movement.code).toEqual(placed(movement));
      expect(withFaultPhases(movement)).toEqual(movement);
    }
  });

  it('keeps the phase of a fault that nobody knows, and what cannot be read as it is', () => {
    const own = { phases: [{ code: 'a' }, { code: 'b' }], faults: [{ code: 'x', phase: 'b' }] };
    expect(withFaultPhases(own).faults).toEqual([{ code: 'x', phases: ['b'] }]);
    for (const odd of [null, 'text', 7, [], {}, { faults: 'none' }, { faults: [null, 'x'] }]) {
      expect(withFaultPhases(odd)).toEqual(odd);
    }
    const hostile = {
      code: 'constructor',
      phases: [],
      faults: [{ code: '__proto__', phase: 'a' }],
    };
    expect(withFaultPhases(hostile).faults).toEqual([{ code: '__proto__', phases: ['a'] }]);
  });
});
