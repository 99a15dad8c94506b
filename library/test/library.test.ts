import type { Outcome } from '@gravek/core/session/repLog';
import type { SequenceChoices } from '@gravek/contract/approach';
import type { DrillSet } from '@gravek/contract/drillSet';
import { describe, expect, it } from 'vitest';
import { cueFor } from '../src/cue/cue';
import { bySession, type SessionFaults } from '../src/cue/sessionFaults';
import { athleteFaults, standingsOf } from '../src/cue/standings';
import { likelyFirst } from '../src/field/shows';
import { movementOf } from '../src/movement/movements';
import { sequenceStart } from '../src/planning/planStart';
import {
  barredBy,
  cautionsOf,
  demandOf,
  holding,
  leftBy,
  passedOver,
  repsFor,
  whyBarred,
  whyLeft,
} from '../src/session/restrictions';
import { freshDrillSet } from '../src/session/sessionFit';
import { drillSetTime, sessionReps } from '../src/session/sessionTime';

const runUp = movementOf('straight-run-up');

describe('the one cue', () => {
  const seen = [
    { code: 'start-varies', rate: 0.4 },
    { code: 'chops-to-fit', rate: 0.3 },
    { code: 'slows-in', rate: 0.3 },
  ];

  it('says what the chosen fault brings about', () => {
    const cue = cueFor(runUp, 'root-cause', seen)!;
    expect(cue.fault.code).toBe('start-varies');
    expect(cue.reason).toBe(
      'Start varies shows in 40 % of reps and brings about: chops to fit and slows before the mark.',
    );
  });

  it('puts a fault that can hurt first, by every school', () => {
    for (const school of ['root-cause', 'first-phase', 'most-frequent'] as const) {
      const cue = cueFor(runUp, school, [...seen, { code: 'locked-leg', rate: 0.2 }])!;
      expect(cue.fault.code).toBe('locked-leg');
      expect(cue.reason).toContain('can hurt');
    }
  });

  it('is none when nothing shows often', () => {
    expect(cueFor(runUp, 'root-cause', [{ code: 'reaches', rate: 0.1 }])).toBeNull();
    expect(cueFor(runUp, 'root-cause', [])).toBeNull();
  });
});

describe('how athletes stand', () => {
  const session = (dayN: number, faults: Record<string, number>, reps = 10): SessionFaults => ({
    date: `2031-03-${String(dayN).padStart(2, '0')}`,
    reps,
    exposed: runUp.faults.map(({ code }) => ({ fault: code, reps })),
    faults: Object.entries(faults).map(([fault, shown]) => ({ fault, reps: shown })),
    together: [],
    cues: [{ fault: 'reaches', last: `2031-03-${String(dayN).padStart(2, '0')}T10:00:00.000Z` }],
  });

  it('is told fault by fault, most frequent first, with the one cue', () => {
    const faults = standingsOf([
      session(1, { reaches: 6, 'slows-in': 2 }),
      session(4, { reaches: 7 }),
    ]);
    expect(faults.map((fault) => [fault.code, fault.seen])).toEqual([
      ['reaches', 13],
      ['slows-in', 2],
    ]);
    const counted = {
      athleteId: 'ana',
      movement: runUp.code,
      reps: 20,
      sessions: 2,
      lastDay: '2031-03-04',
      told: null,
      choice: null,
      faults: [...faults, { ...faults[0]!, code: 'taken-out-of-the-movement' }],
    };
    const own = athleteFaults(runUp, counted, 'root-cause');
    expect(own.cue!.fault).toBe('reaches');
    expect(own.cue!.reason).toContain('shows in');
    // A fault that the movement does not name any more is not shown.
    expect(own.faults).toHaveLength(2);
    expect(athleteFaults(runUp, { ...counted, faults: [] }, 'root-cause').cue).toBeNull();
  });

  it('adds up the conditions of a session', () => {
    const rows = [
      { sessionId: 's1', ...session(1, { reaches: 2 }, 6) },
      { sessionId: 's2', ...session(2, { hurries: 1 }, 4) },
      { sessionId: 's1', ...session(1, { reaches: 1, hurries: 3 }, 5) },
    ];
    expect(bySession(rows)).toMatchObject([
      {
        reps: 11,
        faults: [
          { fault: 'reaches', reps: 3 },
          { fault: 'hurries', reps: 3 },
        ],
        cues: [{ fault: 'reaches', last: '2031-03-01T10:00:00.000Z' }],
      },
      { reps: 4 },
    ]);
  });

  it('offers the cued fault first, then what showed before, then the graver one', () => {
    const [first, second, third] = runUp.faults.map((fault) => fault.code);
    const order = likelyFirst(runUp.faults, null, { fault: third!, likely: [second!, third!] });
    expect(order.slice(0, 2).map((fault) => fault.code)).toEqual([third, second]);
    expect(order).toHaveLength(runUp.faults.length);
    expect(order.map((fault) => fault.code)).toContain(first);
  });
});

describe('restrictions', () => {
  const asked = (code: string, choices: Partial<SequenceChoices> = {}) =>
    demandOf(movementOf(code), { ...sequenceStart(), ...choices });
  const held = { kind: 'no-jumping' as const, from: '2031-03-01', until: '2031-03-10' };

  it('pass an athlete over in what they bar, and in nothing else', () => {
    const sore = { id: 'a', name: 'Ada', archived: false, restrictions: [held] };
    const people = [sore, { ...sore, id: 'b', name: 'Bo', archived: true, restrictions: [] }];
    const ids = ['a', 'b', 'gone'];
    const over = (code: string) => [...passedOver(ids, people, asked(code), '2031-03-05').keys()];
    expect(over('straight-run-up')).toEqual(ids);
    expect(over('goal-arc')).toEqual(['b', 'gone']);
  });

  it('bar what they name, on their days only', () => {
    const run = asked('straight-run-up');
    expect(barredBy(run, [held], '2031-03-10')).toBe(held);
    expect(barredBy(run, [held], '2031-03-11')).toBeNull();
    expect(barredBy(run, [{ ...held, kind: 'no-contact' }], '2031-03-05')).toBeNull();
    expect(whyBarred('Ada', held)).toBe(
      'Ada may not jump, and this takes off and lands; until 2031-03-10.',
    );
  });

  it('go by drill, speed and rung: footwork on air is open to who may have no contact', () => {
    const contact = { ...held, kind: 'no-contact' as const };
    const bars = (choices: Partial<SequenceChoices>) =>
      barredBy(asked('close-and-shorten', choices), [contact], '2031-03-05');
    expect(bars({})).toBeNull();
    expect(bars({ rung: 'object' })).toBe(contact);
    expect(bars({ rung: 'opponent', drill: 'stance-rows' })).toBeNull();
    expect(bars({ rung: 'opponent', drill: 'pad-and-belt' })).toBe(contact);
    expect(asked('give-ground')).toContain('sprint');
    expect(asked('give-ground', { speedFraction: 0.5 })).not.toContain('sprint');
    expect(asked('give-ground', { rung: 'walk' })).not.toContain('sprint');
    expect(asked('give-ground', { drill: 'tape-start' })).toEqual([]);
    const [caution] = cautionsOf(movementOf('close-and-shorten'), {
      ...sequenceStart(),
      drill: 'pad-and-belt',
    });
    expect(caution).toMatch(/^Chest to the pad/);
  });

  it('leave half of the reps to reduced volume, on its days', () => {
    const reduced = [{ ...held, kind: 'reduced' as const }];
    expect(barredBy(asked('gaps'), reduced, '2031-03-05')).toBeNull();
    expect([repsFor(5, reduced, '2031-03-05'), repsFor(5, reduced, '2031-04-05')]).toEqual([3, 5]);
    const fresh = freshDrillSet('s', { kind: 'warm-up', name: 'Squats' }, ['a', 'b']);
    const set: DrillSet = {
      ...fresh,
      ...{ sets: 2, reps: 5, restS: 0, setRestS: 0 },
      vary: { ...fresh.vary, sides: ['own', 'other'] },
    };
    const people = [
      { id: 'a', restrictions: [] },
      { id: 'b', restrictions: reduced },
    ];
    const planned = (date: string): number => sessionReps({ date, drillSets: [set] }, people);
    expect([planned('2031-03-05'), planned('2031-04-05')]).toEqual([32, 40]);
    expect(holding([held], '2031-02-28')).toEqual([]);
    // The minutes know it too: the last two rounds of each side are done by one.
    const planS = (on: string, lanes = 1): number =>
      drillSetTime(set, null, undefined, { people, on, lanes })!.totalS;
    const [both, alone] = [2 * (3 + 4 + 6), 3 + 4 + 6];
    expect(planS('2031-04-05')).toBe(2 * 2 * 5 * both);
    expect(planS('2031-03-05')).toBe(2 * 2 * (3 * both + 2 * alone));
    expect(planS('2031-03-05', 2)).toBe(2 * 2 * 5 * alone);
    // Or the coach's own share, and until it is lifted.
    const quarter = [{ ...held, kind: 'reduced' as const, until: null, share: 0.25 }];
    expect([repsFor(8, quarter, '2041-01-01'), repsFor(3, quarter, '2041-01-01')]).toEqual([2, 1]);
    expect(repsFor(8, [...reduced, ...quarter], '2031-03-05')).toBe(2);
    expect(whyBarred('Ida Roe', { ...held, until: null })).toMatch(/; until cleared\.$/);
  });

  it('bar everything after pain, and whoever has left a session from the rest of it', () => {
    const pain = { kind: 'pain' as const, from: '2031-03-01', until: null };
    for (const code of ['gaps', 'straight-run-up', 'steady-cadence'])
      expect(barredBy(asked(code), [pain], '2031-07-01')).toBe(pain);
    expect(barredBy([], [pain], '2031-02-01')).toBeNull();
    const row = (id: string, athleteId: string, outcome: Outcome, voids: string | null = null) => ({
      ...{ id, athleteId, outcome, voids, drillSetId: 's', set: 1, side: 'own' as const, rep: 1 },
      ...{ variant: '', made: null, watched: true },
      ...{ device: 'd', deviceNo: Number(id), arrival: Number(id) },
    });
    const left = leftBy([
      row('1', 'a', 'out'),
      row('2', 'b', 'pain'),
      row('3', 'c', 'clean'),
      row('4', 'a', 'void', '1'),
    ]);
    expect([...left.keys()]).toEqual(['b']);
    expect(whyLeft('Bo', left.get('b')!)).toContain('until cleared');
    expect(whyLeft('Bo', { outcome: 'out' })).toBe('Bo is out for today.');
  });
});
