import type { ClockAct } from '@gravek/core/session/circuit';
import { array, type InferType, number, object } from 'yup';
import { choice, code, count, distinct, id, name } from './fields';

/** No ground has room for more. */
export const MOST_STATIONS = 12;

const group = object({
  name: name('the group’s name', 40),
  athleteIds: distinct(id(), 60, 'Athletes'),
});

/** Groups that go round the sets of a session that are stations, all by one clock; as many rounds as stations. */
export const circuitInput = object({
  minutes: count('Minutes at a station', 1, 60),
  changeS: count('Seconds to change', 0, 900),
  groups: array(group.required())
    .required('Groups are missing.')
    .min(1, 'There is at least one group.')
    .max(MOST_STATIONS, `At most ${MOST_STATIONS} groups.`)
    .test('once', 'Somebody is in two groups.', (groups) => {
      const ids = (groups ?? []).flatMap((some) => some.athleteIds ?? []);
      return new Set(ids).size === ids.length;
    }),
});
export type Circuit = InferType<typeof circuitInput>;
export type Group = Circuit['groups'][number];

const ACTS = ['start', 'hold', 'resume', 'more', 'change', 'end', 'undo'] as const;

/** What somebody did to the clock of a session. */
export const clockActInput = object({
  id: id(),
  kind: choice('what is done to the clock', ACTS),
  /** milliseconds since 1970 by the server's clock, as the phone knows it */
  atMs: number()
    .strict()
    .typeError('The time must be a number.')
    .required('The time is missing.')
    .integer('The time must be a whole number.')
    .min(0, 'The time must be after 1970.')
    .max(7_258_118_400_000, 'The time must be before 2200.'),
  /** the act that is taken back, or the stretch that is ended */
  of: code('What it is of', 36).nullable().default(null),
});

/** What was done to the clock of a session so far, and what time it is. */
export type SessionClock = { nowMs: number; acts: ClockAct[] };

/** Nobody presses more often in one session. */
export const MOST_ACTS = 200;
