/// <reference types="vite/client" />
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { array, object, string, type AnyObjectSchema, type ISchema, type Schema } from 'yup';
import { mostOf } from '../src/bounds';
import { invitationTaken } from '../src/account';
import { restrictionInput } from '../src/athlete';
import { name } from '../src/fields';
import { movementSchema } from '../src/movementSchema';
import { PHASE_KINDS, plainSteps } from '../src/phaseKinds';
import { check } from '../src/problem';
import { ruleSetInput } from '../src/ruleSet';

/** Everything that the package exports, by its name. */
const contract = Object.assign(
  {},
  ...Object.values(import.meta.glob('../src/*.ts', { eager: true })),
) as Record<string, unknown>;

const SCHEMAS = Object.entries(contract).filter(
  (entry): entry is [string, AnyObjectSchema] =>
    (entry[1] as { type?: unknown } | null)?.type === 'object',
);

/** What a lazy schema is asked with, so that each of its kinds is seen. */
const KINDS = [
  ...Object.keys(PHASE_KINDS),
  ...['sequence', 'even', 'penultimate', 'short', 'phases', 'last', 'steps', 'hold'],
  ...['sprint', 'curve', 'cadence', 'stop', 'reaction', 'short-step', 'lane', 'run-through'],
  ...['steps-with-ball', 'most-steps'],
].map((kind) => ({ kind }));

/** Every list and text of a schema, with its path. */
const leaves = (schema: ISchema<unknown>, path: string): [path: string, leaf: Schema][] => {
  const { type, fields, innerType } = schema as unknown as {
    type: string;
    fields?: Record<string, ISchema<unknown>>;
    innerType?: ISchema<unknown>;
  };
  if (type === 'lazy') {
    const { resolve } = schema as unknown as {
      resolve: (options: { value: unknown }) => ISchema<unknown>;
    };
    return [...KINDS, {}].flatMap((value) =>
      leaves(resolve.call(schema, { value }), `${path}<${(value as { kind?: string }).kind}>`),
    );
  }
  const own: [string, Schema][] =
    type === 'array' || type === 'string' ? [[path, schema as unknown as Schema]] : [];
  return [
    ...own,
    ...(innerType ? leaves(innerType, `${path}[]`) : []),
    ...Object.entries(fields ?? {}).flatMap(([key, part]) => leaves(part, `${path}.${key}`)),
  ];
};

describe('bounds', () => {
  it('are there for every list and every text that crosses a boundary', () => {
    expect(SCHEMAS.length).toBeGreaterThan(20);
    const all = SCHEMAS.flatMap(([title, schema]) => leaves(schema, title));
    expect(all.length).toBeGreaterThan(300);
    expect(all.filter(([, leaf]) => mostOf(leaf) === null).map(([path]) => path)).toEqual([]);
  });

  it('come before anything looks at the items or letters', () => {
    let looked = 0;
    const seen = <T>(value: T): boolean => {
      looked += 1;
      return value !== null;
    };
    const schema = object({
      list: array(string().test('seen', 'no', seen)).max(3, 'Three at most.'),
      text: string().test('seen', 'no', seen).max(5, 'Five at most.'),
    });
    expect(check(schema, { list: Array(10_000).fill('x') })).toEqual({
      ok: false,
      fields: { list: 'Three at most.' },
    });
    expect(check(schema, { text: 'x'.repeat(80_000) })).toEqual({
      ok: false,
      fields: { text: 'Five at most.' },
    });
    expect(looked).toBe(0);
  });

  it('refuse by fixed texts: what is answered does not grow with what came', () => {
    const long = 'x'.repeat(3_000);
    const rubbish = fc.oneof(
      fc.constant(long),
      fc.constant(Array(300).fill({ a: 1 })),
      fc.constant({ [long]: long, kind: long }),
      fc.double(),
      fc.boolean(),
      fc.constant(null),
    );
    const isShort = (title: string, fields: Record<string, string>): void => {
      const said = JSON.stringify(fields);
      expect(said.length, title).toBeLessThan(8_000);
      expect(said, title).not.toContain('xxxxx');
    };
    const keys = (schema: AnyObjectSchema) =>
      fc.record(Object.fromEntries(Object.keys(schema.fields).map((key) => [key, rubbish])), {
        requiredKeys: [],
      });
    for (const [title, schema] of SCHEMAS) {
      fc.assert(
        fc.property(keys(schema), (value) => {
          const checked = check(schema, value);
          if (checked.ok) expect(Object.values(value), title).not.toContain(long);
          else isShort(title, checked.fields);
        }),
        { numRuns: 10 },
      );
      const allLong = Object.fromEntries(Object.keys(schema.fields).map((key) => [key, long]));
      const checked = check(schema, allLong);
      expect(checked.ok, title).toBe(false);
      if (!checked.ok) isShort(title, checked.fields);
    }
  });

  it('keep nothing that no database keeps, and nothing nested without end', () => {
    for (const bad of ['a\0b', '\ud800', 'x\udc00y']) {
      const checked = check(ruleSetInput, { name: bad });
      expect(checked).toMatchObject({
        ok: false,
        fields: { name: expect.stringContaining('kept') },
      });
    }
    let deep: unknown = [];
    for (let i = 0; i < 50_000; i += 1) deep = [deep];
    expect(check(ruleSetInput, { rules: deep }).ok).toBe(false);
  });

  it('hold a movement to 400 kB, though each of its parts is short enough', () => {
    const long = (letters: number): string => '太'.repeat(letters);
    const phase = (i: number) => ({
      code: `phase-${i}`,
      name: long(60),
      steps: plainSteps('stance'),
      eyes: long(120),
      checkpoints: Array(12).fill({ look: long(60), right: long(200) }),
      read: {
        watch: long(300),
        options: Array(12).fill({ code: 'x', name: long(80), when: long(300), to: 'x', weight: 1 }),
      },
    });
    const movement = { phases: Array.from({ length: 24 }, (_, i) => phase(i)) };
    const checked = check(movementSchema, movement);
    expect(checked.ok ? [] : Object.values(checked.fields)).toContainEqual(
      expect.stringContaining('at most 400 kB'),
    );
  });

  it('know days outside the years of anybody’s plan', () => {
    const of = (from: string) =>
      check(restrictionInput, {
        id: '0190a000-0000-7000-8000-000000000000',
        athleteId: '0190a000-0000-7000-8000-000000000001',
        kind: 'reduced',
        from,
        until: '2031-03-01',
      }).ok;
    expect(of('2031-02-28')).toBe(true);
    for (const day of ['0000-01-01', '1066-10-14', '2031-02-31', '9999-12-31', '+02031-02-01'])
      expect(of(day), day).toBe(false);
  });
});

describe('a name', () => {
  const read = (text: string) => name('a name').validateSync(text);

  it('loses what nobody sees and keeps every letter', () => {
    expect(read('\u200b Ilse\u00ad Mar\u202erow\ufeff ')).toBe('Ilse Marrow');
    expect(read('Ilse\tMarrow\n')).toBe('Ilse Marrow');
    expect(read('می\u200cخواهم')).toBe('می\u200cخواهم');
    expect(read('Zoë Ḿ̃ Ōta 太田 🤸🏽\u200d♀\ufe0f')).toBe('Zoë Ḿ̃ Ōta 太田 🤸🏽\u200d♀\ufe0f');
    expect(read('\u200dIlse\u200c')).toBe('Ilse');
    for (const nothing of ['\u200b', '\u3164', '\u2800\u00a0', '\u0007'])
      expect(() => read(nothing)).toThrow('Give a name.');
  });

  it('is the same when it is read again', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 30 }), (text) => {
        let once: string;
        try {
          once = read(text);
        } catch {
          return;
        }
        expect(read(once)).toBe(once);
        expect(once).not.toMatch(/[\p{Cc}\u200b\u00ad\u202a-\u202e]/u);
      }),
      { numRuns: 500 },
    );
  });
});

describe('a password', () => {
  const of = (password: string) =>
    check(invitationTaken, { token: 'from a link', person: 'Nils', password });

  it('is no row of blanks or of one sign, and the same from every keyboard', () => {
    for (const plain of [' '.repeat(12), 'aaaaaaaaaaaa', '1 1 1 1 1 1 1'])
      expect(of(plain)).toMatchObject({ ok: false, fields: { password: expect.any(String) } });
    expect(of('stride\u0301 over blue')).toEqual(of('strid\u00e9 over blue'));
  });
});
