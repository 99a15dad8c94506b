import { dayNumber } from '@gravek/core/days';
import { bodyOf } from '@gravek/core/layout/body';
import type { Athlete } from '@gravek/contract/athlete';
import type { Ground } from '@gravek/contract/ground';
import type { Session } from '@gravek/contract/session';
import { slotsOn, takenFrom } from '../planning/onGround';
import { type Conditions, sessionReps } from './sessionTime';
import { targetWords, variesWords } from './setWords';
import { sessionTimeS } from './timeAxis';
import { baseOf, type Finds } from './work';

export type Outlook = {
  /** where it is, with the time if the club has one slot there */
  where: string;
  seconds: number;
  sets: { id: string; name: string; line: string; approachId: string | null }[];
};

/**
 * A session in a few lines, as the week and Today show it.
 *
 * @param people those of the club who may be in it
 * @example
 * const session = { drillSets: [], groundId: null, place: 'Old quay hall', date: '2031-05-02' };
 * const finds = { planOf: () => undefined, movementOf: () => undefined };
 * sessionOutlook(session, { finds, grounds: [], people: [] }).where // 'Old quay hall'
 */
export const sessionOutlook = (
  {
    drillSets,
    circuit,
    groundId,
    place,
    date,
  }: Pick<Session, 'drillSets' | 'circuit' | 'groundId' | 'place' | 'date'>,
  {
    finds,
    grounds,
    people,
  }: { finds: Finds; grounds: readonly Ground[]; people: readonly Athlete[] },
): Outlook => {
  const ground = grounds.find((ground) => ground.id === groundId);
  const slots = ground ? slotsOn(ground, date) : [];
  const [slot] = slots.length === 1 ? slots : [];
  const conditions: Conditions = { lanes: ground?.lanes, people, on: date };
  const here = ground ? takenFrom(ground) : null;
  const seconds = sessionTimeS(
    { drillSets, circuit },
    (set) => baseOf(set.work, finds, here),
    ({ athleteIds }) => {
      const pacer = athleteIds
        .map((id) => people.find((athlete) => athlete.id === id))
        .find((athlete) => athlete !== undefined);
      return pacer && bodyOf(pacer);
    },
    conditions,
  );
  return {
    where: [ground?.name ?? place, slot && `${slot.from}–${slot.to}`].filter(Boolean).join(', '),
    seconds,
    sets: drillSets.map((set) => {
      const base = baseOf(set.work, finds, here);
      const varies = base ? variesWords(base, set) : '';
      const target = set.sets > 1 ? `${set.sets} × ${targetWords(set)}` : targetWords(set);
      return {
        id: set.id,
        name: base?.name ?? 'not there any more',
        line: [varies, target].filter(Boolean).join(', '),
        approachId: set.work.kind === 'plan' ? set.work.approachId : null,
      };
    }),
  };
};

/** Until this hour a session that was begun before midnight can still be under way. */
const NIGHT_ENDS = 5;

type Dated = Pick<Session, 'date' | 'title' | 'drillSets' | 'archived' | 'logged'>;

/**
 * Which sessions are on now, and in which order they stand.
 *
 * @param today yyyy-mm-dd in the club
 * @param hour of the club's day, 0 to 23
 */
export const sessionsOnNow = ({
  today,
  hour,
  people,
}: {
  today: string;
  hour: number;
  people: readonly Pick<Athlete, 'id' | 'restrictions'>[];
}) => {
  const isOver = (session: Dated): boolean => session.logged >= sessionReps(session, people);
  /** one of today, or one that was begun yesterday and goes on past midnight */
  const isOnNow = (session: Dated): boolean =>
    !session.archived &&
    (session.date === today ||
      (hour < NIGHT_ENDS &&
        dayNumber('today', today) - dayNumber('date', session.date) === 1 &&
        session.logged > 0 &&
        !isOver(session)));
  const rank = (session: Dated): number => (isOnNow(session) ? 0 : 2) + (isOver(session) ? 1 : 0);
  /** what is on now first, and of those what still has reps to run */
  const inTurn = (a: Dated, b: Dated): number =>
    rank(a) - rank(b) || a.date.localeCompare(b.date) || a.title.localeCompare(b.title);
  return { isOnNow, isOver, inTurn };
};
