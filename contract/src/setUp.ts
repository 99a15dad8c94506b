import { STANDS } from '@gravek/core/session/runOrder';
import {
  array,
  boolean,
  lazy,
  mixed,
  number,
  object,
  string,
  type AnyObject,
  type AnyObjectSchema,
  type InferType,
  type MixedSchema,
} from 'yup';
import { choice, count, distinct, figure, foot, name } from './fields';
import { RUNGS } from './rungs';
import { HELPERS, MOST_WATCHED, PACES, SIDES, TARGET_KINDS, type Call } from './drillSet';

const gap = (what: string) => figure(what, 0.2, 10, ' s');

const least = () => gap('The shortest wait');

const most = () =>
  gap('The longest wait').test(
    'after',
    'The longest wait is no shorter than the shortest.',
    function after(value) {
      const { leastS } = this.parent as { leastS?: unknown };
      return typeof value !== 'number' || typeof leastS !== 'number' || leastS <= value;
    },
  );

const CALLS: Record<Call['kind'], AnyObjectSchema> = {
  tempo: object({
    kind: choice('a call', ['tempo'] as const),
    cadenceSpm: figure('The tempo', 30, 900, ' steps/min'),
  }),
  rhythm: object({ kind: choice('a call', ['rhythm'] as const) }),
  steps: object({
    kind: choice('a call', ['steps'] as const),
    steps: count('Steps called', 1, 30),
    leastS: least(),
    mostS: most(),
  }),
  reads: object({ kind: choice('a call', ['reads'] as const) }),
  start: object({
    kind: choice('a call', ['start'] as const),
    leastS: least(),
    mostS: most(),
  }),
};

/** How the row or the one who is up is called; null for not at all. */
export const call = lazy((value: unknown) =>
  value === null || value === undefined
    ? mixed().nullable().default(null)
    : (CALLS[(value as { kind?: Call['kind'] }).kind as Call['kind']] ??
      object({ kind: choice('a call', Object.keys(CALLS)) })),
);

const pairCodes = (what: string, list: string) =>
  distinct(
    string()
      .strict()
      .required(`${what} is missing.`)
      .max(121, `${what} is too long.`)
      .matches(/^[a-z0-9-]+:[a-z0-9-]+$/, `${what} cannot be read.`),
    12,
    list,
  );

/** Exits of reads, each as `phase:option`. */
export const exitCodes = () => pairCodes('An exit', 'Exits');

/** Ways of teaching, each as `school:way`. */
export const wayCodes = () => pairCodes('A way of teaching', 'Ways of teaching');

/**
 * How a drill is run: who stands how, what is called, what differs from rep to rep, what counts, how long is
 * rested. What is left out is as usual; a coach may change all of it in a session.
 */
export const setUp = object({
  stand: choice('how people stand', STANDS).optional(),
  helpers: distinct(choice('a role', HELPERS), 5, 'Roles').optional(),
  sides: array(choice('a side', SIDES).required()).min(1).max(2).optional(),
  leadFeet: distinct(foot('the lead foot'), 2, 'Lead feet').optional(),
  exits: exitCodes().optional(),
  ways: wayCodes().optional(),
  /** by their names: of the movement's place, or the coach's own */
  spots: array(name('a spot', 30)).max(12, 'At most 12 spots.').optional(),
  paces: array(number().oneOf(PACES, 'Choose how fast it is run.').required())
    .min(1)
    .max(PACES.length)
    .optional(),
  rungs: distinct(choice('a rung', RUNGS), RUNGS.length, 'Rungs').optional(),
  order: choice('an order', ['blocked', 'mixed'] as const).optional(),
  sets: count('Rounds', 1, 20).optional(),
  reps: count('Reps', 1, 50).optional(),
  target: choice('what counts', TARGET_KINDS).optional(),
  amount: count('How many', 1, 1_000).optional(),
  apartPaces: count('Paces apart', 1, 30).optional(),
  redo: boolean().strict().optional(),
  retryMissed: boolean().strict().optional(),
  freeze: boolean().strict().optional(),
  call: lazy((value: unknown) =>
    value === undefined ? mixed().optional() : (call.resolve({ value }) as AnyObjectSchema),
  ) as unknown as MixedSchema<Call | null | undefined, AnyObject>,
  restS: count('Rest', 0, 1800).optional(),
  setRestS: count('Rest between rounds', 0, 3600).optional(),
  /** how many of a row are watched at a call */
  watch: count('Who is watched', 1, MOST_WATCHED).optional(),
  /** what is carried to the place for it */
  bring: array(name('what to bring', 60)).max(12, 'At most 12 things to bring.').optional(),
});
export type SetUp = InferType<typeof setUp>;
