import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Body, type Span, spanM } from '../src/layout/body';
import { brakesOver, layOut } from '../src/layout/layOut';
import { mirrorLayout } from '../src/layout/mirror';
import { pathOf, type PhaseSteps, type Sequence, type SequencePhase } from '../src/layout/sequence';
import type { Layout } from '../src/layout/shape';
import type { Footfall } from '../src/layout/walker';
import { brakeDemand } from '../src/runup/brakeDemand';
import { estimateStepModel } from '../src/runup/currentModel';
import { solveStraight } from '../src/runup/solveStraight';
import { checkRules } from '../src/runup/stepRules';
import { evenly } from './evenly';

const m = (value: number): Span => ({ value, of: 'm' });

const athlete: Body = {
  model: estimateStepModel(1.8),
  heightM: 1.8,
  legM: 0.95,
  shoeM: 0.29,
  hand: 'right',
  takeoffFoot: 'left',
};

const phase = (steps: PhaseSteps, rest: Partial<SequencePhase> = {}): SequencePhase => ({
  code: steps.kind,
  steps,
  turn: null,
  ball: null,
  then: null,
  read: null,
  ...rest,
});

const sequence = (phases: SequencePhase[], rest: Partial<Sequence> = {}): Sequence => ({
  writtenFor: { by: 'hand', side: 'right' },
  phases,
  others: [],
  ...rest,
});

const foot = fc.constantFrom('left' as const, 'right' as const);
const maybeFoot = fc.option(foot, { nil: null });
const way = fc.constantFrom('ahead' as const, 'back' as const, 'left' as const, 'right' as const);
const span = fc.record({
  value: fc.double({ min: 0.05, max: 1.2, noNaN: true }),
  of: fc.constantFrom(
    'm' as const,
    'leg' as const,
    'shoe' as const,
    'height' as const,
    'first step' as const,
    'top step' as const,
  ),
});
const few = fc.integer({ min: 1, max: 5 });
const cadenceSpm = fc.double({ min: 100, max: 600, noNaN: true });
const seconds = fc.double({ min: 0.1, max: 0.6, noNaN: true });
const deg = evenly(0, 180);
const name = fc.constantFrom('board', 'line', 'box', 'hurdle', 'opponent', 'take-off spot');
const target = fc.record({
  name,
  arrive: foot,
  longer: evenly(0, 0.3),
  shorter: evenly(0, 0.3),
});
const kind = <K extends PhaseSteps['kind'], R extends object>(name: K, rest: fc.Arbitrary<R>) =>
  rest.map((own) => ({ kind: name, ...own }));

/** Any kind of phase with any parameters that make sense. */
const anySteps: fc.Arbitrary<PhaseSteps> = fc.oneof(
  kind('stance', fc.record({ width: span, depth: span, front: maybeFoot })),
  kind('trigger', fc.record({ foot, way, step: span, intervalS: seconds })),
  kind(
    'build-up',
    fc.record({
      first: maybeFoot,
      steps: fc.integer({ min: 2, max: 12 }),
      fill: fc.boolean(),
      target: fc.option(target, { nil: null }),
    }),
  ),
  kind(
    'curve',
    fc.record({
      to: foot,
      steps: few,
      turnDeg: evenly(0, 120),
      step: span,
      cadenceSpm,
      bar: fc.option(fc.constant({ alongM: 0.6, outM: 0.9, takeoffAngleDeg: 25 }), { nil: null }),
    }),
  ),
  kind(
    'crossover',
    fc.record({
      first: foot,
      steps: few,
      step: span,
      grow: fc.double({ min: 0.9, max: 1.3, noNaN: true }),
      cadenceSpm,
      sideOnDeg: evenly(0, 90),
      to: foot,
    }),
  ),
  kind(
    'short',
    fc.record({
      first: maybeFoot,
      steps: few,
      taper: fc.integer({ min: 0, max: 4 }),
      step: span,
      cadenceSpm,
      width: span,
      target: fc.option(fc.record({ name, arrive: foot }), { nil: null }),
    }),
  ),
  kind(
    'give-ground',
    fc.record({ first: maybeFoot, steps: few, step: span, cadenceSpm, width: span }),
  ),
  kind(
    'shuffle',
    fc.record({
      to: foot,
      steps: few,
      step: span,
      intervalS: seconds,
      width: span,
      stopEvery: fc.integer({ min: 0, max: 2 }),
      stopS: seconds,
    }),
  ),
  kind(
    'arc',
    fc.record({
      goalM: fc.constantFrom(3, 5, 7.3),
      depth: fc.record({
        value: fc.double({ min: 0.8, max: 2, noNaN: true }),
        of: fc.constantFrom('leg' as const, 'height' as const),
      }),
      lanes: fc.integer({ min: 2, max: 7 }),
      spreadDeg: fc.double({ min: 20, max: 80, noNaN: true }),
      post: foot,
      fromLane: fc.integer({ min: 1, max: 7 }),
      toLane: fc.integer({ min: 1, max: 7 }),
      step: span,
      intervalS: seconds,
      width: span,
      stopS: seconds,
    }),
  ),
  kind(
    'gaps',
    fc.record({
      gaps: few,
      gap: span,
      contacts: fc.integer({ min: 1, max: 3 }),
      way,
      first: foot,
      cadenceSpm,
    }),
  ),
  kind(
    'pivot',
    fc.record({
      on: foot,
      turn: fc.constantFrom('front' as const, 'reverse' as const),
      turnDeg: deg,
      intervalS: seconds,
    }),
  ),
  kind(
    'gather',
    fc.record({
      feet: fc.constantFrom('one-two' as const, 'together' as const),
      first: foot,
      ahead: span,
      apart: span,
      intervalS: seconds,
      boxes: fc.boolean(),
    }),
  ),
  kind(
    'finish',
    fc.record({
      from: fc.oneof(foot, fc.constant('both' as const)),
      flight: span,
      flightS: seconds,
      land: fc.oneof(foot, fc.constantFrom('both' as const, 'none' as const)),
    }),
  ),
  kind('hold', fc.record({ holdS: seconds })),
  kind('recover', fc.record({ first: maybeFoot, steps: few, step: span, way, cadenceSpm })),
  kind(
    'called',
    fc.record({
      calls: fc.array(
        fc.record({
          foot,
          ahead: span,
          aside: span,
          to: foot,
          turnDeg: deg,
          turnTo: foot,
          intervalS: seconds,
        }),
        { minLength: 1, maxLength: 4 },
      ),
    }),
  ),
);

const sequences = fc
  .record({
    steps: fc.array(fc.tuple(anySteps, fc.option(fc.record({ deg, to: foot }), { nil: null })), {
      minLength: 1,
      maxLength: 6,
    }),
    by: fc.constantFrom('hand' as const, 'take-off foot' as const),
    side: foot,
    aside: span,
    to: foot,
  })
  .map(({ steps, by, side, aside, to }): Sequence => ({
    writtenFor: { by, side },
    phases: steps.map(([own, turn], i) => phase(own, { code: `p${i}`, turn })),
    others: [
      {
        kind: 'opponent',
        name: 'runner',
        from: 'end',
        ahead: m(2),
        aside,
        to,
        wideM: 0,
        moves: { ahead: m(-1), aside, to, speedMps: 3, afterS: 0.2 },
      },
      { kind: 'net', name: 'net', from: 'start', ahead: m(1), aside, to, wideM: 9, moves: null },
    ],
  }));

/** The same sequence as a coach of left-handers would write it: every left and right swapped. */
const writtenMirrored = (value: Sequence): Sequence =>
  JSON.parse(
    JSON.stringify(value).replace(/"(left|right)"/g, (_, side) =>
      side === 'left' ? '"right"' : '"left"',
    ),
  ) as Sequence;

const places = (layout: Layout): unknown =>
  JSON.parse(
    JSON.stringify(layout, (_key, value: unknown) =>
      typeof value === 'number' ? Math.round(value * 1e7) / 1e7 + 0 : value,
    )
      .replaceAll('-0,', '0,')
      .replaceAll('-0}', '0}'),
  );

/** A half turn may be written as 180 or −180. */
const sameWay = (layout: Layout): Layout => ({
  ...layout,
  mirrored: false,
  others: layout.others.map((other) => ({
    ...other,
    points: other.line
      ? [...other.points].sort((a, b) => a.besideM - b.besideM || a.aheadM - b.aheadM)
      : other.points,
  })),
  footfalls: layout.footfalls.map((fall) => ({
    ...fall,
    headingDeg: Math.abs(fall.headingDeg) > 179.9999 ? 180 : fall.headingDeg,
    facingDeg: Math.abs(fall.facingDeg) > 179.9999 ? 180 : fall.facingDeg,
  })),
  marks: layout.marks.map((mark) => ({
    ...mark,
    headingDeg: Math.cos((mark.headingDeg * Math.PI) / 180),
  })),
  track: layout.track.map((point) => ({
    ...point,
    facingDeg: Math.cos((point.facingDeg * Math.PI) / 180),
  })),
});

describe('layOut, any sequence', () => {
  it('gives finite footfalls in order of time and number', () => {
    fc.assert(
      fc.property(sequences, fc.double({ min: 0.3, max: 1, noNaN: true }), (asked, speed) => {
        const { footfalls, track, totalTimeS } = layOut(asked, athlete, { speedFraction: speed });
        let before: Footfall | undefined;
        for (const fall of footfalls) {
          for (const figure of [
            fall.besideM,
            fall.aheadM,
            fall.headingDeg,
            fall.facingDeg,
            fall.lengthM,
            fall.timeS,
            fall.speedMps,
          ]) {
            expect(Number.isFinite(figure)).toBe(true);
          }
          if (before) {
            expect(fall.timeS).toBeGreaterThanOrEqual(before.timeS);
            expect(fall.n - before.n).toBeGreaterThanOrEqual(0);
            expect(fall.n - before.n).toBeLessThanOrEqual(1);
          }
          before = fall;
        }
        expect(totalTimeS).toBeGreaterThanOrEqual(before?.timeS ?? 0);
        expect(track.every((at, i) => i === 0 || at.timeS >= track[i - 1]!.timeS)).toBe(true);
      }),
      { numRuns: 300 },
    );
  });

  it('is its own mirror twice, and the other side is the mirror', () => {
    fc.assert(
      fc.property(sequences, (asked) => {
        const own = layOut(asked, athlete);
        expect(places(sameWay(mirrorLayout(mirrorLayout(own))))).toEqual(places(sameWay(own)));
        const other = layOut(asked, athlete, { side: 'other' });
        expect(places(sameWay(other))).toEqual(places(sameWay(mirrorLayout(own))));
      }),
      { numRuns: 200 },
    );
  });

  it('written with left and right swapped, is laid out as its mirror', () => {
    fc.assert(
      fc.property(sequences, (asked) => {
        const own = layOut(asked, athlete);
        const swapped = layOut(writtenMirrored(asked), athlete);
        // The words were swapped and so was whom they are for: the same athlete sees the same ground.
        expect(places(sameWay(swapped))).toEqual(places(sameWay(own)));
      }),
      { numRuns: 200 },
    );
  });

  it('grows with the athlete: twice the body, twice the ground', () => {
    // How hard one can brake does not grow with the body; nobody is held here.
    const free = { ...athlete, brakeMps2: 1e9 };
    const twice = {
      ...free,
      heightM: 2 * athlete.heightM,
      legM: 2 * athlete.legM,
      shoeM: 2 * athlete.shoeM,
      model: {
        ...athlete.model,
        firstLengthM: 2 * athlete.model.firstLengthM,
        topLengthM: 2 * athlete.model.topLengthM,
      },
    };
    fc.assert(
      fc.property(
        sequences.filter(
          (asked) => !/"of":"m"|"alongM"|"goalM"/.test(JSON.stringify(asked.phases)),
        ),
        (asked) => {
          // A short step at a target is held between the shortest and the longest that there are.
          const shortM = asked.phases.flatMap(({ steps }) =>
            steps.kind === 'short' && steps.target ? [spanM(steps.step, athlete)] : [],
          );
          fc.pre(shortM.every((lengthM) => lengthM > 0.03 && 2 * lengthM < 1.5));
          const small = layOut({ ...asked, others: [] }, free);
          const large = layOut({ ...asked, others: [] }, twice);
          large.footfalls.forEach((fall, i) => {
            expect(fall.besideM).toBeCloseTo(2 * small.footfalls[i]!.besideM, 6);
            expect(fall.aheadM).toBeCloseTo(2 * small.footfalls[i]!.aheadM, 6);
            expect(fall.timeS).toBeCloseTo(small.footfalls[i]!.timeS, 9);
          });
        },
      ),
      { numRuns: 100 },
    );
  });
});

const stance = phase({ kind: 'stance', width: m(0.4), depth: m(0), front: null });
const runUp = (steps: number, arrive: 'left' | 'right' = 'left') =>
  phase({
    kind: 'build-up',
    first: null,
    steps,
    fill: true,
    target: { name: 'board', arrive, longer: 0.06, shorter: 0.05 },
  });

describe('the solvers inside', () => {
  it('a run-up with a target is what the straight solver says', () => {
    const run = { steps: 14, distanceM: 25, checkMarks: [6], tolerance: 0.1 };
    const laid = layOut(sequence([stance, runUp(10)]), athlete, { run });
    const plan = solveStraight({
      model: athlete.model,
      takeoffFoot: 'left',
      absorb: 'early',
      speedFraction: 1,
      ending: { kind: 'penultimate', longer: 0.06, shorter: 0.05 },
      ...run,
    });
    if (!plan.feasible) throw new Error('must fit');
    const falls = laid.footfalls.filter((fall) => fall.n > 0);
    expect(falls).toHaveLength(14);
    falls.forEach((fall, i) => {
      expect(fall.aheadM).toBeCloseTo(plan.steps[i]!.fromStartM, 9);
      expect(fall.foot).toBe(plan.steps[i]!.foot);
      expect(fall.timeS).toBeCloseTo(plan.steps[i]!.timeS, 9);
    });
    expect(falls.at(-1)!.toLineM).toBe(0);
    expect(laid.marks.find((mark) => mark.kind === 'check')!.aheadM).toBeCloseTo(
      25 - plan.checkMarks[0]!.toTargetM,
      9,
    );
    expect(laid.failure).toBeNull();
  });

  it('says why a start mark cannot be met and lays a free start', () => {
    const laid = layOut(sequence([runUp(10)]), athlete, { run: { distanceM: 60 } });
    expect(laid.failure?.reason).toBe('too-long');
    expect(laid.footfalls.at(-1)!.toLineM).toBe(0);
  });

  it('runs a curve to the bar at the angle asked, from the outside in', () => {
    const curve = phase({
      kind: 'curve',
      to: 'left',
      steps: 5,
      turnDeg: 0,
      step: m(1.7),
      cadenceSpm: 240,
      bar: { alongM: 0.5, outM: 0.9, takeoffAngleDeg: 24 },
    });
    const straight = phase({ kind: 'build-up', first: null, steps: 4, fill: true, target: null });
    const { footfalls, others } = layOut(sequence([straight, curve]), athlete);
    expect(footfalls).toHaveLength(9);
    const last = footfalls.at(-1)!;
    expect(last.foot).toBe('left');
    expect(last.facingDeg).toBeCloseTo(-(90 - 24), 6);
    expect(last.toLineM).toBeCloseTo(0.9, 9);
    const bar = others.find((other) => other.kind === 'bar')!;
    expect(bar.points[0]!.aheadM).toBeCloseTo(bar.points[1]!.aheadM, 9);
    // The run comes from the right of the bar; the far upright lies further left.
    expect(bar.points[1]!.besideM).toBeLessThan(bar.points[0]!.besideM);
    expect(bar.points[0]!.aheadM - last.aheadM).toBeLessThan(1.2);
  });
});

describe('parts and reads', () => {
  const options = [
    { code: 'in', to: 'in', weight: 1 },
    { code: 'out', to: 'out', weight: 1 },
  ];
  const go = (code: string, side: 'left' | 'right') =>
    phase(
      { kind: 'recover', first: null, steps: 3, step: m(1), way: 'ahead', cadenceSpm: 200 },
      { code, turn: { deg: 45, to: side }, then: 'end' },
    );
  const short = phase(
    {
      kind: 'short',
      first: 'left',
      steps: 4,
      taper: 0,
      step: m(0.2),
      cadenceSpm: 300,
      width: m(0.3),
      target: null,
    },
    { read: { options } },
  );
  const branching = sequence([stance, short, go('in', 'left'), go('out', 'right')]);

  it('takes the first option unless another is chosen', () => {
    expect(pathOf(branching.phases).map((phase) => phase.code)).toEqual(['stance', 'short', 'in']);
    expect(pathOf(branching.phases, { short: 'out' }).map((phase) => phase.code)).toEqual([
      'stance',
      'short',
      'out',
    ]);
    expect(layOut(branching, athlete).footfalls.at(-1)!.besideM).toBeLessThan(0);
    const out = layOut(branching, athlete, { reads: { short: 'out' } });
    expect(out.footfalls.at(-1)!.besideM).toBeGreaterThan(0);
    expect(out.marks.some((mark) => mark.kind === 'read' && mark.n === 4)).toBe(true);
  });

  it.each([
    [{ kind: 'until-read' }, 4],
    [{ kind: 'last', steps: 2 }, 2],
    [{ kind: 'steps', from: 2, to: 4 }, 3],
    [{ kind: 'hold', step: 4, holdS: 3 }, 4],
    [{ kind: 'phases', from: 'in', to: 'in' }, 3],
  ] as const)('cuts %o', (part, steps) => {
    const whole = layOut(branching, athlete);
    const cut = layOut(branching, athlete, { part });
    const falls = cut.footfalls.filter((fall) => fall.n > 0);
    expect(falls.map((fall) => fall.n)).toEqual(Array.from({ length: steps }, (_, i) => i + 1));
    expect(falls[0]!.timeS).toBeCloseTo(falls[0]!.intervalS, 9);
    const same = whole.footfalls.find(
      (fall) =>
        fall.n > 0 && fall.besideM === falls[0]!.besideM && fall.aheadM === falls[0]!.aheadM,
    );
    expect(same).toBeDefined();
    expect(cut.footfalls.filter((fall) => fall.n === 0)).toHaveLength(2);
    expect(cut.totalTimeS).toBeCloseTo(
      falls.reduce((sum, fall) => sum + fall.intervalS, 0) + (part.kind === 'hold' ? 3 : 0),
      6,
    );
  });

  it('half speed keeps the feet of short steps in place and doubles their time', () => {
    const full = layOut(sequence([stance, short]), athlete);
    const half = layOut(sequence([stance, short]), athlete, { speedFraction: 0.5 });
    expect(half.footfalls.map((fall) => fall.aheadM)).toEqual(full.footfalls.map((f) => f.aheadM));
    expect(half.totalTimeS).toBeCloseTo(2 * full.totalTimeS, 9);
  });
});

describe('checkRules', () => {
  const steps = (count: number, ball: SequencePhase['ball'] = null) =>
    phase(
      { kind: 'recover', first: null, steps: count, step: m(1), way: 'ahead', cadenceSpm: 200 },
      { code: `go${count}${ball}`, ball },
    );
  const gather = phase(
    {
      kind: 'gather',
      feet: 'together',
      first: 'right',
      ahead: m(0.5),
      apart: m(0.4),
      intervalS: 0.3,
      boxes: false,
    },
    { ball: 'gather' },
  );
  const falls = (...phases: SequencePhase[]) => layOut(sequence(phases), athlete).footfalls;
  const limit = (gatherCounts: boolean) =>
    ({
      name: 'two steps',
      rules: [{ kind: 'steps-with-ball', limit: 2, gatherCounts }],
    }) as const;

  it('counts steps with the ball in hand, the gather or not', () => {
    expect(checkRules(falls(gather, steps(2, 'release')), limit(false))).toEqual([]);
    const [counted] = checkRules(falls(gather, steps(2, 'release')), limit(true));
    expect(counted).toMatchObject({ n: 3, rule: 'steps-with-ball' });
    const [third] = checkRules(falls(gather, steps(3, 'release')), limit(false));
    expect(third!.n).toBe(4);
    expect(third!.why).toBe(
      'Step 4 is the third with the ball in hand, the gather not counted; 2 steps are allowed.',
    );
    expect(checkRules(falls(gather, steps(1, 'dribble'), steps(5)), limit(false))).toEqual([]);
  });

  it('takes jabs and turns about the pivot for one step', () => {
    const about = (code: string): SequencePhase =>
      phase({ kind: 'pivot', on: 'left', turn: 'front', turnDeg: 40, intervalS: 0.3 }, { code });
    const turned = [about('a'), about('b'), about('c')];
    expect(checkRules(falls(gather, ...turned), limit(false))).toEqual([]);
    expect(checkRules(falls(gather, ...turned, steps(1)), limit(false))).toEqual([]);
    expect(checkRules(falls(gather, ...turned, steps(2)), limit(false))).toHaveLength(1);
  });

  it('finds a pivot foot that comes down again', () => {
    const pivot = phase(
      { kind: 'pivot', on: 'left', turn: 'front', turnDeg: 90, intervalS: 0.4 },
      { code: 'turn' },
    );
    const rule = { name: 'p', rules: [{ kind: 'pivot-foot', until: 'release' }] } as const;
    expect(checkRules(falls(gather, pivot), rule)).toEqual([]);
    const broken = checkRules(falls(gather, pivot, steps(2, 'release')), rule);
    // The right foot moved first, so the left is the pivot; it comes down with the first step.
    expect(broken).toMatchObject([{ n: 3, rule: 'pivot-foot' }]);
    expect(broken[0]!.why).toContain('pivot foot (left)');
    expect(checkRules(falls(gather, pivot, steps(1, 'dribble')), rule)).toEqual([]);
    expect(
      checkRules(falls(gather, pivot, steps(1, 'dribble')), {
        name: 'p',
        rules: [{ kind: 'pivot-foot', until: 'dribble' }],
      }),
    ).toHaveLength(1);
  });

  it('checks take-off, landing, the line and the number of steps', () => {
    const jump = phase({ kind: 'finish', from: 'left', flight: m(2), flightS: 0.6, land: 'both' });
    const jumped = falls(stance, runUp(5), jump);
    const set = (rule: Parameters<typeof checkRules>[1]['rules'][number]) => ({
      name: 'x',
      rules: [rule],
    });
    expect(checkRules(jumped, set({ kind: 'take-off-feet', feet: 1 }))).toEqual([]);
    expect(checkRules(jumped, set({ kind: 'take-off-feet', feet: 2 }))).toMatchObject([{ n: 5 }]);
    expect(checkRules(jumped, set({ kind: 'landing-feet', feet: 2 }))).toEqual([]);
    expect(checkRules(jumped, set({ kind: 'landing-feet', feet: 1 }))).toMatchObject([{ n: 6 }]);
    expect(checkRules(jumped, set({ kind: 'behind-line' }))).toEqual([]);
    const over = jumped.map((fall) => (fall.n === 5 ? { ...fall, toLineM: -0.07 } : fall));
    expect(checkRules(over, set({ kind: 'behind-line' }))[0]!.why).toBe(
      'Step 5 lands 7 cm over the line; no foot may be beyond it before the take-off.',
    );
    expect(checkRules(jumped, set({ kind: 'most-steps', limit: 5 }))).toEqual([]);
    expect(checkRules(jumped, set({ kind: 'most-steps', limit: 4 }))).toMatchObject([{ n: 5 }]);
  });
});

describe('braking in a layout', () => {
  const fall = (
    n: number,
    lengthM: number,
    cadenceSpm: number,
    change: Partial<Footfall> = {},
  ) => ({
    ...{ n, foot: n % 2 ? ('left' as const) : ('right' as const), headingDeg: 0, facingDeg: 0 },
    ...{ contact: 'step' as const, phase: 'run', lengthM, intervalS: 60 / cadenceSpm, timeS: 0 },
    ...{ speedMps: (lengthM * cadenceSpm) / 60, besideM: 0, aheadM: 0, takeOff: false },
    ...{ landing: false, ball: null, toLineM: null },
    ...change,
  });
  /** Steps one after the other, each as long after the one before as it takes. */
  const run = (...falls: ReturnType<typeof fall>[]) => {
    let timeS = 0;
    const footfalls = falls.map((one) => {
      timeS += one.intervalS;
      return { ...one, timeS };
    });
    return { footfalls: footfalls as unknown as Footfall[] };
  };

  it('is what every warning of running steps has, by the same two steps', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(evenly(0.4, 2.4), evenly(150, 300)), { minLength: 2, maxLength: 12 }),
        (steps) => {
          const layout = run(...steps.map(([lengthM, spm], i) => fall(i + 1, lengthM, spm)));
          const hardest = Math.max(0, ...brakesOver(layout, 0).map(({ decelMps2 }) => decelMps2));
          const { demandMps2 } = brakeDemand({
            lengthsM: steps.map(([lengthM]) => lengthM),
            cadencesSpm: steps.map(([, spm]) => spm),
            fromStep: 1,
          });
          expect(hardest).toBeCloseTo(demandMps2, 6);
        },
      ),
    );
  });

  it('leaves out feet that brace, and has who stands still come to rest', () => {
    const [from, to] = [fall(1, 2, 240), fall(2, 1, 200)];
    expect(brakesOver(run(from, to), 4.5)).toHaveLength(1);
    for (const brace of [{ takeOff: true }, { landing: true }, { facingDeg: 40 }])
      expect(brakesOver(run(from, { ...to, ...brace }), 4.5)).toEqual([]);
    expect(brakesOver(run(from, to, { ...to, intervalS: 0 }), 4.5)).toEqual([]);
    const spot = brakesOver(run(from, fall(2, 0, 200)), 4.5);
    expect(spot[0]!.decelMps2).toBeCloseTo(8 / ((0.25 + 0.3) / 2));
  });
});
