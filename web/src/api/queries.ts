import type {
  Approach,
  Athlete,
  ClubMovement,
  ClubRuleSet,
  Door,
  FaultCount,
  Me,
  Member,
  RunBundle,
  Session,
} from '@gravek/contract';
import { QueryClient, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { keepBundle, keptBundle } from '../run/store';
import { api, ApiProblem, Unreachable } from './client';

const transient = (count: number, error: unknown): boolean =>
  error instanceof Unreachable && count < 2;

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: { staleTime: 15_000, retry: transient, retryDelay: 700, networkMode: 'always' },
    // Every write carries the id of its row, so doing it twice is doing it once.
    mutations: { retry: transient, retryDelay: 700, networkMode: 'always' },
  },
});

type Page<T> = { items: T[]; next: string | null };

/** All pages of a list. */
const all = async <T>(path: string): Promise<T[]> => {
  const items: T[] = [];
  let next: string | null = null;
  do {
    const page: Page<T> = await api.get(next ? `${path}?after=${encodeURIComponent(next)}` : path);
    items.push(...page.items);
    next = page.next;
  } while (next);
  return items;
};

const ME_KEY = 'gravek.me';

/** Who is signed in; without network, who was. */
const whoAmI = async (): Promise<Me | null> => {
  try {
    const me = await api.get<Me>('/me');
    localStorage.setItem(ME_KEY, JSON.stringify(me));
    return me;
  } catch (error) {
    if (error instanceof ApiProblem && error.status === 401) {
      localStorage.removeItem(ME_KEY);
      return null;
    }
    const kept = localStorage.getItem(ME_KEY);
    if (kept && error instanceof Unreachable) return JSON.parse(kept) as Me;
    throw error;
  }
};

export const useMe = () => useQuery({ queryKey: ['me'], queryFn: whoAmI, retry: false });
export const useDoor = () =>
  useQuery({ queryKey: ['door'], queryFn: () => api.get<Door>('/door') });

export const useAthletes = () =>
  useQuery({ queryKey: ['athletes'], queryFn: () => all<Athlete>('/athletes') });

export const useAthlete = (id: string) =>
  useQuery({ queryKey: ['athletes', id], queryFn: () => api.get<Athlete>(`/athletes/${id}`) });

/** The club's own movements, those put away included. */
export const useClubMovements = () =>
  useQuery({ queryKey: ['movements', 'own'], queryFn: () => all<ClubMovement>('/movements') });

export const useClubRuleSets = () =>
  useQuery({ queryKey: ['movements', 'rules'], queryFn: () => all<ClubRuleSet>('/rule-sets') });

export const useApproaches = () =>
  useQuery({ queryKey: ['approaches'], queryFn: () => all<Approach>('/approaches') });

export const useSessions = (from: string, to: string) =>
  useQuery({
    queryKey: ['sessions', from, to],
    queryFn: async () => (await api.get<Page<Session>>(`/sessions?from=${from}&to=${to}`)).items,
  });

export const useSession = (id: string | undefined) =>
  useQuery({
    queryKey: ['sessions', id],
    enabled: id !== undefined,
    queryFn: () => api.get<Session>(`/sessions/${id}`),
  });

export const useFaultCounts = (athleteId?: string) =>
  useQuery({
    queryKey: ['reps', 'counts', athleteId ?? 'all'],
    queryFn: () => all<FaultCount>(athleteId ? `/athletes/${athleteId}/faults` : '/faults'),
  });

export const useMembers = () =>
  useQuery({ queryKey: ['club', 'members'], queryFn: () => api.get<Member[]>('/members') });

/** A session for the field screen; without network, as it was when last seen. */
export const useBundle = (sessionId: string) =>
  useQuery({
    queryKey: ['reps', 'run', sessionId],
    retry: false,
    queryFn: async (): Promise<RunBundle> => {
      try {
        const bundle = await api.get<RunBundle>(`/sessions/${sessionId}/run`);
        await keepBundle(bundle);
        return bundle;
      } catch (error) {
        const kept = error instanceof Unreachable ? await keptBundle(sessionId) : undefined;
        if (kept) return kept;
        throw error;
      }
    },
  });

/** A write, after which the named lists are asked for anew. */
export const useWrite = <Input, Output>(
  write: (input: Input) => Promise<Output>,
  ...touched: string[]
) => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: write,
    onSuccess: () =>
      Promise.all(touched.map((key) => client.invalidateQueries({ queryKey: [key] }))),
  });
};
