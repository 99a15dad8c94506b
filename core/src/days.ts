const DAY_MS = 86_400_000;

/**
 * Number of the day since 1970-01-01.
 *
 * @throws {RangeError} when the text is not a day that exists, yyyy-mm-dd
 */
export const dayNumber = (field: string, date: string): number => {
  const ms = /^\d{4}-\d\d-\d\d$/.test(date) ? Date.parse(`${date}T00:00:00Z`) : NaN;
  if (Number.isNaN(ms) || new Date(ms).toISOString().slice(0, 10) !== date) {
    throw new RangeError(`${field} must be a date such as 2031-03-17, got ${date}`);
  }
  return ms / DAY_MS;
};

/** Whether a text is a day that exists, yyyy-mm-dd. */
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
 */
export const dayIn = (timeZone: string, at: Date): string =>
  new Intl.DateTimeFormat('en-CA', { timeZone, dateStyle: 'short' }).format(at);
