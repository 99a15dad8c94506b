import { beforeEach, expect, it } from 'vitest';
import { forgetDeleted } from '../src/controls/draft';

const CLUB = '0190a000-0000-7000-8000-0000000000c1';
const ADA = '0190a000-0000-7000-8000-00000000000a';
const BEN = '0190a000-0000-7000-8000-00000000000b';

const kept = new Map<string, string>();
Object.defineProperty(globalThis, 'localStorage', {
  value: new Proxy(
    {
      setItem: (key: string, text: string) => void kept.set(key, text),
      getItem: (key: string) => kept.get(key) ?? null,
      removeItem: (key: string) => void kept.delete(key),
    },
    {
      ownKeys: () => [...kept.keys()],
      getOwnPropertyDescriptor: () => ({ enumerable: true, configurable: true }),
    },
  ),
});
beforeEach(() => kept.clear());

const draft = (whose: string, name: string, value: unknown): string => {
  const key = `gravek.draft.3.${whose}.${name}`;
  kept.set(key, JSON.stringify(value));
  return key;
};

it('a deleted athlete leaves everybody’s drafts on the device, and those of another club stay', () => {
  const form = draft(`runa.${CLUB}`, `athlete.${BEN}`, { name: 'Ben', heightM: 1.8 });
  const test = draft(`aldo.${CLUB}`, `reading.${BEN}.sprint`, { typed: '1,4' });
  const film = draft(`aldo.${CLUB}`, 'film.x', { athleteId: BEN, note: 'seen' });
  const plan = draft(`aldo.${CLUB}`, 'approach.x', { name: 'Board', athleteIds: [ADA, BEN] });
  const session = draft(`aldo.${CLUB}`, 'session.new', {
    drillSets: [
      { id: 's', athleteIds: [BEN] },
      { id: 't', athleteIds: [ADA] },
    ],
  });
  const mine = draft(`runa.${CLUB}`, `athlete.${ADA}`, { name: 'Ada' });
  const fresh = draft(`runa.${CLUB}`, 'athlete.new', { name: 'Cleo' });
  const elsewhere = draft('aldo.other-club', `athlete.${BEN}`, { name: 'Ben' });
  kept.set('gravek.settings', '{"athleteId":"x"}');
  forgetDeleted(CLUB, new Set([ADA]));
  expect([form, test, film].map((key) => kept.has(key))).toEqual([false, false, false]);
  expect(JSON.parse(kept.get(plan)!)).toEqual({ name: 'Board', athleteIds: [ADA] });
  expect(JSON.parse(kept.get(session)!)).toEqual({
    drillSets: [
      { id: 's', athleteIds: [] },
      { id: 't', athleteIds: [ADA] },
    ],
  });
  expect([mine, fresh, elsewhere].every((key) => kept.has(key))).toBe(true);
  expect(kept.size).toBe(6);
});
