import { addDays, format, parseISO, startOfWeek } from 'date-fns';

/** The seven days of the week of a day, Monday first, yyyy-mm-dd. */
export const weekOf = (day: string): string[] => {
  const monday = startOfWeek(parseISO(day), { weekStartsOn: 1 });
  return Array.from({ length: 7 }, (_, i) => format(addDays(monday, i), 'yyyy-MM-dd'));
};

export const shift = (day: string, by: number): string =>
  format(addDays(parseISO(day), by), 'yyyy-MM-dd');

export const dayName = (day: string, pattern = 'EEE d MMM'): string =>
  format(parseISO(day), pattern);

export const minutes = (seconds: number): string => `${Math.max(1, Math.round(seconds / 60))} min`;
