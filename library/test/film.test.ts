import { SIDE_JOINTS } from '@gravek/core/body/posture';
import { otherFoot } from '@gravek/core/feet';
import type { MarkPair, PicturePoint } from '@gravek/core/film/planeMap';
import type { FilmContact } from '@gravek/core/film/watchedSteps';
import { bodyOf } from '@gravek/core/layout/body';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { faultsInFilm, withContact, withJoint, withNextPhase, withToeOff } from '../src/field/film';
import { type Marked, plainPlan, reviewCue, reviewed } from '../src/film/reviewed';
import { type PlannedStep, plannedSteps, reactionIn } from '../src/film/watched';
import { movementOf, MOVEMENTS } from '../src/movement/movements';
import { solve } from '../src/planning/solvePlan';

const body = bodyOf({
  ...{ hand: 'right', takeoffFoot: 'left', trials: [], heightM: 1.8, legM: null, shoeM: null },
  ageYears: 20,
});
const child = bodyOf({
  ...{ hand: 'left', takeoffFoot: 'right', trials: [], heightM: 1.4, legM: null, shoeM: null },
  ageYears: 10,
});

/** Seen from straight above, a hundred pixels a metre, so that only what was run matters. */
const px = (alongM: number, acrossM: number): PicturePoint => ({
  x: 4000 + 100 * alongM,
  y: 2000 + 100 * acrossM,
});
const LANE: MarkPair[] = [-20, -8, 0, 4].flatMap((alongM) =>
  [0.6, -0.6].map((acrossM) => ({ px: px(alongM, acrossM), ground: { alongM, acrossM } })),
);

/** A run of a plan with some steps changed, as it is marked; the last foot where it came down. */
const filmed = (
  plan: readonly PlannedStep[],
  otherwise: Record<number, number> = {},
  from = 0,
): Marked => {
  const steps = plan.slice(from);
  const total = plan.reduce((sum, step) => sum + step.lengthM, 0);
  let alongM = plan.slice(0, from).reduce((sum, step) => sum + step.lengthM, 0) - total;
  let atS = 1;
  const contact = (foot: 'left' | 'right'): FilmContact => ({
    foot,
    at: px(alongM, 0),
    on: { atS, gapS: 0.01 },
    off: { atS: atS + 0.1, gapS: 0.01 },
  });
  const contacts = [contact(from === 0 ? otherFoot(steps[0]!.foot) : plan[from - 1]!.foot)];
  for (const step of steps) {
    alongM += step.lengthM + (otherwise[step.n] ?? 0);
    atS += step.intervalS;
    contacts.push(contact(step.foot));
  }
  return {
    view: { kind: 'marks', pairs: LANE },
    lineM: 0,
    firstStep: null,
    contacts,
    poses: [],
    side: 'own',
  };
};

const planOf = (code: string, who = body): PlannedStep[] => {
  const movement = movementOf(code);
  return plannedSteps(solve(movement, plainPlan(movement), who).layout!);
};
const look = (code: string, marked: Marked, who = body) =>
  reviewed(movementOf(code), plainPlan(movementOf(code)), who, marked);
const named = (code: string, marked: Marked, who = body): string[] =>
  look(code, marked, who).suggestions.map(({ fault }) => fault.code);

describe('a film held against a plan', () => {
  it('finds nothing in a run as it was planned, for an adult and a left-footed child', () => {
    for (const who of [body, child]) {
      for (const code of ['straight-run-up', 'close-and-shorten', 'first-two-steps']) {
        const plan = planOf(code, who);
        const found = look(code, filmed(plan), who);
        expect(found.why).toBeNull();
        expect(found.firstStep).toBe(0);
        expect(found.rows.some((row) => row.longer || row.shorter || row.wrongFoot)).toBe(false);
        expect(found.suggestions).toEqual([]);
      }
    }
  });

  it('knows which steps a film shows that begins late, by the line and by the feet', () => {
    const plan = planOf('straight-run-up');
    for (const from of [1, 4, 9]) {
      const found = look('straight-run-up', filmed(plan, {}, from));
      expect(found.firstStep).toBe(from);
      const noLine = look('straight-run-up', { ...filmed(plan, {}, from), lineM: null });
      expect(noLine.firstStep).toBe(from);
    }
    expect(look('straight-run-up', { ...filmed(plan), firstStep: 2 }).firstStep).toBe(2);
  });

  it('holds the first step’s time against the plan’s only where it counts from the first movement', () => {
    const plan = planOf('straight-run-up');
    const marked = filmed(plan);
    expect(look('straight-run-up', marked).rows[0]).toMatchObject({ isTimed: true });
    // The foot at the start was marked three seconds before anything moved.
    const [stood, ...rest] = marked.contacts;
    const early = { ...stood!, on: { ...stood!.on, atS: stood!.on.atS - 3 } };
    const waited = look('straight-run-up', { ...marked, contacts: [early, ...rest] });
    expect(waited.rows.map(({ isTimed }) => isTimed)).toEqual([
      false,
      ...waited.rows.slice(1).map(() => true),
    ]);
    expect(waited.odd.join()).toContain('first movement');
    expect(waited.suggestions).toEqual([]);
    // A film that begins later has no such step.
    expect(look('straight-run-up', filmed(plan, {}, 4)).odd).toEqual([]);
  });

  it('tells how soon after the call the first foot landed, which is not the foot at the start', () => {
    const contacts = [1, 1.6, 2].map((atS) => ({ on: { atS } }));
    expect(reactionIn(contacts, 1.1, 0)).toBe(0.5);
    expect(reactionIn(contacts, 0.9, 0)).toBe(0.7);
    expect(reactionIn(contacts, 0.9, 3)).toBe(0.1);
    expect(reactionIn(contacts, 2, 0)).toBeNull();
    expect(reactionIn([], 0, 0)).toBeNull();
  });

  it('suggests what was measured, and names step and figure', () => {
    const plan = planOf('straight-run-up');
    const last = plan.at(-1)!.n;
    const reaching = look('straight-run-up', filmed(plan, { [last]: 0.2 }));
    expect(reaching.suggestions.map(({ fault, n }) => [fault.code, n])).toEqual([
      ['reaches', last],
      ['over-line', last],
    ]);
    const [first] = reaching.suggestions;
    expect(first!.seen - first!.planned).toBeCloseTo(0.2, 2);
    expect(named('straight-run-up', filmed(plan, { [last - 3]: -0.3 }))).toContain('chops-to-fit');
    expect(named('straight-run-up', filmed(plan, { 1: -0.3 }))).toContain('hurried-first-steps');
    // What lies within what a press may be off is not said.
    expect(named('straight-run-up', filmed(plan, { [last]: 0.03 }))).toEqual([]);
  });

  it('tells shortening before the zone from long short steps', () => {
    const plan = planOf('close-and-shorten');
    const short = plan.filter((step) => step.contact === 'short');
    const zone = plan.findIndex(({ phase }) => phase === short[0]!.phase);
    const before = plan[zone - 1]!;
    // Running down to the short steps is what was planned.
    expect(named('close-and-shorten', filmed(plan, { [plan[zone]!.n]: -0.2 }))).toEqual([]);
    expect(named('close-and-shorten', filmed(plan, { [before.n]: -0.5 }))).toContain(
      'shortens-early',
    );
    const long = Object.fromEntries(short.map(({ n }) => [n, 0.25]));
    expect(named('close-and-shorten', filmed(plan, long))).toContain('long-short-steps');
  });

  it('tells a jump that drifts', () => {
    const plan = planOf('block-jump');
    const jump = plan.find((step) => step.landing)!;
    expect(named('block-jump', filmed(plan))).toEqual([]);
    expect(named('block-jump', filmed(plan, { [jump.n]: 0.5 }))).toEqual(['drifts-along']);
  });

  it('says in a sentence why it cannot be measured, and what is odd', () => {
    const marked = filmed(planOf('straight-run-up'));
    const why = (change: Partial<Marked>): string | null =>
      look('straight-run-up', { ...marked, ...change }).why;
    expect(why({ view: null })).toMatch(/^Mark the ground first/);
    expect(why({ view: { kind: 'marks', pairs: LANE.slice(0, 3) } })).toMatch(/^Mark the ground/);
    const line = [-8, -4, 0, 4].map((alongM) => ({
      px: px(alongM, 0.6),
      ground: { alongM, acrossM: 0.6 },
    }));
    expect(why({ view: { kind: 'marks', pairs: line } })).toMatch(/lie on a line/);
    expect(why({ contacts: marked.contacts.slice(0, 1) })).toBe('Mark two contacts or more.');
    const early = { ...marked.contacts[1]!, off: { atS: 0.5, gapS: 0.01 } };
    expect(why({ contacts: [marked.contacts[0]!, early] })).toMatch(/leaves the ground before/);
    const twice = marked.contacts.map((contact) => ({ ...contact, foot: 'left' as const }));
    expect(look('straight-run-up', { ...marked, contacts: twice }).odd[0]).toBe(
      'Contacts 1 and 2 are both left: one between them is missing, or a foot is wrong.',
    );
  });

  it('holds for every movement: a run as planned shows no fault, whatever its feet do', () => {
    for (const movement of MOVEMENTS) {
      const plan = planOf(movement.code);
      if (plan.length < 2) continue;
      expect(named(movement.code, { ...filmed(plan), lineM: null }), movement.code).toEqual([]);
    }
  });
});

describe('the one cue of a film', () => {
  it('is by the club’s school, and tells the next one should it be cured', () => {
    const movement = movementOf('straight-run-up');
    expect(reviewCue(movement, 'root-cause', [])).toBeNull();
    const both = reviewCue(movement, 'first-phase', ['reaches', 'hurried-first-steps'])!;
    expect(both.fault.code).toBe('hurried-first-steps');
    expect(both.next!.code).toBe('reaches');
    const cause = movement.faults.find((fault) => fault.leadsTo.length > 0)!;
    const cue = reviewCue(movement, 'root-cause', [cause.code, cause.leadsTo[0]!])!;
    expect([cue.fault.code, cue.next!.code].sort()).toEqual([cause.code, cause.leadsTo[0]!].sort());
    expect(cue.next!.code).not.toBe(cue.fault.code);
    // A fault that the movement does not have any more is passed over.
    expect(reviewCue(movement, 'root-cause', ['long-gone'])).toBeNull();
  });
});

describe('what a press means on a film', () => {
  const frame = (atS: number) => ({ atS, gapS: 1 / 60 });
  const plan = planOf('straight-run-up');
  const middle = { x: 640, y: 360 };
  const marks = { contacts: [], view: { kind: 'marks' as const, pairs: [...LANE] } };
  const land = (contacts: Marked['contacts'], atS: number, at: { x: number; y: number } | null) =>
    withContact({ ...marks, contacts }, frame(atS), at, { plan }, middle);

  it('marks feet in turn, in the order of time, wherever in the film the coach goes on', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 0, max: 600 }), { maxLength: 12 }), (frames) => {
        const contacts = [...frames]
          .sort((a, b) => a - b)
          .reduce<Marked['contacts']>((all, n) => land(all, n / 60, middle), []);
        contacts.forEach(({ foot, on }, i) => {
          if (i === 0) expect(foot).toBe(otherFoot(plan[0]!.foot));
          else {
            expect(foot).toBe(otherFoot(contacts[i - 1]!.foot));
            expect(on.atS).toBeGreaterThan(contacts[i - 1]!.on.atS);
          }
        });
      }),
    );
  });

  it('moves a contact on its own frame, and guesses the place a step on where none was pressed', () => {
    const first = land([], 0.5, { x: 200, y: 300 });
    expect(land(first, 0.5, { x: 210, y: 300 })).toMatchObject([{ at: { x: 210, y: 300 } }]);
    expect(land(first, 0.5, null)).toBe(first);
    const [, guessed] = land(first, 0.9, null);
    expect(guessed!.at.x).not.toBe(200);
    expect(land([], 0.5, null)[0]!.at).toEqual(middle);
  });

  it('lifts the last foot that is down, and nothing before one is', () => {
    const contacts = land(land([], 0.5, middle), 1, middle);
    expect(withToeOff(contacts, frame(0.8)).map(({ off }) => off?.atS)).toEqual([0.8, undefined]);
    expect(withToeOff(contacts, frame(0.5))).toBe(contacts);
  });

  it('makes a posture of all joints, in place of one on the same frame', () => {
    const of = { on: frame(1), foot: 'left' as const, travel: 'right' as const };
    let begun: { x: number; y: number }[] = [];
    let poses: Marked['poses'] = [];
    for (let round = 0; round < 2; round += 1) {
      SIDE_JOINTS.forEach((_, i) => {
        const after = withJoint(poses, begun, { x: i, y: round }, of);
        begun = after.begun;
        expect(after.poses === null).toBe(i < SIDE_JOINTS.length - 1);
        poses = after.poses ?? poses;
      });
    }
    expect(poses).toHaveLength(1);
    expect(Object.values(poses[0]!.joints).map(({ y }) => y)).toEqual(SIDE_JOINTS.map(() => 1));
  });

  it('goes through the phases one by one, and offers the faults of those that are run', () => {
    const path = ['a', 'b', 'c'];
    let ticks: { phase: string; atS: number }[] = [];
    for (const atS of [1, 2, 3, 4]) ticks = withNextPhase(ticks, path, atS);
    expect(ticks.map(({ phase, atS }) => [phase, atS])).toEqual([
      ['a', 1],
      ['b', 2],
      ['c', 3],
    ]);
    expect(withNextPhase(ticks, path, 9)).toBe(ticks);
    const mirror = movementOf('give-ground');
    const { layout } = solve(mirror, { ...plainPlan(mirror), reads: { give: 'stops' } }, body);
    const codes = faultsInFilm(mirror, { layout }).map(({ code }) => code);
    expect(codes).toContain('wrong-side');
    expect(codes).not.toContain('caught-flat');
    expect(faultsInFilm(mirror, { layout: null })).toEqual(mirror.faults);
  });
});
