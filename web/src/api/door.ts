import type { Door, Me } from '@gravek/contract/club';
import { QueryClient, useQuery } from '@tanstack/react-query';
import { forgetDrafts } from '../controls/draft';
import { tell } from '../controls/toasts';
import { api, ApiProblem, showsClub, Unreachable, whenSignedOut } from './client';

const transient = (count: number, error: unknown): boolean =>
  error instanceof Unreachable && count < 2;

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: { staleTime: 15_000, retry: transient, retryDelay: 700, networkMode: 'always' },
    // Every write carries the id of its row, so doing it twice is doing it once.
    mutations: { retry: transient, retryDelay: 700, networkMode: 'always' },
  },
});

const ME_KEY = 'gravek.me';

/** Whether somebody was signed in on this device when it was used last. */
export const wasSignedIn = (): boolean => localStorage.getItem(ME_KEY) !== null;

const askDoor = () => api.get<Door>('/door');

/** Who is signed in; without network, who was. */
const whoAmI = async (): Promise<Me | null> => {
  try {
    if (!wasSignedIn()) {
      const door = await askDoor();
      queryClient.setQueryData(['door'], door);
      if (!door.signedIn) return null;
    }
    const me = await api.get<Me>('/me');
    await forgetOthers(me);
    localStorage.setItem(ME_KEY, JSON.stringify(me));
    showsClub(me.club.id);
    return me;
  } catch (error) {
    if (error instanceof ApiProblem && error.status === 401) {
      localStorage.removeItem(ME_KEY);
      showsClub(null);
      return null;
    }
    if (error instanceof ApiProblem && error.status === 403) {
      // The membership has ended, so what this device kept of the club goes too.
      await api.post('/sign-out').catch(() => undefined);
      await forgetClub();
      forgetDrafts();
      tell(error.message);
      return null;
    }
    const kept = localStorage.getItem(ME_KEY);
    if (kept && error instanceof Unreachable) {
      // What an older version kept does not name the clubs.
      const me = { clubs: [], ...(JSON.parse(kept) as Partial<Me>) } as Me;
      showsClub(me.club.id);
      return me;
    }
    throw error;
  }
};

const ME = { queryKey: ['me'], queryFn: whoAmI, retry: false };

/** Who was signed in last, so that nobody finds what somebody else's pages kept. */
const LAST_KEY = 'gravek.last';

const forgetOthers = async ({ accountId, club }: Me): Promise<void> => {
  const now = `${accountId}.${club.id}`;
  const last = localStorage.getItem(LAST_KEY);
  if (last !== null && last !== now) {
    const { forgetSessions } = await import('../phone/store');
    await forgetSessions();
  }
  localStorage.setItem(LAST_KEY, now);
};

const whoIn = (text: string | null): string | null => {
  const me = text === null ? null : (JSON.parse(text) as Me);
  return me && `${me.accountId}.${me.club.id}`;
};

/** Shows nobody's names any more once the sign-in has ended; what was typed and logged stays here. */
export const hideWhenSignedOut = (): void =>
  whenSignedOut(() => {
    showsClub(null);
    localStorage.removeItem(ME_KEY);
    queryClient.setQueryData(ME.queryKey, null);
    void queryClient.invalidateQueries({ queryKey: ['door'] });
  });

/** Whether somebody has used this device before. */
export const wasHereBefore = (): boolean => localStorage.getItem(LAST_KEY) !== null;

/** Goes along when somebody signs in or out in another tab, or opens another club there. */
export const followOtherTabs = (): void => {
  window.addEventListener('storage', ({ key, oldValue, newValue }) => {
    if (key === ME_KEY && whoIn(oldValue) !== whoIn(newValue)) window.location.reload();
  });
};

/** Forgets what this device keeps of the club that is open; reps that are not sent yet stay. */
export const forgetClub = async (): Promise<void> => {
  // The phone's database is large and nobody at the door needs it.
  const { forgetSessions } = await import('../phone/store');
  await forgetSessions();
  localStorage.removeItem(ME_KEY);
  showsClub(null);
};

export const useMe = () => useQuery(ME);
/** Asks who is signed in before anything is drawn. */
export const askMe = (): void => void queryClient.prefetchQuery(ME);
export const useDoor = () => useQuery({ queryKey: ['door'], queryFn: askDoor });
