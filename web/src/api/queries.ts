import type { Invitation } from '@gravek/contract/account';
import type { Athlete } from '@gravek/contract/athlete';
import type { Member } from '@gravek/contract/club';
import type {
  AthleteFaults,
  CauseCheck,
  CueLine,
  Ledger,
  ProgressStand,
  SquadFaults,
  WayCheck,
} from '@gravek/contract/faults';
import type { Ground } from '@gravek/contract/ground';
import type { Movement } from '@gravek/contract/movement';
import type { ClubMovement } from '@gravek/contract/movementSchema';
import type { Approach, ApproachSummary, AthletePlan } from '@gravek/contract/plan';
import type { ClubRuleSet } from '@gravek/contract/ruleSet';
import type { Needs } from '@gravek/contract/run';
import type { MeasuredReps, Session } from '@gravek/contract/session';
import type { Today } from '@gravek/contract/today';
import type { Review, ReviewLine } from '@gravek/contract/watched';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { forgetDeleted } from '../controls/draft';
import { api, ApiProblem, shownClub } from './client';

type Page<T> = { items: T[]; next: string | null };

/** All pages of a list. */
const all = async <T>(path: string, query = ''): Promise<T[]> => {
  const items: T[] = [];
  let next: string | null = null;
  do {
    const parameters: string[] = [query, next ? `after=${encodeURIComponent(next)}` : ''].filter(
      Boolean,
    );
    const page: Page<T> = await api.get(
      parameters.length > 0 ? `${path}?${parameters.join('&')}` : path,
    );
    items.push(...page.items);
    next = page.next;
  } while (next);
  return items;
};

/** What a place asks for first, such that it can be asked for before the place is loaded. */
export const FIRST = {
  today: { queryKey: ['today'], queryFn: () => api.get<Today>('/today') },
  athletes: {
    queryKey: ['athletes'],
    queryFn: async () => {
      const list = await all<Athlete>('/athletes');
      const club = shownClub();
      if (club !== null) forgetDeleted(club, new Set(list.map(({ id }) => id)));
      return list;
    },
  },
  grounds: { queryKey: ['grounds'], queryFn: () => all<Ground>('/grounds') },
  approaches: { queryKey: ['approaches'], queryFn: () => all<ApproachSummary>('/approaches') },
  session: (id: string) => ({
    queryKey: ['sessions', id],
    queryFn: () => api.get<Session>(`/sessions/${id}`),
  }),
};

export const useAthletes = () => useQuery(FIRST.athletes);

export const useAthlete = (id: string) =>
  useQuery({ queryKey: ['athletes', id], queryFn: () => api.get<Athlete>(`/athletes/${id}`) });

/** The club's own movements, those put away included. */
export const useClubMovements = () =>
  useQuery({ queryKey: ['movements', 'own'], queryFn: () => all<ClubMovement>('/movements') });

export const useClubRuleSets = () =>
  useQuery({ queryKey: ['movements', 'rules'], queryFn: () => all<ClubRuleSet>('/rule-sets') });

/** Where the club trains, those put away included. */
export const useGrounds = () => useQuery(FIRST.grounds);

/** Every approach in a line, newest first. */
export const useApproaches = () => useQuery(FIRST.approaches);

/** One approach with what it was solved to; null when it is not there any more. */
export const useApproach = (id: string | undefined) =>
  useQuery({
    queryKey: ['approaches', id],
    enabled: id !== undefined,
    queryFn: async (): Promise<Approach | null> => {
      try {
        return await api.get<Approach>(`/approaches/${id}`);
      } catch (error) {
        if (error instanceof ApiProblem && error.status === 404) return null;
        throw error;
      }
    },
  });

/** What an athlete is planned to run. */
export const useAthletePlans = (id: string) =>
  useQuery({
    queryKey: ['approaches', 'of', id],
    queryFn: () => all<AthletePlan>(`/athletes/${id}/approaches`),
  });

export const useSessions = (from: string, to: string) =>
  useQuery({
    queryKey: ['sessions', from, to],
    queryFn: () => all<Session>('/sessions', `from=${from}&to=${to}`),
  });

/** Sessions that are kept to begin others from. */
export const useTemplates = () =>
  useQuery({
    queryKey: ['sessions', 'templates'],
    queryFn: () => all<Session>('/sessions/templates'),
  });

export const useSession = (id: string | undefined) =>
  useQuery({ ...FIRST.session(id ?? ''), enabled: id !== undefined });

/** The squad in one movement, the one that is run most when none is named. */
export const useSquadFaults = (movement: string | null) =>
  useQuery({
    queryKey: ['faults', 'squad', movement],
    queryFn: () =>
      api.get<SquadFaults>(
        movement === null ? '/faults' : `/faults?movement=${encodeURIComponent(movement)}`,
      ),
    placeholderData: keepPreviousData,
  });

/** The one cue of each athlete for a day. */
export const useCues = (on: string) =>
  useQuery({
    queryKey: ['faults', 'cues', on],
    queryFn: () => all<CueLine>('/cues', `on=${on}`),
  });

/** How one athlete stands in every movement. */
export const useAthleteFaults = (athleteId: string) =>
  useQuery({
    queryKey: ['faults', 'of', athleteId],
    queryFn: () => all<AthleteFaults>(`/athletes/${athleteId}/faults`),
  });

/**
 * All that is known of the faults of an athlete in a movement.
 *
 * @param filters conditions by axis, as the address has them
 */
export const useLedger = (
  athleteId: string,
  movement: string,
  filters: Readonly<Record<string, string>>,
) =>
  useQuery({
    queryKey: ['faults', 'ledger', athleteId, movement, filters],
    queryFn: () =>
      api.get<Ledger>(
        `/athletes/${athleteId}/ledger/${encodeURIComponent(movement)}?${new URLSearchParams(filters).toString()}`,
      ),
    placeholderData: keepPreviousData,
  });

/** What the club's athletes have to work on, as it is known on a day. */
export const useNeeds = (day: string) =>
  useQuery({
    queryKey: ['faults', 'needs', day],
    queryFn: () => api.get<Needs>(`/sessions/needs?day=${day}`),
  });

/** What a coach needs to know today; asked anew whenever it is opened, but for what was just asked ahead. */
export const useToday = () => useQuery({ ...FIRST.today, staleTime: 3_000 });

/** A movement's chain of causes, held against the club's reps. */
export const useCauses = (movement: string) =>
  useQuery({
    queryKey: ['faults', 'causes', movement],
    queryFn: () => api.get<CauseCheck>(`/causes/${encodeURIComponent(movement)}`),
  });

/** The ways in which a movement is taught, held against the club's reps. */
export const useWays = ({ code: movement, schools }: Pick<Movement, 'code' | 'schools'>) =>
  useQuery({
    enabled: schools.length > 0,
    queryKey: ['faults', 'ways', movement],
    queryFn: () => api.get<WayCheck>(`/ways/${encodeURIComponent(movement)}`),
  });

/** Where the club's athletes stand in the drills of a movement's progression. */
export const useProgress = ({
  code: movement,
  progression = [],
}: Pick<Movement, 'code' | 'progression'>) =>
  useQuery({
    enabled: progression.length > 0,
    queryKey: ['faults', 'progress', movement],
    queryFn: () => all<ProgressStand>(`/progress/${encodeURIComponent(movement)}`),
  });

/** Films that were held against plans, newest first. */
export const useFilms = () =>
  useQuery({ queryKey: ['films'], queryFn: () => all<ReviewLine>('/reviews') });

export const useFilm = (id: string) =>
  useQuery({ queryKey: ['films', id], queryFn: () => api.get<Review>(`/reviews/${id}`) });

/** What was measured of an athlete's reps. */
export const useMeasured = (athleteId: string) =>
  useQuery({
    queryKey: ['log', 'measured', athleteId],
    queryFn: () => api.get<MeasuredReps>(`/athletes/${athleteId}/measured`),
  });

export const useMembers = () =>
  useQuery({ queryKey: ['club', 'members'], queryFn: () => api.get<Member[]>('/members') });

/** Who is invited; asked by owners only. */
export const useInvitations = (enabled: boolean) =>
  useQuery({
    queryKey: ['club', 'invitations'],
    enabled,
    queryFn: () => api.get<Invitation[]>('/invitations'),
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
