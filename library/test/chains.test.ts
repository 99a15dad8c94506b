import { bodyOf } from '@gravek/core/layout/body';
import { brakesOver } from '@gravek/core/layout/layOut';
import { mirrorLayout } from '@gravek/core/layout/mirror';
import { checkRules } from '@gravek/core/runup/stepRules';
import { turned } from '@gravek/core/layout/walker';
import { movementSchema } from '@gravek/contract/movementSchema';
import { describe, expect, it } from 'vitest';
import { chainCode, chainOf, ENDINGS, MOVES, type Chain } from '../src/movement/chains';
import { movementOf, MOVEMENTS } from '../src/movement/movements';
import { laidOut } from '../src/planning/plan';
import { RULE_SETS } from '../src/movement/ruleSets';

const body = (hand: 'left' | 'right', heightM = 1.75) =>
  bodyOf({ trials: [], heightM, legM: null, shoeM: null, hand, takeoffFoot: 'left' });

const all = MOVES.flatMap((first) =>
  [null, ...MOVES].flatMap((second) =>
    ENDINGS.map((ending) => [first.code, ...(second ? [second.code] : []), ending.code]),
  ),
);
const chains = all.flatMap((parts) => {
  const chain = chainOf(parts);
  return 'movement' in chain ? [{ parts, ...chain }] : [];
});
const chain = (...parts: string[]): Chain => {
  const made = chainOf(parts);
  if (!('movement' in made)) throw new Error(made.why);
  return made;
};

describe('chains', () => {
  it('are made of fourteen moves or more and eight endings', () => {
    expect(MOVES.length).toBeGreaterThanOrEqual(14);
    expect(ENDINGS).toHaveLength(8);
    for (const move of MOVES) {
      const some = ENDINGS.filter((ending) => 'movement' in chainOf([move.code, ending.code]));
      expect(some.length, move.code).toBe(8);
    }
  });

  it('hang together as movements: schema, faults of their own phases, legal, braked, facing the goal', () => {
    for (const { parts, movement } of chains) {
      const told = parts.join(', ');
      expect(() => movementSchema.validateSync(movement, { strict: true }), told).not.toThrow();
      const { footfalls, track } = laidOut(movement, body('right'));
      for (const code of movement.ruleSets) {
        const set = RULE_SETS.find((set) => set.id === code)!;
        expect(checkRules(footfalls, set), told).toEqual([]);
      }
      expect(brakesOver({ footfalls }, 4.5), told).toEqual([]);
      expect(Math.abs(turned(track.at(-1)!.facingDeg)), told).toBeLessThan(45);
      expect(
        footfalls.some((fall) => fall.ball === 'release'),
        told,
      ).toBe(true);
    }
    expect(chains.length).toBeGreaterThan(500);
  });

  it('never put one foot down twice but where a phase says so, for a child as for the tall', () => {
    for (const { parts, movement } of chains.filter(({ parts }) => parts.length === 2)) {
      const says = new Map(movement.phases.map((phase) => [phase.code, phase.again === true]));
      for (const heightM of [1.25, 2]) {
        const steps = laidOut(movement, body('right', heightM)).footfalls.filter((f) => f.n > 0);
        steps.slice(1).forEach((fall, i) => {
          const before = steps[i]!;
          const alone =
            steps.filter((step) => step.n === fall.n || step.n === before.n).length === 2;
          if (alone && !fall.landing && fall.foot === before.foot) {
            expect(says.get(fall.phase), `${parts.join()}: ${fall.phase}`).toBe(true);
          }
        });
      }
    }
  });

  it('are for the left-hander the mirror of it', () => {
    const { movement } = chain('jab-cross', 'floater');
    const feet = (layout: ReturnType<typeof laidOut>) => layout.footfalls.map(({ foot }) => foot);
    const right = laidOut(movement, body('right'));
    expect(feet(laidOut(movement, body('left')))).toEqual(feet(mirrorLayout(right)));
  });

  it('say what joins them', () => {
    expect(chain('jab-cross', 'near-side').joins).toEqual([]);
    expect(chain('jab-rise', 'near-side').joins.join()).toMatch(/One dribble .* right foot first/);
    expect(chain('jab-cross', 'floater').joins.join()).toMatch(/A step with the left foot/);
    expect(chain('jab-rise', 'lean-away').joins).toEqual([]);
  });

  it('say why they cannot be joined', () => {
    const why = (...parts: string[]) => (chainOf(parts) as { why: string }).why;
    expect(why('jab-cross', 'jab-rise', 'pass')).toMatch(/begins with a catch/);
    expect(why('hesitation', 'hesitation', 'pass')).toMatch(/same move twice in a row/);
    expect(why('hesitation')).toMatch(/one move or more, and an ending/);
    expect(why('hesitation', 'nothing-known')).toMatch(/one move or more, and an ending/);
    expect(
      why(...Array.from({ length: 9 }, (_, i) => (i % 2 ? 'in-and-out' : 'hesitation')), 'pass'),
    ).toMatch(/At most 8 moves/);
  });

  it('are of any length, a move coming again under codes of its own', () => {
    const parts = [
      'jab-cross',
      'hesitation',
      'change-behind',
      'in-and-out',
      'hesitation',
      'floater',
    ];
    const { movement } = chain(...parts);
    const codes = movement.phases.map(({ code }) => code);
    expect(new Set(codes).size).toBe(codes.length);
    expect(codes).toEqual(expect.arrayContaining(['he-slow', 'he-slow-2']));
    const slow = movement.faults.find(({ phases }) => phases.includes('he-slow'))!;
    expect(slow.phases).toContain('he-slow-2');
    expect(movementOf(chainCode(parts))).toBe(movement);
    const { footfalls, others } = laidOut(movement, body('right'));
    expect(brakesOver({ footfalls }, 4.5)).toEqual([]);
    // The goal stands where the chain ends, for a child as for the tall.
    const goalOf = (heightM: number): number => {
      const layout = laidOut(movement, body('right', heightM));
      const goal = layout.others.find(({ kind }) => kind === 'goal')!.points;
      return (goal[0]!.aheadM + goal[1]!.aheadM) / 2 - layout.track.at(-1)!.aheadM;
    };
    expect(goalOf(1.35)).toBeCloseTo(goalOf(1.95), 6);
    expect(others.map(({ kind }) => kind)).toEqual(expect.arrayContaining(['goal', 'opponent']));
  });

  it('are one movement wherever their code stands', () => {
    const code = chainCode(['jab-cross', 'floater']);
    expect(movementOf(code)).toBe(movementOf(code));
    expect(movementOf(code).name).toBe('Jab, cross over: floater');
    expect(() => movementOf('jab-cross--nowhere')).toThrow('movement');
  });

  it('name no fault as another one of the library is named', () => {
    const names = new Map<string, string>();
    const faults = [...MOVEMENTS, ...MOVES, ...ENDINGS].flatMap((movement) => movement.faults);
    for (const { code, name } of faults) {
      expect(names.get(name.toLowerCase()) ?? code, name).toBe(code);
      names.set(name.toLowerCase(), code);
    }
  });
});
