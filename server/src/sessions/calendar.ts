import { dayIn, dayNumber, momentIn } from '@gravek/core/days';
import { type Body, bodyOf } from '@gravek/core/layout/body';
import type { DrillSet } from '@gravek/contract/drillSet';
import type { Session } from '@gravek/contract/session';
import { slotFor, takenFrom } from '@gravek/library/planning/onGround';
import { targetWords, variesWords } from '@gravek/library/session/setWords';
import { sessionTimeS } from '@gravek/library/session/timeAxis';
import { baseOf } from '@gravek/library/session/work';
import type { RequestHandler } from 'express';
import ical, { ICalCalendarMethod } from 'ical-generator';
import { sql } from 'kysely';
import { findsOf } from '../approaches/finds';
import { athletes } from '../athletes/queries';
import { type Db, inClubReading, type Trx } from '../database/connect';
import { grounds } from '../grounds/queries';
import { hashOf } from '../http/token';
import { sessions } from './queries';

/**
 * Sessions as an iCalendar text. It says when, where and what, and names nobody: whoever has the address
 * of a feed can read it.
 *
 * @param list sessions that are not put away
 */
export const calendarOf = async (
  trx: Trx,
  clubId: string,
  list: readonly Session[],
): Promise<string> => {
  const club = await trx
    .selectFrom('club')
    .select(['name', 'time_zone'])
    .where('id', '=', clubId)
    .executeTakeFirstOrThrow();
  const drillSets = list.flatMap((session) => session.drillSets);
  const finds = await findsOf(trx, drillSets);
  const places = new Map((await grounds(trx)).map((ground) => [ground.id, ground]));
  const ids = [...new Set(drillSets.flatMap((set) => set.athleteIds))];
  const people = await athletes(trx, { ids });
  const bodies = new Map(people.map((person) => [person.id, bodyOf(person)]));
  const pacerOf = (set: DrillSet): Body | undefined =>
    set.athleteIds.map((id) => bodies.get(id)).find((body) => body !== undefined);
  const calendar = ical({
    name: `${club.name}: sessions`,
    method: ICalCalendarMethod.PUBLISH,
    prodId: { company: 'Gravek', product: 'Sessions' },
    ttl: 3600,
  });
  for (const session of list) {
    const ground = session.groundId === null ? undefined : places.get(session.groundId);
    const here = ground ? takenFrom(ground) : null;
    const baseOfSet = (set: DrillSet) => baseOf(set.work, finds, here);
    const takesS = sessionTimeS(session, baseOfSet, pacerOf, {
      lanes: ground?.lanes,
      people,
      on: session.date,
    });
    const slot = ground && slotFor(ground, session.date, takesS);
    const when = slot
      ? {
          start: momentIn(club.time_zone, session.date, slot.from),
          end: momentIn(club.time_zone, session.date, slot.to),
        }
      : { start: new Date(`${session.date}T00:00:00Z`), allDay: true };
    const lines = session.drillSets.map((set) => {
      const base = baseOfSet(set);
      const how = [base ? variesWords(base, set) : '', targetWords(set)].filter(Boolean).join(', ');
      return `${base?.name ?? 'Drill set'}: ${how}`;
    });
    calendar.createEvent({
      id: `${session.id}@gravek`,
      sequence: session.version,
      ...when,
      summary: session.title,
      location: ground?.name ?? session.place,
      description: lines.join('\n'),
    });
  }
  return calendar.toString();
};

/** A feed tells of what was lately and of what is planned, days. */
const SINCE_DAYS = 30;
const AHEAD_DAYS = 365;

const dayOf = (number: number): string => new Date(number * 86_400_000).toISOString().slice(0, 10);

/**
 * GET /calendar/TOKEN.ics: the sessions of the club whose address it is, for a calendar that follows
 * them. The address itself is the key; one that was taken back, or whose owner has left, is not there.
 */
export const calendarFeed =
  (db: Db): RequestHandler =>
  async (req, res) => {
    const { token = '' } = req.params as { token?: string };
    const { rows } = await sql<{ club: string; account: string }>`
      select club, account from gravek_calendar(${hashOf(token)})`.execute(db);
    const [address] = rows;
    if (!address) {
      res.status(404).type('text/plain').send('There is no calendar at this address any more.');
      return;
    }
    const text = await inClubReading(
      db,
      { clubId: address.club, accountId: address.account },
      async (trx, { timeZone }) => {
        const today = dayNumber('today', dayIn(timeZone, new Date()));
        const list = await sessions(trx, {
          from: dayOf(today - SINCE_DAYS),
          to: dayOf(today + AHEAD_DAYS),
        });
        return calendarOf(
          trx,
          address.club,
          list.filter((session) => !session.archived),
        );
      },
    );
    res.set('cache-control', 'private, no-cache').type('text/calendar').send(text);
  };
