import type { Foot } from '@gravek/core/feet';
import { bodyOf } from '@gravek/core/layout/body';
import { describe, expect, it } from 'vitest';
import { faultOf } from '../src/movement/byCode';
import { movementOf, MOVEMENTS } from '../src/movement/movements';
import { laidOut } from '../src/planning/plan';
import { branchesOf, phasesOn } from '../src/planning/branches';
import { isMirrored, mirrorWords, toldTo } from '../src/movement/sides';

const body = (side: Foot) =>
  bodyOf({
    trials: [],
    heightM: 1.78,
    legM: null,
    shoeM: null,
    hand: side,
    takeoffFoot: side,
  });

describe('words in the mirror', () => {
  it('change left and right over and are themselves again in a second mirror', () => {
    expect(mirrorWords('Right, left, up')).toBe('Left, right, up');
    expect(mirrorWords('upright and leftover stay')).toBe('upright and leftover stay');
    for (const movement of MOVEMENTS) {
      for (const { cue, sees, name } of movement.faults) {
        for (const text of [cue, sees, name]) expect(mirrorWords(mirrorWords(text))).toBe(text);
      }
    }
  });

  it('tell a left-hander the other side, and leave codes and steps alone', () => {
    const written = movementOf('gather-right-left');
    const told = toldTo(written, body('left'));
    expect(toldTo(written, body('right'))).toBe(written);
    expect(told.name).toBe('Gather left-right');
    expect(told.phases.map((phase) => phase.code)).toEqual(
      written.phases.map((phase) => phase.code),
    );
    expect(told.phases.map((phase) => phase.steps)).toEqual(
      written.phases.map((phase) => phase.steps),
    );
    const cue = written.faults.find((fault) => /\bleft\b/.test(fault.cue))!;
    expect(faultOf(told, cue.code)!.cue).toBe(mirrorWords(cue.cue));
  });

  it('agree with the drawing: it is mirrored just when the words are', () => {
    for (const movement of MOVEMENTS) {
      for (const side of ['left', 'right'] as const) {
        for (const which of ['own', 'other'] as const) {
          expect(laidOut(movement, body(side), { side: which }).mirrored, movement.code).toBe(
            isMirrored(movement, body(side), which),
          );
        }
      }
    }
  });
});

describe('the exits that are not taken', () => {
  it('are every other option of every read on the way, and begin where it is read', () => {
    for (const movement of MOVEMENTS) {
      const path = phasesOn(movement);
      const layout = laidOut(movement, body('right'));
      // Two exits may lead to one way; of the others each is drawn.
      const others = path.flatMap((phase, i) =>
        (phase.read?.options ?? []).filter((option) => option.to !== path[i + 1]?.code),
      );
      const branches = branchesOf(movement, body('right'));
      expect(branches, movement.code).toHaveLength(others.length);
      for (const { points } of branches) {
        const [first] = points;
        expect(
          layout.track.some(
            (at) =>
              Math.hypot(at.besideM - first!.besideM, at.aheadM - first!.aheadM) < 1e-6 &&
              Math.abs(at.timeS - first!.timeS) < 1e-6,
          ),
          movement.code,
        ).toBe(true);
      }
    }
  });

  it('are none in a drill, which has its own end', () => {
    const movement = movementOf('give-ground');
    expect(branchesOf(movement, body('right'), { drill: movement.drills[0]!.code })).toEqual([]);
  });
});
