import { bodyOf } from '@gravek/core/layout/body';
import type { Part } from '@gravek/core/layout/part';
import { estimateStepModel } from '@gravek/core/runup/currentModel';
import { MOVEMENT_MAX } from '@gravek/contract/movementSchema';
import type { Approach } from '@gravek/contract/plan';
import { movementOf, MOVEMENTS } from '@gravek/library/movement/movements';
import { laidOut } from '@gravek/library/planning/plan';
import { describe, expect, it } from 'vitest';
import { outdatedOf } from '../src/approaches/plan/OutOfDate';
import { bodyAt, groundOf, otherAt } from '../src/drawing/ground';
import { beatsOfLayout, phaseAt } from '../src/hearing/beats';
import { freeCode } from '../src/movements/edit/work';
import { movementFileText, readMovementFile } from '../src/movements/file';
import { bodyFor, estimatedNote } from '../src/parts/catalogue/usual';
import { changesOf, type TypedTexts } from '../src/parts/fields/fields';
import { partName } from '../src/parts/movement/partName';

const usual = bodyFor(undefined);

describe('a movement as a file', () => {
  it('is read as it was written, for every movement', () => {
    for (const movement of MOVEMENTS) {
      expect(readMovementFile(movementFileText(movement))).toEqual({ ok: true, movement });
    }
  });

  it('says what is wrong with it in a sentence or two', () => {
    const text = movementFileText(movementOf('gaps'));
    const said = (file: string): string => {
      const read = readMovementFile(file);
      return read.ok ? '' : read.message;
    };
    expect(said('')).toContain('cannot be read as JSON');
    expect(said('null')).toContain('broken');
    expect(said('[1]')).toContain('broken');
    expect(said(text.replace('"version": 2', '"version": 7'))).toContain('newer Gravek');
    expect(said(text + ' '.repeat(MOVEMENT_MAX))).toContain('too large');
    const many = said(text.replaceAll('"severity"', '"gravity"'));
    expect(many).toMatch(/faults\[0\]\.severity: .* And \d+ more\. Nothing was changed\./);
  });
});

describe('a movement being changed', () => {
  it('changes a copy only where it was asked to, and lets go of texts that stood there', () => {
    const before = movementOf('gaps');
    const kept = structuredClone(before);
    let after = before;
    let left: TypedTexts = {
      'phases[1].checkpoints[0].right': { text: '', message: 'Say it.' },
      'phases[10].name': { text: '', message: 'Give it a name.' },
    };
    const changes = () =>
      changesOf(after, left, (value, typed) => {
        after = value;
        left = typed;
      });
    changes().change('phases[1].checkpoints[0].right', 'New words');
    expect(before).toEqual(kept);
    expect(after.phases[1]!.checkpoints[0]!.right).toBe('New words');
    expect({ ...after, phases: [] }).toEqual({ ...before, phases: [] });
    expect(Object.keys(left)).toEqual(['phases[10].name']);
    changes().keep('name', { text: '7 m?', message: 'That is no name.' });
    expect(Object.keys(left)).toEqual(['phases[10].name', 'name']);
    changes().change('phases', []);
    expect(Object.keys(left)).toEqual(['name']);
  });

  it('gives new things codes that nothing has', () => {
    const list: { code: string }[] = [{ code: 'fault-2' }];
    for (let i = 0; i < 20; i += 1) list.push({ code: freeCode(list, 'fault') });
    expect(new Set(list.map((one) => one.code)).size).toBe(list.length);
  });

  it('names every part of it', () => {
    const movement = movementOf('give-ground');
    const [first, second] = movement.phases;
    const names: [Part, RegExp][] = [
      [{ kind: 'all' }, /^The whole$/],
      [{ kind: 'last', steps: 1 }, /^The last step$/],
      [{ kind: 'last', steps: 2 }, /^The last 2 steps$/],
      [{ kind: 'steps', from: 2, to: 2 }, /^Step 2$/],
      [{ kind: 'steps', from: 1, to: 3 }, /^Steps 1 to 3$/],
      [{ kind: 'phases', from: first!.code, to: first!.code }, /^Only alignment$/],
      [{ kind: 'phases', from: first!.code, to: second!.code }, /^From alignment to stamp$/],
      [{ kind: 'until-read' }, /first read/],
      [{ kind: 'hold', step: 4, holdS: 2 }, /Hold at step 4/],
    ];
    for (const [part, name] of names) expect(partName(movement, part)).toMatch(name);
  });
});

describe('the ground of a drawing', () => {
  it.each(MOVEMENTS.map((movement) => [movement.name, movement] as const))(
    'holds every foot of %s, at any width and zoom, in one scale',
    (_name, movement) => {
      const layout = laidOut(movement, usual);
      for (const [width, height, zoom] of [
        [1100, 300, 1],
        [358, 300, 1],
        [2200, 600, 2],
      ] as const) {
        const ground = groundOf([layout], usual.shoeM, width, height, zoom);
        const spots = layout.footfalls.map(ground.at);
        for (const [x, y] of spots) {
          expect(x).toBeGreaterThanOrEqual(0);
          expect(x).toBeLessThanOrEqual(ground.width);
          expect(y).toBeGreaterThanOrEqual(0);
          expect(y).toBeLessThanOrEqual(ground.height);
        }
        const [a, b] = [layout.footfalls[0]!, layout.footfalls.at(-1)!];
        const apart = Math.hypot(a.besideM - b.besideM, a.aheadM - b.aheadM);
        const [p, q] = [ground.at(a), ground.at(b)];
        expect(Math.hypot(p[0] - q[0], p[1] - q[1])).toBeCloseTo(apart * ground.pixelsPerM, 6);
      }
    },
  );

  it('turns headings as it turns the ground: a step ahead goes the way that ahead points', () => {
    for (const movement of MOVEMENTS) {
      const ground = groundOf([laidOut(movement, usual)], usual.shoeM, 358, 300);
      const [x0, y0] = ground.at({ besideM: 0, aheadM: 0 });
      const [x1, y1] = ground.at({ besideM: 0, aheadM: 1 });
      const way = (ground.turn(0) * Math.PI) / 180;
      expect(Math.cos(way)).toBeCloseTo((x1 - x0) / ground.pixelsPerM, 6);
      expect(Math.sin(way)).toBeCloseTo((y1 - y0) / ground.pixelsPerM, 6);
    }
  });

  it('has the body at each point of its way at its time, and steadily between', () => {
    const layout = laidOut(movementOf('corner-fielder'), usual);
    for (const point of layout.track) {
      const same = layout.track.filter((other) => Math.abs(other.timeS - point.timeS) < 1e-9);
      if (same.length > 1) continue;
      const body = bodyAt(layout, point.timeS);
      expect(body.besideM).toBeCloseTo(point.besideM, 9);
      expect(body.aheadM).toBeCloseTo(point.aheadM, 9);
    }
    const end = bodyAt(layout, 1e6);
    expect(end.aheadM).toBeCloseTo(layout.track.at(-1)!.aheadM, 9);
    const before = bodyAt(layout, -1);
    expect(before.aheadM).toBeCloseTo(layout.track[0]!.aheadM, 9);
  });

  it('moves whoever moves from the first to the last of their places', () => {
    const layout = laidOut(movementOf('give-ground'), usual);
    const runner = layout.others.find((other) => other.points.length > 1)!;
    const [from, to] = [runner.points[0]!, runner.points.at(-1)!];
    expect(otherAt(runner, 0)).toMatchObject({ aheadM: expect.closeTo(from.aheadM, 9) as number });
    expect(otherAt(runner, 1e6).aheadM).toBeCloseTo(to.aheadM, 9);
  });
});

describe('what is heard and what passes', () => {
  it('is every contact at its time, and the phase it belongs to', () => {
    for (const movement of MOVEMENTS) {
      const layout = laidOut(movement, usual);
      const beats = beatsOfLayout(layout);
      expect(beats).toHaveLength(layout.footfalls.filter((fall) => fall.n > 0).length);
      const nameAt = phaseAt(layout, movement.phases);
      for (const phase of layout.phases) {
        if (phase.toS - phase.fromS < 0.02) continue;
        const name = movement.phases.find((other) => other.code === phase.code)!.name;
        expect(nameAt((phase.fromS + phase.toS) / 2), movement.code).toBe(name);
      }
    }
  });
});

describe('what was measured', () => {
  const athlete = {
    id: 'a',
    name: 'Noor',
    hand: 'left' as const,
    takeoffFoot: 'right' as const,
    trials: [],
    readings: [],
    heightM: 1.7,
    legM: null,
    shoeM: 0.27,
    ageYears: null,
  };

  it('is told apart from what was estimated', () => {
    const { estimated } = bodyOf(athlete);
    expect(estimatedNote(athlete as never, estimated)).toBe(
      'Noor was never measured for step lengths, leg length; they are taken from body height: a rough guess.',
    );
    const child = { ...athlete, heightM: null, ageYears: 10 };
    expect(estimatedNote(child as never, bodyOf(child).estimated)).toBe(
      'Noor was never measured for step lengths, height, leg length; they are taken from the usual height at 10 years and age: a rough guess.',
    );
    expect(estimatedNote(athlete as never, [])).toBeNull();
    expect(estimatedNote(undefined, [])).toContain('usual body');
  });

  it('puts a saved plan out of date only when the athlete’s own steps have changed', () => {
    const model = estimateStepModel(1.7);
    const saved = { solved: [{ athleteId: 'a', model: { ...model } }] } as unknown as Approach;
    expect(outdatedOf(saved, 'a', model)).toBeNull();
    expect(outdatedOf(saved, 'b', model)).toBeNull();
    expect(outdatedOf(null, 'a', model)).toBeNull();
    expect(outdatedOf(saved, 'a', { ...model, topLengthM: model.topLengthM + 0.01 })).toBe(
      saved.solved[0],
    );
  });
});
