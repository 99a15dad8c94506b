import { bodyOf } from '@gravek/core/layout/body';
import type { Movement } from '@gravek/contract/movement';
import { movementSchema } from '@gravek/contract/movementSchema';
import { check } from '@gravek/contract/problem';
import { describe, expect, it } from 'vitest';
import { MOVEMENTS } from '../src/movement/movements';
import { laidOut, type PlanChoices } from '../src/planning/plan';
import { branchesOf } from '../src/planning/branches';

/** A club may give its movement any codes; what is drawn goes by what stands behind them. */

const athlete = bodyOf({
  ...{ trials: [], heightM: 1.78, legM: null, shoeM: null },
  ...{ hand: 'right', takeoffFoot: 'left' },
});

/** Where codes stand in a movement; words of other meanings stand there too. */
const HOLDS_CODES = new Set(
  'code then to from phase phases force leadsTo drills drill faults skips without only exits at a b placeAt taughtBy'.split(
    ' ',
  ),
);
const WORDS = ['left', 'right', 'start', 'end'];

/** The same with other codes. */
const recoded = <T>(value: T, codes: ReadonlyMap<string, string>, key = ''): T => {
  if (typeof value === 'string') {
    const isWord = WORDS.includes(value);
    if (!HOLDS_CODES.has(key) || isWord) return value;
    // An exit is named with its phase.
    return value
      .split(':')
      .map((code) => codes.get(code) ?? code)
      .join(':') as T;
  }
  if (Array.isArray(value)) return value.map((one: unknown) => recoded(one, codes, key)) as T;
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value).map(([name, one]) => [
      key === 'speeds' ? (codes.get(name) ?? name) : name,
      recoded(one as unknown, codes, name),
    ]),
  ) as T;
};

const codesIn = ({ phases, drills, schools }: Movement): string[] => [
  ...new Set([
    ...phases.flatMap(({ code, read }) => [
      code,
      ...(read?.options ?? []).map((option) => option.code),
    ]),
    ...drills.flatMap((drill) => [drill.code, ...(drill.phases ?? []).map((own) => own.code)]),
    ...schools.flatMap(({ code, options }) => [code, ...options.map((option) => option.code)]),
  ]),
];

/** What the ground shows, without what anything is called. */
const drawn = (movement: Movement, choices: PlanChoices) => {
  const { footfalls, track, totalTimeS, phases, others } = laidOut(movement, athlete, choices);
  return {
    ...{ track, totalTimeS },
    phases: phases.map(({ code: _, ...one }) => one),
    footfalls: footfalls.map(({ phase: _, ...one }) => one),
    others,
    branches: branchesOf(movement, athlete, choices),
  };
};

describe('a movement of other codes is drawn the same', () => {
  /** Names of what lists, texts and functions have, and such as stand first wherever they are put. */
  const HOSTILE: [string, (i: number, most: number) => string][] = [
    [
      'that mean something',
      (i) => ['length', 'name', 'at', 'then', 'map', 'null'][i] ?? `size-${i}`,
    ],
    ['that are numbers, backwards', (i, most) => String(most - i)],
  ];
  it.each(HOSTILE)('with codes %s', (_what, made) => {
    for (const movement of MOVEMENTS) {
      const all = codesIn(movement).filter((code) => !WORDS.includes(code));
      const drills = [null, ...movement.drills.map((drill) => drill.code)];
      for (const [turn, drill] of drills.entries()) {
        // Each comes first once.
        const codes = new Map(
          all.map((code, i) => [code, made((i + turn) % all.length, all.length)]),
        );
        const other = recoded(movement, codes);
        const checked = check(movementSchema, other);
        expect(checked.ok ? {} : checked.fields, movement.code).toEqual({});
        expect(drawn(other, { drill: drill && codes.get(drill)! }), movement.code).toEqual(
          drawn(movement, { drill }),
        );
      }
    }
  });

  it('and what would be found in every object, or means the end, is refused', () => {
    const [movement] = MOVEMENTS;
    const [phase, ...others] = movement!.phases;
    for (const code of ['constructor', 'end', '__proto__', 'toString']) {
      const checked = check(movementSchema, {
        ...movement!,
        phases: [{ ...phase!, code }, ...others],
      });
      expect(checked.ok ? {} : checked.fields).toHaveProperty(['phases[0].code']);
    }
  });
});
