import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Movement } from '@gravek/contract/movement';
import {
  MOVEMENT_FILE_VERSION,
  movementFile,
  movementSchema,
} from '@gravek/contract/movementSchema';
import { PHASE_KINDS, plainSteps } from '@gravek/contract/phaseKinds';
import { check } from '@gravek/contract/problem';
import { movementOf, MOVEMENTS } from '../src/movement/movements';
import { bySchools } from '../src/movement/schools';

const giveGround = (): Movement => structuredClone(movementOf('give-ground'));

/** What is said of a movement after a change. */
const said = (change: (movement: Movement) => void, movement = giveGround()) => {
  change(movement);
  const checked = check(movementSchema, movement);
  return checked.ok ? {} : checked.fields;
};

describe('a movement that does not hang together', () => {
  it('is as it should be before it is changed', () => {
    expect(said(() => undefined)).toEqual({});
  });

  it.each<[string, (movement: Movement) => void, string, RegExp]>([
    [
      'two phases of one code',
      (m) => (m.phases[1]!.code = m.phases[0]!.code),
      'phases[1].code',
      /Two phases/,
    ],
    ['a way on to nowhere', (m) => (m.phases[0]!.then = 'moon'), 'phases[0].then', /no phase moon/],
    [
      'a way that never ends',
      (m) => (m.phases.at(-1)!.then = m.phases[1]!.code),
      'phases[9].then',
      /never ends: .* → /,
    ],
    [
      'a phase that nothing leads to',
      (m) => (m.phases[0]!.then = 'end'),
      'phases[1].name',
      /is never reached/,
    ],
    [
      'a read with no exit',
      (m) => (m.phases[2]!.read!.options = []),
      'phases[2].read',
      /without exits/,
    ],
    [
      'a read with one exit',
      (m) => m.phases[2]!.read!.options.splice(1),
      'phases[2].read',
      /one exit is no read/,
    ],
    [
      'an exit to nowhere',
      (m) => (m.phases[2]!.read!.options[0]!.to = 'moon'),
      'phases[2].read.options[0].to',
      /not there/,
    ],
    [
      'a fault in no phase',
      (m) => (m.faults[0]!.phases = ['alignment', 'moon']),
      'faults[0].phases',
      /no phase moon/,
    ],
    [
      'a fault that shows nowhere',
      (m) => (m.faults[0]!.phases = []),
      'faults[0].phases',
      /where the fault shows/,
    ],
    [
      'a wrong answer where nothing is read',
      (m) => Object.assign(m.faults[0]!, { phases: ['alignment'], read: true }),
      'faults[0].phases',
      /Alignment has no read/,
    ],
    [
      'a cause of nothing',
      (m) => (m.faults[0]!.leadsTo = ['moon']),
      'faults[0].leadsTo',
      /no fault moon/,
    ],
    [
      'causes in a circle',
      (m) => {
        const [a, b] = [m.faults[0]!, m.faults[1]!];
        a.leadsTo = [b.code];
        b.leadsTo = [a.code];
      },
      'faults[0].leadsTo',
      /in a circle: .* → .* → /,
    ],
    [
      'a fault that causes itself',
      (m) => (m.faults[2]!.leadsTo = [m.faults[2]!.code]),
      'faults[2].leadsTo',
      /in a circle/,
    ],
    [
      'a drill that is not there',
      (m) => (m.faults[0]!.drills = ['moon']),
      'faults[0].drills',
      /moon/,
    ],
    [
      'a drill of a phase that is not there',
      (m) => (m.drills[0]!.part = { kind: 'phases', from: 'moon', to: m.phases[0]!.code }),
      'drills[0].part.from',
      /one of the movement’s phases/,
    ],
    [
      'steps the wrong way round',
      (m) => (m.drills[0]!.part = { kind: 'steps', from: 4, to: 2 }),
      'drills[0].part.to',
      /before the first/,
    ],
    ['a drill without rungs', (m) => (m.drills[0]!.rungs = []), 'drills[0].rungs', /one rung/],
    [
      'a drill that forces an exit that is none',
      (m) => (m.drills[0]!.force = 'moon'),
      'drills[0].force',
      /No read has an exit/,
    ],
    [
      'a school that skips what is not there',
      (m) => (m.schools[0]!.options[1]!.skips = ['moon']),
      'schools[0].options[1].skips',
      /no phase moon/,
    ],
    [
      'a school that makes a phase impossible',
      (m) =>
        (m.schools[0]!.options[1]!.changes = [
          { phase: m.phases[2]!.code, set: { steps: -4 } },
        ] as Movement['schools'][number]['options'][number]['changes']),
      'schools[0].options[1].changes[0].set',
      /cannot be changed like that/,
    ],
    [
      'a step that nobody can make',
      (m) => Object.assign(m.phases[2]!.steps, { step: { value: 30, of: 'shoe' } }),
      'phases[2].steps.step.value',
      /30 × shoe cannot be/,
    ],
    [
      'a kind of step that nobody knows',
      (m) => Object.assign(m.phases[2]!.steps, { kind: 'moonwalk' }),
      'phases[2].steps.kind',
      /kind of step/,
    ],
    ['no phases', (m) => (m.phases = []), 'phases', /at least one phase/],
    ['no name', (m) => (m.name = '  '), 'name', /name/],
  ])('%s is refused at its spot', (_what, change, path, text) => {
    expect(said(change)[path]).toMatch(text);
  });
});

it('every kind of step begins with figures that its own check takes', () => {
  for (const kind of Object.keys(PHASE_KINDS) as (keyof typeof PHASE_KINDS)[]) {
    const fields = said((movement) => (movement.phases[1]!.steps = plainSteps(kind)));
    expect(
      Object.keys(fields).filter((path) => path.startsWith('phases[1].steps')),
      kind,
    ).toEqual([]);
  }
});

it('a movement broken anywhere gets words, never a fault', () => {
  const paths = (value: unknown, at: (string | number)[] = []): (string | number)[][] =>
    typeof value === 'object' && value !== null
      ? [at, ...Object.entries(value).flatMap(([key, own]) => paths(own, [...at, key]))]
      : [at];
  const all = paths(giveGround()).slice(1);
  fc.assert(
    fc.property(
      fc.constantFrom(...all),
      fc.constantFrom<unknown>(null, undefined, -1, 'x', [], {}, [null], NaN, true, 1e9),
      (path, value) => {
        const movement = giveGround();
        let at = movement as unknown as Record<string | number, unknown>;
        for (const key of path.slice(0, -1)) at = at[key] as typeof at;
        at[path.at(-1)!] = value;
        const checked = check(movementSchema, movement);
        if (!checked.ok) {
          expect(Object.values(checked.fields).every((text) => text.length > 3)).toBe(true);
        }
      },
    ),
    { numRuns: 100 },
  );
});

describe('a movement file', () => {
  it.each(MOVEMENTS.map((movement) => [movement.name, movement] as const))(
    '%s goes through JSON and comes out the same',
    (_name, movement) => {
      const sent: unknown = JSON.parse(
        JSON.stringify({ format: 'gravek-movement', version: MOVEMENT_FILE_VERSION, movement }),
      );
      const checked = check(movementFile, sent);
      expect(checked.ok && checked.value.movement).toEqual(movement);
    },
  );

  it('of another format or a newer version is refused', () => {
    const file = { format: 'gravek-movement', version: 2, movement: giveGround() };
    expect(check(movementFile, { ...file, format: 'other' }).ok).toBe(false);
    const newer = check(movementFile, { ...file, version: 3 });
    expect(newer.ok ? '' : newer.fields.version).toContain('newer Gravek');
  });
});

describe('schools', () => {
  it('that skip a phase lead round it, wherever it was led to', () => {
    const movement = giveGround();
    const school = movement.schools.find((school) =>
      school.options.some((it) => it.skips.length > 0),
    );
    const option = school!.options.find((option) => option.skips.length > 0)!;
    const taught = bySchools(movement, { [school!.code]: option.code });
    const codes = taught.phases.map((phase) => phase.code);
    for (const skipped of option.skips) {
      expect(codes).not.toContain(skipped);
      for (const phase of taught.phases) expect(phase.then).not.toBe(skipped);
    }
    expect(movement.phases.length).toBe(giveGround().phases.length);
  });

  it('that nobody has chosen are taught the usual way', () => {
    for (const movement of MOVEMENTS) {
      const usual = Object.fromEntries(
        movement.schools.map((school) => [school.code, school.options[0]!.code]),
      );
      expect(bySchools(movement, {})).toEqual(bySchools(movement, usual));
      expect(bySchools(movement, { nobody: 'knows' })).toEqual(bySchools(movement, usual));
    }
  });
});
