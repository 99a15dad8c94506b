import { keptVariants, variantFrom, variantsOf } from '@gravek/core/session/variants';
import { check } from '@gravek/contract/problem';
import { drillSetInput } from '@gravek/contract/sessionSchema';
import { describe, expect, it } from 'vitest';
import { checkWays, type WayRow } from '../src/cue/ways';
import { viewOfRep } from '../src/field/shows';
import { movementOf, MOVEMENTS } from '../src/movement/movements';
import { waysOf } from '../src/movement/schools';
import { laidOut } from '../src/planning/plan';
import { usualBody } from '../src/planning/usualBody';
import { setOfWork } from '../src/session/setOfWork';
import { variantWords, variesWords } from '../src/session/setWords';
import { asVaried, baseOf, variedRun } from '../src/session/work';

const ID = '0191a6ee-7a36-7c7e-8a4f-6a3c5a1d0009';
const finds = { planOf: () => undefined, movementOf };
const giving = movementOf('give-ground');
const work = { kind: 'movement', movement: 'give-ground', drill: null } as const;
const base = baseOf(work, finds)!;

describe('ways of teaching as an axis of a set', () => {
  const set = setOfWork(ID, work, [ID], giving);
  const both = { ...set, vary: { ...set.vary, ways: ['turn:slide', 'turn:open'] } };
  const [slide, open] = keptVariants(both);

  it('are stored, named, and each laid out as its school has it', () => {
    const checked = check(drillSetInput, both);
    expect(checked.ok && checked.value.vary.ways).toEqual(['turn:slide', 'turn:open']);
    expect(variesWords(base, both)).toBe('2 ways of teaching');
    expect(variantWords(base, open!)).toEqual(['open at once']);
    const body = usualBody();
    const phases = (variant: typeof open) => variedRun(base, variant!, body).phases;
    expect(phases(slide)).not.toEqual(phases(open));
    const planned = laidOut(giving, body, { schools: { turn: 'open' } });
    expect(phases(open)).toEqual(planned.phases.map(({ code }) => code));
  });

  it('show in a rep only the faults that are faults in that way', () => {
    const rep = { exit: null, asked: null, taken: null, faults: [] };
    const taught = variantFrom('way=trigger:no-trigger', 'own');
    expect(viewOfRep(base, variantFrom('', 'own'), rep).could).toContain('no-stamp');
    expect(viewOfRep(base, taught, rep).could).not.toContain('no-stamp');
  });

  it('that a movement does not have leave it as it is taught', () => {
    const run = asVaried(
      { movement: giving, choices: base.choices! },
      variantFrom('way=turn:somersault', 'own'),
    );
    expect('why' in run ? [] : waysOf(run.movement, run.choices.schools)).toEqual(waysOf(giving));
    expect(check(drillSetInput, { ...set, vary: { ...set.vary, ways: ['slide'] } }).ok).toBe(false);
  });

  it('are laid out for every school of the library', () => {
    for (const movement of MOVEMENTS) {
      const own = baseOf({ kind: 'movement', movement: movement.code, drill: null }, finds)!;
      const ways = movement.schools.flatMap(({ code, options }) =>
        options.map((option) => `${code}:${option.code}`),
      );
      for (const variant of variantsOf({ ...set.vary, sides: ['own'], ways })) {
        const run = variedRun(own, variant, usualBody());
        expect(run.outline, `${movement.code} ${variant.way}`).not.toBeNull();
      }
    }
  });
});

describe('ways of teaching, held against the reps of a club', () => {
  const row = (athleteId: string, ways: string[], clean: number, change: Partial<WayRow> = {}) => ({
    ...{ athleteId, sessionId: 's', part: null, side: 'own' as const, speedPct: 100, rung: null },
    ...{ exit: null, ways, reps: 20, clean, held: 0, heldS: 0, heard: 0, heardS: 0 },
    ...change,
  });
  const people = ['ana', 'bo', 'cy', 'di'];
  const pairOf = (rows: WayRow[]) =>
    checkWays(giving, rows).pairs.find(({ school }) => school === 'turn')!;

  it('one that is cleaner in the same hands does better', () => {
    const rows = people.flatMap((id) => [
      row(id, ['trigger:with-trigger', 'turn:slide'], 6),
      row(id, ['trigger:with-trigger', 'turn:open'], 14),
    ]);
    expect(pairOf(rows)).toMatchObject({ a: 'slide', b: 'open' });
    expect(pairOf(rows).looks[0]).toMatchObject({ measure: 'clean', athletes: 4, better: 'b' });
  });

  it('nothing is compared across sessions, drills, speeds or another school’s ways', () => {
    const slide = (id: string) => row(id, ['trigger:with-trigger', 'turn:slide'], 6);
    const others: Partial<WayRow>[] = [
      { sessionId: 't' },
      { part: 'line' },
      { speedPct: 50 },
      { side: 'other' },
      { ways: ['trigger:no-trigger', 'turn:open'] },
    ];
    for (const change of others) {
      const rows = people.flatMap((id) => [
        slide(id),
        row(id, ['trigger:with-trigger', 'turn:open'], 14, change),
      ]);
      expect(pairOf(rows).looks[0], JSON.stringify(change)).toMatchObject({
        ...{ athletes: 0, chance: null, better: null },
      });
    }
  });
});
