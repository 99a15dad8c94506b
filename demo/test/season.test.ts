import { cueState, type FaultState } from '@gravek/core/cue/cueState';
import { CLUB_LISTS, clubFileHead, type ClubList } from '@gravek/contract/clubFile';
import { check } from '@gravek/contract/problem';
import type { Rep } from '@gravek/contract/session';
import { expect, it } from 'vitest';
import { makeSeason } from '../src/season';

const today = new Date('2031-05-14T12:00:00Z');
const season = makeSeason(today, 'a password for tests');
const ran = season.reps.filter(
  (rep) =>
    rep.device === season.reps[0]!.device &&
    rep.outcome !== 'skip' &&
    rep.movement === 'straight-run-up',
);

const trendsOf = (athleteId: string) => {
  const own = ran.filter((rep) => rep.athleteId === athleteId);
  const dates = new Map(season.sessions.map((session) => [session.id, session.date]));
  const sessionIds = [...new Set(own.map((rep) => rep.sessionId))];
  const codes = new Set(own.flatMap((rep) => rep.faults));
  return [...codes].map((code) => {
    const history = sessionIds.map((id) => {
      const reps = own.filter((rep) => rep.sessionId === id);
      return {
        date: dates.get(id)!,
        reps: reps.length,
        faults: reps.filter((rep) => rep.faults.includes(code)).length,
        cued: reps.some((rep) => rep.cue === code),
      };
    });
    return { code, ...cueState({ sessions: history }) };
  });
};

it('is a valid club file, the same for the same day', () => {
  const file = JSON.parse(JSON.stringify(season)) as Record<string, unknown[]>;
  expect(check(clubFileHead, file)).toMatchObject({ ok: true });
  for (const list of Object.keys(CLUB_LISTS) as ClubList[]) {
    for (const item of file[list] ?? []) {
      expect(check(CLUB_LISTS[list].item, item)).toEqual({ ok: true, value: item });
    }
  }
  expect(makeSeason(today, 'a password for tests')).toEqual(season);
});

it('is of the promised size, with left-handers, restrictions and a newcomer', () => {
  expect(season.athletes.length).toBeGreaterThanOrEqual(24);
  expect(season.reps.length).toBeGreaterThan(3000);
  const days = season.sessions.map((session) => session.date).sort();
  expect(days[0]).toBe('2031-03-05');
  expect(season.sessions.some((session) => session.date === '2031-05-14')).toBe(true);
  expect(season.athletes.filter((athlete) => athlete.hand === 'left').length).toBeGreaterThan(3);
  expect(season.restrictions.length).toBeGreaterThan(0);
  const few = season.athletes.filter(
    (athlete) => ran.filter((rep) => rep.athleteId === athlete.id).length < 10,
  );
  expect(few.length).toBeGreaterThanOrEqual(1);
});

it('has every course of a fault to find', () => {
  const states = new Map<FaultState, number>();
  for (const { id } of season.athletes) {
    for (const { state } of trendsOf(id)) states.set(state, (states.get(state) ?? 0) + 1);
  }
  for (const state of ['new', 'clearing', 'cleared', 'stuck', 'back', 'steady'] as const) {
    expect(states.get(state) ?? 0, state).toBeGreaterThan(0);
  }
});

it('has faults that bring others about', () => {
  const withReach = ran.filter((rep) => rep.faults.includes('reaches'));
  const without = ran.filter((rep) => !rep.faults.includes('reaches'));
  const slows = (reps: Rep[]) =>
    reps.filter((rep) => rep.faults.includes('slows-in')).length / reps.length;
  expect(slows(withReach)).toBeGreaterThan(2 * slows(without));
});
