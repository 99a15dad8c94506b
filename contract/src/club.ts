import { CUE_SCHOOLS } from '@gravek/core/cue/chooseCue';
import { LOAD_KINDS } from '@gravek/core/session/repLog';
import { LENGTH_UNITS } from '@gravek/core/units';
import { array, boolean, object, string, type InferType } from 'yup';
import { choice, count, id, name, version } from './fields';

export const ROLES = ['owner', 'coach', 'assistant'] as const;
export type Role = (typeof ROLES)[number];

const timeZone = () =>
  string()
    .strict()
    .required('Choose a time zone.')
    .max(60, 'That time zone is not known.')
    .test('known', 'That time zone is not known.', (zone) => {
      try {
        new Intl.DateTimeFormat('en', { timeZone: zone ?? '' });
        return Boolean(zone);
      } catch {
        return false;
      }
    });

const loadLimit = object({
  kind: choice('what is limited', LOAD_KINDS),
  /** holds for whoever is not older, in years */
  upToAge: count('The age', 4, 99),
  /** in a week, metres for sprints */
  week: count('The limit', 0, 100_000),
});
export type LoadLimit = InferType<typeof loadLimit>;

/**
 * What the whole club shares: how it writes lengths, by which school the one cue is chosen, and how much
 * it asks of whom in a week.
 */
export const clubSettings = object({
  name: name('the club’s name'),
  unit: choice('a unit', LENGTH_UNITS),
  cueSchool: choice('a school', CUE_SCHOOLS),
  timeZone: timeZone(),
  limits: array(loadLimit.required())
    .max(40, 'At most 40 limits.')
    .default(() => [])
    .test(
      'once',
      'There are two limits of one kind for one age.',
      (list) =>
        new Set(list?.map((limit) => `${limit.kind} ${limit.upToAge}`)).size ===
        (list?.length ?? 0),
    ),
});
export type ClubSettings = InferType<typeof clubSettings>;

export const clubUpdate = clubSettings.shape({ version: version() });
export type Club = InferType<typeof clubUpdate> & { id: string; ownersTwoSteps: boolean };

/** Whether the club asks its owners for a second step when they sign in. */
export const twoSteps = object({ asked: boolean().strict().required('Say whether it is asked.') });

export const memberRole = object({ role: choice('a role', ROLES) });

/** What comes at the end of the address at which a calendar follows the club's sessions. */
export type CalendarAddress = { token: string };
/** When one's own address was made; null without one. */
export type CalendarKept = { madeAt: string | null };

/** Into another of the own clubs. */
export const clubSwitch = object({ clubId: id() });

export type Member = { id: string; person: string; email: string; role: Role; you: boolean };

/** Who is signed in, and where. */
export type Me = {
  accountId: string;
  person: string;
  role: Role;
  club: Club;
  /** all that this account belongs to */
  clubs: { id: string; name: string }[];
  /** today in the club's time zone, yyyy-mm-dd */
  today: string;
};

/** What a visitor may know before signing in. */
export type Door = { demo: boolean; empty: boolean; signedIn: boolean };

/** Tables of a club that go out for a spreadsheet. */
export const CSV_TABLES = ['reps', 'faults', 'results', 'measures', 'loads'] as const;
export type CsvTableName = (typeof CSV_TABLES)[number];
