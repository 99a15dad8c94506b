import { keptVariants } from '@gravek/core/session/variants';
import type { DrillSet, Work } from '@gravek/contract/drillSet';
import { check } from '@gravek/contract/problem';
import { drillSetInput } from '@gravek/contract/sessionSchema';
import { describe, expect, it } from 'vitest';
import { asDrilled } from '../src/movement/asDrilled';
import { phasesOfRep, viewOfRep } from '../src/field/shows';
import { MOVEMENTS, movementOf } from '../src/movement/movements';
import { spotsOf } from '../src/planning/place';
import { laidOut } from '../src/planning/plan';
import { bySchools } from '../src/movement/schools';
import { changedParts, setOfWork } from '../src/session/setOfWork';
import { usualBody } from '../src/planning/usualBody';
import { baseOf } from '../src/session/work';

const ID = '0191a6ee-7a36-7c7e-8a4f-6a3c5a1d0009';
const finds = { planOf: () => undefined, movementOf };

const drills = MOVEMENTS.flatMap((movement) =>
  movement.drills.map((drill) => ({
    movement,
    drill,
    work: { kind: 'movement', movement: movement.code, drill: drill.code } as Work,
  })),
);

describe('a drill put into a session', () => {
  it('is a set that may be stored and run, each exit one that its part can come to', () => {
    for (const { movement, drill, work } of drills) {
      const told = `${movement.code}/${drill.code}`;
      const set = setOfWork(ID, work, [ID], movement);
      const checked = check(drillSetInput, set);
      expect(checked.ok ? {} : checked.fields, told).toEqual({});
      const base = baseOf(work, finds)!;
      for (const variant of keptVariants(set)) {
        expect(phasesOfRep(base, variant, null).length, told).toBeGreaterThan(0);
      }
      const known = spotsOf(movement).map(({ name }) => name);
      expect(known, told).toEqual(expect.arrayContaining(set.vary.spots));
      for (const exit of set.vary.exits) {
        const [phase, option] = exit.split(':');
        const read = movement.phases.find(({ code }) => code === phase)?.read;
        expect(
          read?.options.map(({ code }) => code),
          told,
        ).toContain(option);
      }
    }
  });

  it('never rests a minute after a drill of two seconds', () => {
    for (const { movement, drill, work } of drills) {
      const set = setOfWork(ID, work, [ID], movement);
      const { totalTimeS } = laidOut(movement, usualBody(), { drill: drill.code });
      if (
        totalTimeS < 2.5 &&
        !['sprint', 'jump', 'contact'].some((load) =>
          (drill.loads ?? movement.loads).includes(load as 'sprint'),
        )
      ) {
        expect(set.restS, `${movement.code}/${drill.code}`).toBeLessThanOrEqual(30);
      }
    }
  });

  it('is as usual where a drill says nothing, and a whole movement is as before', () => {
    const bare = {
      ...movementOf('gaps'),
      drills: [{ ...movementOf('gaps').drills[0]!, setUp: undefined }],
    };
    const [{ code }] = bare.drills as [(typeof bare.drills)[number]];
    const set = setOfWork(ID, { kind: 'movement', movement: 'gaps', drill: code }, [], bare);
    expect(set).toMatchObject({ stand: 'turns', reps: 5, restS: 15, target: 'attempts' });
    const whole = setOfWork(ID, { kind: 'movement', movement: 'gaps', drill: null }, [], bare);
    expect(whole.restS).toBe(60);
  });
});

describe('what a line says of a set', () => {
  const CHANGES = {
    varies: { struck: ['move=none'] },
    target: { reps: 19 },
    rounds: { sets: 7 },
    stands: { stand: 'stations', helpers: [] },
    call: { call: { kind: 'tempo', cadenceSpm: 171 } },
  } as const;

  it('is nothing where it is as its drill is set up, and only what was changed after that', () => {
    const withSetUp = drills.filter(({ drill }) => drill.setUp);
    expect(withSetUp.length).toBeGreaterThan(60);
    for (const { movement, work } of withSetUp) {
      // As the server gives it back: in another order, with what is not said as null.
      const set = JSON.parse(JSON.stringify(setOfWork(ID, work, [ID], movement))) as DrillSet;
      const parts = (change: object): string[] =>
        Object.entries(changedParts({ ...set, ...change }, movement)).flatMap(([part, changed]) =>
          changed ? [part] : [],
        );
      expect(parts({ athleteIds: [], beside: true })).toEqual([]);
      for (const [part, change] of Object.entries(CHANGES)) expect(parts(change)).toEqual([part]);
    }
    const whole = setOfWork(
      ID,
      { kind: 'movement', movement: 'gaps', drill: null },
      [ID],
      undefined,
    );
    expect(new Set(Object.values(changedParts(whole, movementOf('gaps'))))).toEqual(
      new Set([true]),
    );
  });
});

describe('a drill with steps of its own', () => {
  const own = drills.filter(({ drill }) => drill.phases?.length);

  it('is drawn by them and by nothing of the movement', () => {
    expect(own.length).toBeGreaterThan(25);
    for (const { movement, drill } of own) {
      const codes = drill.phases!.map((phase) => phase.code);
      const layout = laidOut(movement, usualBody(), { drill: drill.code });
      expect(
        layout.phases.map((phase) => phase.code),
        drill.code,
      ).toEqual(codes);
      expect(asDrilled(asDrilled(movement, drill.code), drill.code).phases).toBe(drill.phases);
    }
  });

  it('can show the faults that it is against, and counts for no other', () => {
    for (const { movement, drill, work } of own) {
      const set = setOfWork(ID, work, [ID], movement);
      const [variant] = keptVariants(set);
      const rep = { exit: null, asked: null, taken: null, faults: [] };
      const { could } = viewOfRep(baseOf(work, finds)!, variant!, rep);
      const against = movement.faults
        .filter(({ drills: named, read }) => !read && named.includes(drill.code))
        // What is no fault as it is taught first cannot show.
        .filter(({ code }) => bySchools(movement).faults.some((fault) => fault.code === code))
        .map(({ code }) => code);
      expect([...could].sort(), `${movement.code}/${drill.code}`).toEqual([...against].sort());
    }
  });
});
