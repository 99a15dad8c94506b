import { addDays, format, isThisYear, parseISO, startOfWeek } from 'date-fns';

/** The seven days of the week of a day, Monday first, yyyy-mm-dd. */
export const weekOf = (day: string): string[] => {
  const monday = startOfWeek(parseISO(day), { weekStartsOn: 1 });
  return Array.from({ length: 7 }, (_, i) => format(addDays(monday, i), 'yyyy-MM-dd'));
};

export const shift = (day: string, by: number): string =>
  format(addDays(parseISO(day), by), 'yyyy-MM-dd');

/** A day (yyyy-mm-dd) as every place writes it: the year only where it is not this one. */
export const dayName = (day: string): string =>
  format(parseISO(day), isThisYear(parseISO(day)) ? 'EEE d MMM' : 'EEE d MMM yyyy');

export const minutes = (seconds: number): string => `${Math.max(1, Math.round(seconds / 60))} min`;
