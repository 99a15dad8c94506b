import type { ComponentType } from 'react';
import { queryClient } from '../api/door';
import { FIRST } from '../api/queries';
import { loadEarly } from '../controls/later';

/** A place of the application: its address, with a colon before what varies, and what is shown there. */
export type Place = {
  path: string;
  load: () => Promise<ComponentType>;
  /** asks the server for what it shows, given what varies in the address */
  ask?: (varies: string) => void;
};

const { today, athletes, grounds, approaches, session } = FIRST;
const askToday = (): void => void queryClient.prefetchQuery(today);
const askSession = (id: string): void => {
  if (id !== 'new') void queryClient.prefetchQuery(session(id));
  void queryClient.prefetchQuery(approaches);
  void queryClient.prefetchQuery(athletes);
  void queryClient.prefetchQuery(grounds);
};

/** The field screen and the clock of groups have the whole screen for themselves. */
export const FIELD: readonly Place[] = [
  { path: 'run/:sessionId', load: async () => (await import('../run/Run')).Run },
  { path: 'run/:sessionId/clock', load: async () => (await import('../run/Clock')).Clock },
];

/** Places with the navigation beside them. */
export const PLACES: readonly Place[] = [
  { path: '', load: async () => (await import('../today/Today')).Today, ask: askToday },
  { path: 'athletes', load: async () => (await import('../athletes/Athletes')).Athletes },
  { path: 'athletes/:id', load: async () => (await import('../athletes/AthletePage')).AthletePage },
  { path: 'movements', load: async () => (await import('../movements/Movements')).Movements },
  { path: 'movements/chains', load: async () => (await import('../movements/Chains')).Chains },
  {
    path: 'movements/:code',
    load: async () => (await import('../movements/MovementPage')).MovementPage,
  },
  {
    path: 'movements/:code/edit',
    load: async () => (await import('../movements/MovementEditor')).MovementEditor,
  },
  {
    path: 'approaches',
    load: async () => (await import('../approaches/list/Approaches')).Approaches,
  },
  {
    path: 'approaches/:id',
    load: async () => (await import('../approaches/plan/Planner')).Planner,
  },
  {
    path: 'approaches/:id/squad',
    load: async () => (await import('../approaches/setOut/SquadSheet')).SquadSheet,
  },
  { path: 'sessions', load: async () => (await import('../sessions/Sessions')).Sessions },
  {
    path: 'sessions/:id',
    load: async () => (await import('../sessions/SessionPage')).SessionPage,
    ask: askSession,
  },
  {
    path: 'sessions/:id/card',
    load: async () => (await import('../sessions/SessionCard')).SessionCard,
  },
  { path: 'run', load: async () => (await import('../run/RunChoice')).RunChoice },
  {
    path: 'athletes/:id/sheet',
    load: async () => (await import('../reports/AthleteSheet')).AthleteSheet,
  },
  { path: 'faults', load: async () => (await import('../faults/Faults')).Faults },
  {
    path: 'faults/season',
    load: async () => (await import('../reports/SeasonSummary')).SeasonSummary,
  },
  { path: 'film', load: async () => (await import('../film/Films')).Films },
  { path: 'film/:id', load: async () => (await import('../film/FilmDesk')).FilmDesk },
  { path: 'club/log', load: async () => (await import('../club/Deeds')).Deeds },
  { path: 'club', load: async () => (await import('../club/Club')).Club },
];

/** What stands in an address where a place's path varies; undefined when the address is of another place. */
const variesIn = (path: string, pathname: string): string | undefined => {
  const found = new RegExp(`^/${path.replace(/:\w+/g, '([^/]+)')}/?$`).exec(pathname);
  return found ? (found[1] ?? '') : undefined;
};

/** Loads what an address shows, and asks for what is shown of it, before anything knows that it may be shown. */
export const loadAhead = async (pathname: string): Promise<void> => {
  for (const { path, load, ask } of [...PLACES, ...FIELD]) {
    const varies = variesIn(path, pathname);
    if (varies === undefined) continue;
    ask?.(varies);
    await loadEarly(load);
    return;
  }
};
