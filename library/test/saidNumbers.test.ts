import type { Movement } from '@gravek/contract/movement';
import { describe, expect, it } from 'vitest';
import { lawsBroken } from '../src/movement/laws';
import { MOVEMENTS } from '../src/movement/movements';
import { numbersSaid } from '../src/movement/saidNumbers';

const wallSwitches = MOVEMENTS.find(({ code }) => code === 'wall-switches')!;
const block = MOVEMENTS.find(({ code }) => code === 'block-jump')!;

/** What is said of a movement after a change to it. */
const after = (movement: Movement, change: (copy: Movement) => void): string[] => {
  const copy = structuredClone(movement);
  change(copy);
  return lawsBroken(copy).map(({ sentence }) => sentence);
};

describe('numbersSaid', () => {
  it.each([
    [
      'Five short steps, then hold three seconds',
      [
        ['steps', [5]],
        ['seconds', [3]],
      ],
    ],
    ['A circle of seven to eight metres', [['metres', [7, 8]]]],
    [
      'Back up 9.1 m, foot at 45 degrees',
      [
        ['metres', [9.1]],
        ['degrees', [45]],
      ],
    ],
    [
      'A three-metre channel and one slide',
      [
        ['slides', [1]],
        ['metres', [3]],
      ],
    ],
    ['Tiny ones; reaction twos, six times each, ten makes', []],
    ['No faster than 3 m/s', []],
  ])('%s', (text, said) => {
    expect(numbersSaid(text).map(({ unit, values }) => [unit, values])).toEqual(said);
  });
});

describe('words that say otherwise than is drawn', () => {
  it('of the steps, seconds and metres of a drill', () => {
    const say = (how: string) =>
      after(wallSwitches, ({ drills }) => {
        drills.find(({ code }) => code === 'four-hold')!.how = how;
      });
    expect(say('Four switches, and hold.')).toEqual([]);
    expect(say('Nine switches, and hold.')).toContain(
      'The drill “Four and hold” says “Nine switches”, and nothing drawn is that.',
    );
    expect(say('Four switches, then hold twenty seconds.')).toContain(
      'The drill “Four and hold” says “twenty seconds”, and nothing drawn is that.',
    );
  });

  it('of the body: hands that are to be at the eyes and hang down', () => {
    expect(
      after(block, ({ phases }) => {
        const { arms } = phases[0]!.posture!.contact;
        arms!.stance = arms!.free = { raiseDeg: 5, elbowDeg: 170, asideDeg: 10 };
      }),
    ).toContain(
      'In “Ready”, “Hands” asks for 0.94 to 1.06 of eye height (height of the hands); 0.39 is drawn.',
    );
  });

  it('of a body that is not drawn, and of a fault that shows nowhere', () => {
    expect(
      after(block, ({ phases }) => {
        phases[0]!.posture!.contact.arms = null;
      }),
    ).toContain('“Hands” in “Ready” is to be seen on the body, and nothing is drawn of it.');
    const touch = MOVEMENTS.find(({ code }) => code === 'slide-close-out')!;
    expect(
      after(touch, ({ phases }) => {
        for (const phase of phases) if (phase.steps.kind === 'hold') phase.posture = null;
      }),
    ).toContain('The fault “Bows to the touch” has no place in the drawing.');
  });
});
