import { tzOffset } from '@date-fns/tz/tzOffset';

const DAY_MS = 86_400_000;

/**
 * Number of the day since 1970-01-01.
 *
 * @throws {RangeError} when the text is not a day that exists, yyyy-mm-dd
 * @example dayNumber('date', '1970-01-03') // 2
 */
export const dayNumber = (field: string, date: string): number => {
  const ms = /^\d{4}-\d\d-\d\d$/.test(date) ? Date.parse(`${date}T00:00:00Z`) : NaN;
  if (Number.isNaN(ms) || new Date(ms).toISOString().slice(0, 10) !== date) {
    throw new RangeError(`${field} must be a date such as 2031-03-17, got ${date}`);
  }
  return ms / DAY_MS;
};

/**
 * Whether a text is a day that exists, yyyy-mm-dd.
 *
 * @example isDay('2031-02-29') // false
 */
export const isDay = (text: string): boolean => {
  try {
    return dayNumber('day', text) >= dayNumber('first', '1900-01-01');
  } catch {
    return false;
  }
};

/**
 * The day of a moment in a time zone, yyyy-mm-dd.
 *
 * @param timeZone as the time zone database names it, such as Europe/Lisbon
 * @throws {RangeError} when there is no such zone
 * @example dayIn('Europe/Lisbon', new Date('2031-07-01T23:30:00Z')) // '2031-07-02'
 */
export const dayIn = (timeZone: string, at: Date): string =>
  new Intl.DateTimeFormat('en-CA', { timeZone, dateStyle: 'short' }).format(at);

/**
 * The hour that a clock in a time zone shows at a moment, 0–23.
 *
 * @example hourIn('Europe/Lisbon', new Date('2031-07-01T17:30:00Z')) // 18
 */
export const hourIn = (timeZone: string, at: Date): number =>
  Number(
    new Intl.DateTimeFormat('en-GB', { timeZone, hour: '2-digit', hourCycle: 'h23' }).format(at),
  );

/**
 * The moment at which a clock in a time zone shows a time on a day. A time that a clock leaves out when
 * it is put forward is taken as if it had not been; of one that it shows twice the first is meant.
 *
 * @param time hh:mm
 * @throws {RangeError} when there is no such zone
 * @example momentIn('Europe/Lisbon', '2031-07-01', '18:00') // 17:00 UTC
 */
export const momentIn = (timeZone: string, day: string, time: string): Date => {
  const shown = Date.parse(`${day}T${time}:00Z`);
  const aheadMs = (atMs: number): number => {
    const minutes = tzOffset(timeZone, new Date(atMs));
    if (Number.isNaN(minutes)) throw new RangeError(`timeZone must be a zone, got ${timeZone}`);
    return minutes * 60_000;
  };
  const offsets = [-1, 1].map((days) => aheadMs(shown + days * DAY_MS));
  const fits = offsets.find((ahead) => aheadMs(shown - ahead) === ahead);
  return new Date(shown - (fits ?? offsets[0]!));
};
