import type { DrillSet } from '@gravek/contract/drillSet';
import { freshDrillSet } from '@gravek/library/session/sessionFit';
import { drillSetTime } from '@gravek/library/session/sessionTime';
import { describe, expect, it } from 'vitest';
import { choiceMessages } from '../src/approaches/plan/choiceCheck';
import { around } from '../src/approaches/plan/draft';
import { weekOf } from '../src/controls/dates';
import { withRoom } from '../src/drawing/room';

describe('planning', () => {
  it('finds the field of a choice that cannot be', () => {
    const base = {
      target: 'board',
      takeoffFoot: 'own',
      startFoot: null,
      steps: 12,
      distanceM: null,
      ending: { kind: 'even' },
      absorb: 'even',
      tolerance: 0.1,
      speedFraction: 1,
      checkMarks: [],
      pins: [] as { step: number; lengthM: number }[],
    } as const;
    expect(choiceMessages({ ...base, checkMarks: [] })).toEqual({});
    expect(choiceMessages({ ...base, checkMarks: [], pins: [], steps: 400 })).toHaveProperty(
      'steps',
    );
    expect(
      choiceMessages({ ...base, checkMarks: [], pins: [], absorb: { stepsOut: 12 } }),
    ).toHaveProperty(['absorb.stepsOut']);
    expect(around(1)).toEqual({ from: 1, to: 5 });
  });

  it('says how long a drill set takes, and nothing of one that cannot be run', () => {
    const fresh = freshDrillSet('', { kind: 'warm-up', name: 'Squats' }, ['a', 'b', 'c']);
    const set: DrillSet = {
      ...fresh,
      ...{ sets: 2, reps: 4, restS: 10, setRestS: 60 },
      vary: { ...fresh.vary, sides: ['own', 'other'] },
    };
    expect(drillSetTime(set, null, undefined)).toMatchObject({
      cycleS: 39,
      totalS: 2 * 8 * 39 + 60,
    });
    expect(drillSetTime({ ...set, athleteIds: [] }, null, undefined)).toBeNull();
    expect(drillSetTime({ ...set, restS: -5 }, null, undefined)).toBeNull();
  });

  it('starts weeks on Monday, across months', () => {
    expect(weekOf('2031-03-01')).toEqual([
      '2031-02-24',
      '2031-02-25',
      '2031-02-26',
      '2031-02-27',
      '2031-02-28',
      '2031-03-01',
      '2031-03-02',
    ]);
  });

  it('keeps the last label and no two that touch', () => {
    const shown = [...withRoom([0, 10, 30, 38, 70], (x) => x, 20)].sort((a, b) => a - b);
    expect(shown).toEqual([10, 38, 70]);
  });
});
