import { bodyOf } from '@gravek/core/layout/body';
import { mirrorLayout } from '@gravek/core/layout/mirror';
import type { Layout } from '@gravek/core/layout/shape';
import { checkRules } from '@gravek/core/runup/stepRules';
import type { Movement } from '@gravek/contract/movement';
import { movementSchema } from '@gravek/contract/movementSchema';
import { describe, expect, it } from 'vitest';
import { BUILT_IN, loadBuiltIn } from '../src/movement/builtIn';
import { drillOf, faultOf, firstPhaseOf } from '../src/movement/byCode';
import { MOVEMENTS } from '../src/movement/movements';
import { RULE_SETS } from '../src/movement/ruleSets';
import { laidOut } from '../src/planning/plan';
import { sequenceStart, straightStart } from '../src/planning/planStart';

const bodies = [1.45, 1.72, 2.02].flatMap((heightM) =>
  (['left', 'right'] as const).map((side) => ({
    ...bodyOf({ trials: [], heightM, legM: null, shoeM: null, hand: side, takeoffFoot: side }),
  })),
);

/** Every way to go through a movement: each exit of each read under each way of each school. */
const waysOf = (movement: Movement) => {
  const schools: Record<string, string>[] = [
    {},
    ...movement.schools.flatMap((school) =>
      school.options.map((option) => ({ [school.code]: option.code })),
    ),
  ];
  const reads: Record<string, string>[] = movement.phases
    .filter((phase) => phase.read)
    .reduce<Record<string, string>[]>(
      (ways, phase) =>
        ways.flatMap((way) =>
          phase.read!.options.map((option) => ({ ...way, [phase.code]: option.code })),
        ),
      [{}],
    );
  return schools.flatMap((school) => reads.map((read) => ({ schools: school, reads: read })));
};

/** What no footfall may be: unending, back in time, longer or faster than anybody. */
const unsound = ({ footfalls, track, totalTimeS }: Layout): string[] => {
  const wrong: string[] = [];
  let timeS = 0;
  let n = 0;
  for (const fall of footfalls) {
    const at = `footfall ${fall.n} of ${fall.phase}`;
    if (Object.values(fall).some((one) => typeof one === 'number' && !Number.isFinite(one)))
      wrong.push(`${at} has no number`);
    if (fall.timeS < timeS) wrong.push(`${at} is before the one before`);
    if (fall.n !== n && fall.n !== n + 1) wrong.push(`${at} comes after ${n}`);
    if (!(fall.lengthM >= 0 && fall.lengthM < 4.5)) wrong.push(`${at} is ${fall.lengthM} m long`);
    if (!(fall.speedMps < 13)) wrong.push(`${at} has ${fall.speedMps} m/s`);
    timeS = fall.timeS;
    n = fall.n;
  }
  if (n === 0) wrong.push('no steps');
  if (!(totalTimeS >= timeS)) wrong.push('over before its last footfall');
  if (!track.every((at) => Number.isFinite(at.besideM + at.aheadM + at.facingDeg)))
    wrong.push('a track without numbers');
  return wrong;
};

/** As a sheet has it: tenths of a millimetre, and a half turn is a half turn. */
const rounded = (layout: Layout) =>
  layout.footfalls.map((fall) =>
    [
      fall.foot,
      fall.phase,
      Math.round(fall.besideM * 1e4),
      Math.round(fall.aheadM * 1e4),
      Math.round(1e4 * Math.cos((fall.facingDeg * Math.PI) / 180)),
      Math.round(1e4 * Math.sin((fall.facingDeg * Math.PI) / 180)),
    ].map((value) => (value === 0 ? 0 : value)),
  );

describe('the movements that are loaded each by itself', () => {
  it('are those of the library, in its order, under their names', async () => {
    expect(BUILT_IN.map(({ code, name }) => [code, name])).toEqual(
      MOVEMENTS.map(({ code, name }) => [code, name]),
    );
    expect(await Promise.all(BUILT_IN.map(loadBuiltIn))).toEqual(MOVEMENTS);
  });
});

it('holds all twenty movements, each once', () => {
  expect(MOVEMENTS).toHaveLength(20);
  expect(new Set(MOVEMENTS.map((movement) => movement.code)).size).toBe(20);
  expect(new Set(MOVEMENTS.map((movement) => movement.name)).size).toBe(20);
});

it('says nothing twice: no two faults, drills, cues or checkpoints alike in text', () => {
  const seen = new Map<string, string>();
  for (const movement of MOVEMENTS) {
    const texts = [
      movement.summary,
      // Phases that mirror each other are looked at alike.
      ...new Set(
        movement.phases.flatMap((phase) =>
          phase.checkpoints.map((it) => `${it.look}: ${it.right}`),
        ),
      ),
      ...movement.faults.flatMap((fault) => [fault.name, fault.sees, fault.cue]),
      ...movement.drills.flatMap((drill) => [drill.name, drill.how]),
      ...movement.schools.flatMap((school) => school.options.map((it) => it.reason)),
      ...movement.cautions,
    ];
    for (const text of texts) {
      expect(seen.get(text.toLowerCase()), `${movement.code}: ${text}`).toBeUndefined();
      seen.set(text.toLowerCase(), movement.code);
    }
  }
});

describe.each(MOVEMENTS.map((movement) => [movement.code, movement] as const))(
  '%s',
  (_code, movement) => {
    it('fits the schema: codes, causes without a circle, every phase reached, reads with exits', () => {
      expect(() =>
        movementSchema.validateSync(movement, { strict: true, abortEarly: false }),
      ).not.toThrow();
    });

    it('is complete: phases looked at, faults, drills with rungs, cautions, rules', () => {
      expect(movement.phases.length).toBeGreaterThanOrEqual(4);
      for (const phase of movement.phases) {
        expect(phase.checkpoints.length, phase.code).toBeGreaterThan(0);
        expect(phase.eyes, phase.code).not.toBe('');
      }
      expect(movement.faults.length).toBeGreaterThanOrEqual(6);
      expect(movement.faults.some((fault) => fault.leadsTo.length > 0)).toBe(true);
      for (const fault of movement.faults)
        expect(fault.drills.length, fault.code).toBeGreaterThan(0);
      const used = new Set(movement.faults.flatMap((fault) => fault.drills));
      expect(movement.drills.length).toBeGreaterThanOrEqual(5);
      expect(movement.drills.filter((drill) => used.has(drill.code)).length).toBeGreaterThan(4);
      expect(movement.schools.length).toBeGreaterThan(0);
      expect(movement.cautions.length).toBeGreaterThanOrEqual(2);
      for (const code of movement.ruleSets) {
        expect(
          RULE_SETS.some((set) => set.id === code),
          code,
        ).toBe(true);
      }
      for (const { code } of movement.phases.filter((phase) => phase.read)) {
        const wrong = movement.faults.filter(({ read, phases }) => read && phases.includes(code));
        expect(wrong, `a wrong answer at ${code}`).toHaveLength(1);
        expect(wrong[0]!.drills, 'a drill for reading').not.toEqual([]);
      }
    });

    it('causes nothing that lies in earlier phases only', () => {
      for (const fault of movement.faults.filter((fault) => !fault.safety)) {
        const first = firstPhaseOf(movement, fault);
        for (const next of fault.leadsTo) {
          const { phases } = faultOf(movement, next)!;
          const last = movement.phases.findLastIndex(({ code }) => phases.includes(code));
          expect(last, `${fault.code} → ${next}`).toBeGreaterThanOrEqual(first);
        }
      }
    });

    it('lays out for three bodies, both sides, every exit and school: sound and legal', () => {
      const ways = waysOf(movement);
      for (const body of bodies) {
        for (const way of ways) {
          for (const side of ['own', 'other'] as const) {
            const layout = laidOut(movement, body, { ...way, side });
            const broken = movement.ruleSets.flatMap((code) =>
              checkRules(
                layout.footfalls,
                RULE_SETS.find((set) => set.id === code)!,
              ),
            );
            expect(
              [...unsound(layout), ...broken, layout.failure].filter(Boolean),
              JSON.stringify(way),
            ).toEqual([]);
          }
        }
      }
    });

    it('is for the left-hander what the right-hander sees in a mirror, feet swapped', () => {
      const [hand, right] = bodies as [(typeof bodies)[number], (typeof bodies)[number]];
      // Of what has no handedness only a stamp goes by the stronger foot.
      const isSame = movement.writtenFor.by === 'neither';
      const left = isSame ? { ...hand, takeoffFoot: right.takeoffFoot } : hand;
      for (const way of waysOf(movement)) {
        const own = laidOut(movement, right, way);
        // What has no handedness goes to the side that is called, for everybody.

        const turned = rounded(mirrorLayout(own));
        expect(rounded(laidOut(movement, left, way))).toEqual(isSame ? rounded(own) : turned);
        expect(rounded(laidOut(movement, left, { ...way, side: 'other' }))).toEqual(
          isSame ? turned : rounded(own),
        );
        expect(rounded(mirrorLayout(mirrorLayout(own)))).toEqual(rounded(own));
      }
    });

    it('has drills that take a real part of it', () => {
      for (const drill of movement.drills) {
        if (drill.part.kind === 'until-read') {
          expect(movement.phases.some((phase) => phase.read)).toBe(true);
        }
        const layout = laidOut(movement, bodies[3]!, { drill: drill.code });
        expect(layout.footfalls.length, drill.code).toBeGreaterThan(0);
        expect(layout.totalTimeS, drill.code).toBeGreaterThan(0);
        expect(drillOf(movement, drill.code)).toBe(drill);
      }
    });

    it('gives a plan to begin with', () => {
      const straight = straightStart(movement);
      const runs = movement.phases.some(
        ({ steps }) =>
          (steps.kind === 'build-up' || steps.kind === 'short') && steps.target !== null,
      );
      expect(straight !== null).toBe(runs);
      expect(sequenceStart().kind).toBe('sequence');
    });
  },
);
