import type { CueChoice } from '@gravek/contract/coachChoices';
import type {
  CueGiven,
  CueTold,
  FaultStanding,
  LedgerRow,
  SquadFaults,
} from '@gravek/contract/faults';
import { describe, expect, it } from 'vitest';
import { cueFor } from '../src/cue/cue';
import { cueVerdict } from '../src/cue/cueVerdict';
import { type ConditionRow, contrastsOf, cueResults, cueSpans } from '../src/cue/ledger';
import type { SessionFaults } from '../src/cue/sessionFaults';
import { byNeed, sharedFaults } from '../src/cue/squadFaults';
import { cueInForce, standingsOf, toldOf } from '../src/cue/standings';
import { movementOf } from '../src/movement/movements';

const runUp = movementOf('straight-run-up');
const session = (n: number, shown: number, cue: string | null = null): SessionFaults => ({
  date: `2031-03-${String(n).padStart(2, '0')}`,
  reps: 12,
  exposed: [{ fault: 'slows-in', reps: 12 }],
  faults: shown > 0 ? [{ fault: 'slows-in', reps: shown }] : [],
  together: [],
  cues: cue ? [{ fault: cue, last: `2031-03-${String(n).padStart(2, '0')}T10:00:00.000Z` }] : [],
});

describe('the cue in force', () => {
  const standing = (code: string, rate: number, state: FaultStanding['state'] = 'steady') =>
    ({ ...standingsOf([session(1, 6)])[0]!, code, rate, state }) satisfies FaultStanding;
  const told: CueTold = {
    fault: 'slows-in',
    since: '2031-03-01',
    sessions: 3,
    at: '2031-03-08T10:00:00.000Z',
  };
  const chosen = (fault: string | null, at: string): CueChoice => ({
    fault,
    drill: null,
    reason: 'seen',
    person: 'Runa',
    day: at.slice(0, 10),
    at,
    toldAt: null,
  });
  const faults = [standing('slows-in', 0.2), standing('reaches', 0.6)];
  const cueOf = (given: Partial<Parameters<typeof cueInForce>[2]>) =>
    cueInForce(runUp, 'root-cause', { faults, told, choice: null, ...given });

  it('stays though another weighs more, and is chosen anew once it has cleared or is not named any more', () => {
    expect(cueOf({})).toMatchObject({ fault: 'slows-in', since: '2031-03-01', sessions: 3 });
    const cleared = [standing('slows-in', 0.05, 'cleared'), standing('reaches', 0.6)];
    expect(cueOf({ faults: cleared })).toMatchObject({ fault: 'reaches', since: null });
    expect(cueOf({ told: { ...told, fault: 'gone-from-it' } })!.fault).toBe('reaches');
    expect(cueOf({ told: null })!.fault).toBe('reaches');
  });

  it('gives way to a fault that can hurt, unless a coach has chosen it', () => {
    const hurts = [...faults, standing('locked-leg', 0.2)];
    expect(cueOf({ faults: hurts })!.fault).toBe('locked-leg');
    const early = chosen('slows-in', '2031-02-27T10:00:00.000Z');
    expect(cueOf({ faults: hurts, choice: early })).toMatchObject({
      fault: 'slows-in',
      by: { person: 'Runa', reason: 'seen' },
    });
  });

  it('is the coach’s since the choice, even of what had cleared; handed back, what was given goes on', () => {
    const later = '2031-03-09T10:00:00.000Z';
    const cleared = [standing('slows-in', 0.2), standing('reaches', 0.05, 'cleared')];
    expect(cueOf({ faults: cleared, choice: chosen('reaches', later) })).toMatchObject({
      fault: 'reaches',
      since: null,
      sessions: 0,
    });
    expect(cueOf({ choice: chosen('slows-in', later) })).toMatchObject({
      since: '2031-03-01',
      by: { person: 'Runa' },
    });
    expect(cueOf({ choice: chosen(null, later) })).toMatchObject({ fault: 'slows-in', by: null });
    // A phone whose clock goes ahead had given it before, though it says later.
    const early = chosen('reaches', '2031-03-08T09:58:00.000Z');
    expect(cueOf({ choice: early })!.fault).toBe('slows-in');
    expect(cueOf({ choice: { ...early, toldAt: told.at } })!.fault).toBe('reaches');
    // What was given on the field since then is what counts.
    expect(cueOf({ choice: chosen('reaches', '2031-03-07T10:00:00.000Z') })!.fault).toBe(
      'slows-in',
    );
  });
});

describe('spans of a cue', () => {
  it('begin anew after a session without it, and tell what came of it', () => {
    const sessions = [
      session(1, 9),
      session(3, 9, 'slows-in'),
      session(5, 3, 'slows-in'),
      session(7, 0),
      session(9, 4, 'slows-in'),
    ];
    expect(cueSpans(sessions)).toEqual([
      { fault: 'slows-in', from: 1, to: 2 },
      { fault: 'slows-in', from: 4, to: 4 },
    ]);
    expect(cueResults(sessions)).toEqual([
      {
        fault: 'slows-in',
        before: { reps: 12, faults: 9 },
        since: { reps: 24, faults: 12 },
      },
    ]);
    expect(toldOf(sessions)).toMatchObject({ since: '2031-03-09', sessions: 1 });
    expect(toldOf(sessions.slice(0, 3))).toMatchObject({ since: '2031-03-03', sessions: 2 });
    expect(toldOf(sessions.slice(0, 4))).toBeNull();
  });
});

describe('the verdict on a cue', () => {
  const row = (code: string, rate: number, state: FaultStanding['state']): LedgerRow => ({
    ...{ ...standingsOf([session(1, 6)])[0]!, code, rate, state },
    ...{ exposed: [12], shown: [6] },
  });
  const given = (sessions: number): CueGiven => ({
    ...{ fault: 'slows-in', reason: '', since: '2031-03-01', sessions, by: null, drill: null },
  });
  const verdict = (sessions: number, rows: LedgerRow[]) =>
    cueVerdict(runUp, { cue: given(sessions), rows }, 'root-cause')!;

  it('says in a sentence whether it works, and what to cue where it does not', () => {
    expect(verdict(0, [row('slows-in', 0.4, 'steady')]).sentence).toContain('next session');
    expect(verdict(2, [row('slows-in', 0.4, 'steady')])).toMatchObject({ kind: 'too-early' });
    expect(verdict(9, [row('slows-in', 0.3, 'steady')])).toMatchObject({ kind: 'unclear' });
    expect(verdict(5, [row('slows-in', 0.2, 'clearing')]).sentence).toMatch(/^Working after 5 /);
    expect(verdict(9, [row('slows-in', 0.02, 'cleared')])).toMatchObject({ kind: 'cleared' });
    // What brings it about is cued in its place, not what is merely frequent.
    const stuck = verdict(17, [
      row('slows-in', 0.5, 'stuck'),
      row('over-line', 0.6, 'steady'),
      row('looks-down', 0.3, 'steady'),
    ]);
    expect(stuck).toMatchObject({ kind: 'not-working', instead: { code: 'looks-down' } });
    expect(stuck.sentence).toBe('Not working after 17 sessions: try “Eyes past the mark”.');
    const alone = verdict(4, [row('slows-in', 0.5, 'stuck')]);
    expect(alone).toMatchObject({ kind: 'not-working', instead: null });
    expect(alone.sentence).toContain('another drill');
    expect(cueVerdict(runUp, { cue: null, rows: [] }, 'root-cause')).toBeNull();
    expect(
      cueVerdict(runUp, { cue: { ...given(4), fault: 'gone' }, rows: [] }, 'root-cause'),
    ).toBeNull();
  });

  it('weighs a root by the reps in which it shows without an earlier fault', () => {
    // Slowing always follows looking down; the other one stands alone.
    const shown = { ...session(1, 6), reps: 40 };
    const sessions: SessionFaults[] = [
      {
        ...shown,
        exposed: ['looks-down', 'slows-in'].map((fault) => ({ fault, reps: 40 })),
        faults: [
          { fault: 'looks-down', reps: 18 },
          { fault: 'slows-in', reps: 20 },
        ],
        together: [
          { faults: ['looks-down', 'slows-in'], reps: 17 },
          { faults: ['looks-down'], reps: 1 },
          { faults: ['slows-in'], reps: 3 },
        ],
      },
    ];
    const standings = standingsOf(sessions, undefined, runUp);
    const of = (code: string) => standings.find((one) => one.code === code)!;
    expect(of('looks-down').alone).toBe(1);
    // Both are of one phase: nothing is earlier.
    expect(of('slows-in').alone).toBe(1);
    const early = sessions.map(
      (session) =>
        JSON.parse(
          JSON.stringify(session).replaceAll('looks-down', 'start-varies'),
        ) as SessionFaults,
    );
    const later = standingsOf(early, undefined, runUp).find(({ code }) => code === 'slows-in')!;
    expect(later.alone).toBeCloseTo(3 / 20, 5);
    expect(cueFor(runUp, 'root-cause', standingsOf(early, undefined, runUp))!.fault.code).toBe(
      'start-varies',
    );
  });
});

describe('where a fault shows', () => {
  const row = (change: Partial<ConditionRow>): ConditionRow => ({
    ...session(1, 0),
    sessionId: 's',
    part: null,
    side: 'own',
    leadFoot: null,
    speedPct: null,
    rung: null,
    exit: null,
    late: false,
    loggedBy: null,
    reps: 30,
    exposed: [{ fault: 'slows-in', reps: 30 }],
    ...change,
  });

  it('is pointed out only where it stands out, and said of the condition it is of', () => {
    const fast = row({ speedPct: 100, faults: [{ fault: 'slows-in', reps: 24 }] });
    const slow = row({ speedPct: 70, faults: [{ fault: 'slows-in', reps: 4 }] });
    expect(contrastsOf([fast, slow], ['slows-in'])).toMatchObject([
      { axis: 'speed', a: { reps: 30, faults: 4 }, b: { reps: 30, faults: 24 } },
    ]);
    expect(contrastsOf([fast, { ...fast, late: true }], ['slows-in'])).toEqual([]);
    expect(contrastsOf([], ['slows-in'])).toEqual([]);
  });
});

describe('the squad', () => {
  type Line = SquadFaults['items'][number];
  const line = (athleteId: string, faults: [string, number, FaultStanding['state']][]): Line => ({
    athleteId,
    movement: runUp.code,
    reps: 40,
    sessions: 5,
    lastDay: '2031-03-09',
    lately: 20,
    cue: null,
    reads: [],
    results: [],
    faults: faults.map(([code, rate, state]) => ({
      code,
      seen: 9,
      rate,
      low: rate / 2,
      high: rate,
      state,
      effect: null,
    })),
  });

  it('is sorted by who most deserves the next session: what can hurt, what is back, then what shows most', () => {
    const lines = [
      line('fine', []),
      line('clearing', [['reaches', 0.5, 'clearing']]),
      line('steady', [['reaches', 0.45, 'steady']]),
      line('back', [['reaches', 0.4, 'back']]),
      line('hurts', [['locked-leg', 0.4, 'steady']]),
    ];
    expect(byNeed(runUp, lines).map((one) => one.athleteId)).toEqual([
      'hurts',
      'back',
      'steady',
      'clearing',
      'fine',
    ]);
  });

  it('shares at most three faults, each of two or more, those of most athletes first', () => {
    const lines = [
      line('a', [
        ['reaches', 0.5, 'steady'],
        ['slows-in', 0.3, 'steady'],
        ['looks-down', 0.1, 'steady'],
      ]),
      line('b', [
        ['reaches', 0.2, 'steady'],
        ['slows-in', 0.3, 'steady'],
        ['looks-down', 0.3, 'steady'],
      ]),
      line('c', [['reaches', 0.2, 'steady']]),
    ];
    expect(
      sharedFaults(runUp, lines).map(({ fault, athleteIds }) => [fault.code, athleteIds]),
    ).toEqual([
      ['reaches', ['a', 'b', 'c']],
      ['slows-in', ['a', 'b']],
    ]);
  });
});
