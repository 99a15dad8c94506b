import { type RunSet, STANDS } from '@gravek/core/session/runOrder';
import { AS_PLANNED } from '@gravek/core/session/variants';
import {
  type AnyObject,
  type AnyObjectSchema,
  array,
  type ArraySchema,
  boolean,
  lazy,
  type MixedSchema,
  number,
  object,
  string,
  type ValidationError,
} from 'yup';
import { type Circuit, circuitInput, MOST_STATIONS } from './circuit';
import {
  type Call,
  type DrillSet,
  HELPERS,
  MOST_WATCHED,
  PACES,
  SIDES,
  TARGET_KINDS,
  type TargetKind,
  type Work,
} from './drillSet';
import {
  choice,
  choiceOr,
  code,
  count,
  countOr,
  day,
  distinct,
  flagOr,
  foot,
  id,
  idOrNone,
  movementCode,
  name,
  note,
  version,
} from './fields';
import { RUNGS } from './rungs';
import { call, exitCodes, wayCodes } from './setUp';

const WORKS: Record<Work['kind'], AnyObjectSchema> = {
  plan: object({ kind: choice('what is done', ['plan'] as const), approachId: id() }),
  movement: object({
    kind: choice('what is done', ['movement'] as const),
    movement: movementCode().required('Choose a movement.'),
    drill: code('The drill').nullable().default(null),
  }),
  'warm-up': object({
    kind: choice('what is done', ['warm-up'] as const),
    name: name('what is done'),
  }),
};

const work = lazy((value: unknown) =>
  (
    WORKS[(value as { kind?: Work['kind'] } | null)?.kind as Work['kind']] ??
    object({ kind: choice('what is done', Object.keys(WORKS)) })
  ).required('Choose what is done.'),
);

const codes = (what: string, most = 12) =>
  distinct(code(what).required(`${what}: one is missing.`).min(1), most, what);

const axes = object({
  moves: codes('Moves'),
  endings: codes('Endings'),
  /** `phase:option` */
  exits: exitCodes(),
  /** ways of teaching, each as `school:way` */
  ways: wayCodes().default(() => []),
  spots: distinct(
    string()
      .strict()
      .trim('A spot begins or ends with a space.')
      .required('A spot is missing.')
      .max(30, 'A spot’s name is too long: 30 letters at most.')
      .matches(/^[\p{L}\p{N}][\p{L}\p{N} .,’'-]*$/u, 'A spot is called by letters and figures.'),
    12,
    'Spots',
  ).default(() => []),
  sides: array(choice('a side', SIDES))
    .required('Choose a side.')
    .min(1, 'Choose a side.')
    .max(2, 'Two sides at most.'),
  leadFeet: distinct(foot('the lead foot'), 2, 'Lead feet'),
  paces: array(number().oneOf(PACES, 'Choose how fast it is run.').required())
    .required('Choose how fast it is run.')
    .min(1, 'Choose how fast it is run.')
    .max(PACES.length, 'Choose each speed once.'),
  rungs: distinct(choice('a rung', RUNGS), RUNGS.length, 'Rungs'),
});

/** Makes, touches, seconds, metres or minutes that a rep is asked for. */
export const MOST_COUNTED = 1_000;

/** A variant as a rep names it. */
export const variant = () =>
  string()
    .max(400, 'The variant is too long.')
    .matches(/^[^\u0000-\u001f\ud800-\udfff]*$/u, 'The variant cannot be read.')
    .default('');

export const drillSetInput = object({
  id: id(),
  // Yup cannot infer what `lazy` gives, so the type is stated.
  work: work as unknown as MixedSchema<Work, AnyObject>,
  /** none only where the last one has been deleted since */
  athleteIds: distinct(id(), 60, 'Athletes'),
  /** what differs from rep to rep */
  vary: axes.default(() => ({ ...AS_PLANNED.vary })) as unknown as MixedSchema<
    { [Axis in keyof RunSet['vary']]: RunSet['vary'][Axis][number][] },
    AnyObject
  >,
  /** combinations left out, as `struckKey` has them */
  struck: distinct(variant().required('A combination is missing.'), 400, 'Combinations').default(
    () => [],
  ),
  order: choiceOr('an order', ['blocked', 'mixed'] as const, 'blocked'),
  slowFirst: flagOr(true),
  seed: countOr('The order’s number', 1, 1_000_000, 1),
  /** rounds */
  sets: count('Rounds', 1, 20),
  /** of each combination in a round; with makes, the most tries */
  reps: count('Reps', 1, 50),
  target: choiceOr('what counts', TARGET_KINDS, 'attempts'),
  /** how many makes, touches, seconds or metres; 1 for attempts */
  amount: countOr('How many', 1, MOST_COUNTED, 1),
  stand: choiceOr('how people stand', STANDS, 'turns'),
  helpers: distinct(choice('a role', HELPERS), 5, 'Roles').default(() => []),
  /** lanes used; null for all that the ground has */
  lanes: countOr('Lanes', 1, 20, null),
  /** own paces that pairs are walked apart; null where nobody is */
  apartPaces: countOr('Paces apart', 1, 30, null),
  /** at the same time as the set before it */
  beside: flagOr(false),
  /** who misses the finish mark goes again */
  redo: flagOr(false),
  /** where makes count, at the end of a round once more through what lacks them */
  retryMissed: flagOr(false),
  /** stand still afterwards and be looked at */
  freeze: flagOr(false),
  call: call as unknown as MixedSchema<Call | null, AnyObject>,
  restS: count('Rest', 0, 1800),
  setRestS: count('Rest between rounds', 0, 3600),
  /** how many of a row are watched at a call; null as the coach does elsewhere */
  watch: count('Who is watched', 1, MOST_WATCHED).nullable().optional().default(undefined),
  /** one of the stations that groups go round */
  station: boolean().strict().optional(),
  /** who runs the station */
  coach: note(40, 'the coach').optional().default(undefined),
}).test('makes', 'More makes than tries cannot be made.', function makes(value):
  true | ValidationError {
  const set = value as { target?: TargetKind; amount?: number; reps?: number };
  return set.target !== 'makes' || !(set.amount! > set.reps!)
    ? true
    : this.createError({
        path: this.path ? `${this.path}.amount` : 'amount',
        message: 'No more makes than there are tries.',
      });
});

const sessionFields = object({
  date: day('the day'),
  title: name('the session’s name'),
  /** one of the club's grounds; null for elsewhere, which the place then tells */
  groundId: idOrNone(),
  place: note(80),
  /** kept to begin others from */
  template: flagOr(false),
  drillSets: array(drillSetInput.required())
    .required('Drill sets are missing.')
    .min(1, 'A session needs at least one drill set.')
    .max(20, 'At most 20 drill sets.') as unknown as ArraySchema<DrillSet[], AnyObject>,
  /** groups on one clock; nothing where all do one set after the other */
  circuit: circuitInput
    .optional()
    .default(undefined)
    .transform((value: unknown) => value ?? undefined),
}).test('circuit', 'Groups and stations do not fit.', function circuitFits(value):
  true | ValidationError {
  const { circuit, drillSets } = value as { circuit?: Circuit; drillSets?: DrillSet[] };
  if (!circuit?.groups || !drillSets) return true;
  const stations = drillSets.filter((set) => set.station);
  const wrong = (message: string): ValidationError =>
    this.createError({ path: 'circuit.groups', message });
  if (stations.length > MOST_STATIONS) return wrong(`At most ${MOST_STATIONS} stations.`);
  if (circuit.groups.length > stations.length)
    return wrong('There are more groups than stations: add a station, or make fewer groups.');
  const known = new Set(stations.flatMap((set) => set.athleteIds));
  const isKnown = circuit.groups.every(({ athleteIds }) => athleteIds.every((id) => known.has(id)));
  return isKnown || wrong('Somebody is in a group and at none of its stations.');
});

export const sessionInput = sessionFields.shape({ id: id() });

export const sessionUpdate = sessionFields.shape({
  version: version(),
});
