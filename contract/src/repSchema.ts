import { OUTCOMES } from '@gravek/core/session/repLog';
import { type AnyObject, array, mixed, type MixedSchema, object, string } from 'yup';
import { BY_ITSELF } from './bounds';
import { MEASURED_BY, REP_BATCH, SIDES, TIMED_BY, WARM_UP } from './drillSet';
import {
  choice,
  choiceOr,
  code,
  count,
  countOr,
  distinct,
  figure,
  figureOrNull,
  flagOr,
  foot,
  id,
  moment,
  movementCode,
  note,
} from './fields';
import { RUNGS } from './rungs';
import { MOST_COUNTED, variant } from './sessionSchema';
import { wayCodes } from './setUp';

/** An exit, as `phase:option`. */
const exitOrNone = (what: string) =>
  string()
    .max(121, `${what} is too long.`)
    .matches(/^[^\u0000-\u001f\ud800-\udfff]*$/u, `${what} cannot be read.`)
    .nullable()
    .default(null);

/**
 * What was measured of a run, each figure beside what was planned there then: its steps where each is known,
 * else how it went over time.
 */
export const measuredRun = object({
  by: choice('what has measured', MEASURED_BY),
  /** made up by the app, to try things out */
  simulated: flagOr(false),
  /** up to each contact, the first one that was seen left out */
  steps: array(
    object({
      /** which step of the plan it is; null where none fits */
      n: countOr('A step’s number', 1, 1000, null),
      lengthM: figureOrNull('A step', 0, 10, ' m'),
      intervalS: figure('A step’s time', 0.02, 10, ' s'),
      plannedM: figureOrNull('A planned step', 0, 10, ' m'),
      plannedS: figureOrNull('A planned step’s time', 0.02, 10, ' s'),
    }).required(),
  )
    .required('The steps are missing.')
    .max(80, 'At most 80 steps.'),
  /** whether a moment of the course stands for the minute that begins there */
  perMinute: flagOr(false),
  course: array(
    object({
      atS: figure('The moment', 0, 36_000, ' s'),
      cadenceSpm: figureOrNull('The cadence', 0, 500, ' spm'),
      speedMps: figureOrNull('The speed', 0, 15, ' m/s'),
      plannedSpm: figureOrNull('The planned cadence', 0, 500, ' spm'),
      plannedMps: figureOrNull('The planned speed', 0, 15, ' m/s'),
    }).required(),
  )
    .required('The course is missing.')
    .max(180, 'At most 180 moments.')
    .test('forward', 'The course runs back in time.', (course) =>
      (course ?? []).every(({ atS }, i) => i === 0 || atS >= course![i - 1]!.atS),
    ),
});

/**
 * One row of the rep log. It says by itself what was done, so that no later change of a plan or session
 * can make it mean something else. A void takes back the row it names; nothing is edited in place.
 */
export const repInput = object({
  id: id(),
  sessionId: id(),
  drillSetId: id(),
  athleteId: id(),
  movement: movementCode().required('The movement is missing.'),
  /** the drill whose part was run; null for the whole */
  part: code('The part').nullable().default(null),
  set: count('The set', 1, 20),
  side: choice('a side', SIDES),
  /** what differed from the plan, as `variantKey` has it */
  variant: variant(),
  /** beyond the reps of its set where what was missed comes once more */
  rep: count('The rep', 1, 100),
  /** the athlete's how-manieth turn of the drill set: early or late */
  turn: count('The turn', 1, 2000),
  leadFoot: foot('the lead foot').nullable().default(null),
  /** asked speed, per cent of full */
  speedPct: count('The speed', 1, 120).nullable().default(null),
  /** how far up its ladder; null where no plan says */
  rung: choiceOr('a rung', RUNGS, null),
  /** the exit that was asked, and the one that was taken */
  exit: exitOrNone('The exit'),
  taken: exitOrNone('The way taken'),
  /** whether that answers the exit that was asked; null where nothing was asked or nobody said */
  right: flagOr(null),
  /** by which ways it was taught, each as `school:way`; null where the row does not say */
  ways: wayCodes().nullable().default(null).notRequired() as unknown as MixedSchema<
    string[] | null,
    AnyObject
  >,
  /** seconds from the call to the tap that said which way */
  lateS: figureOrNull('How late', 0, 60, ' s'),
  /** what has timed that; null where nothing was timed, and on rows of before, which a tap has */
  lateBy: choiceOr('what timed it', TIMED_BY, null),
  /** where makes count */
  made: flagOr(null),
  /** where seconds count */
  heldS: figureOrNull('Seconds held', 0, 3600, ' s'),
  /** where touches count: the moment of each, seconds from the go that was called, else from the first */
  touchS: array(figure('A touch', 0, 3600, ' s').required())
    .max(MOST_COUNTED, `At most ${MOST_COUNTED} touches.`)
    .test('forward', 'The touches run back in time.', (touches) =>
      (touches ?? []).every((atS, i) => i === 0 || atS >= touches![i - 1]!),
    )
    .nullable()
    .default(null),
  /** where metres or minutes count */
  ranM: figureOrNull('Metres run', 0, 100_000, ' m'),
  ranS: figureOrNull('Seconds run', 0, 36_000, ' s'),
  /** what it put on the body, from the plan as it was solved */
  load: object({
    contacts: count('Contacts', 0, 10_000),
    jumps: count('Jumps', 0, 1000),
    throws: count('Throws', 0, 1000),
    sprintM: figure('Sprint metres', 0, 10_000, ' m'),
  })
    .nullable()
    .default(null),
  /** what a film or device has measured of it */
  measured: measuredRun.nullable().default(null),
  note: note(200),
  outcome: choice('an outcome', OUTCOMES),
  voids: id().nullable().default(null),
  faults: distinct(code('A fault').required('A fault is missing.'), 20, 'Faults'),
  /** whether somebody watched it: of a row on call only a few are */
  watched: flagOr(true),
  /** the faults that it could show: it counts for these and no others; null where the row does not say */
  could: distinct(code('A fault').required('A fault is missing.'), 60, 'Faults that could show')
    .nullable()
    .default(null)
    .notRequired() as unknown as MixedSchema<string[] | null, AnyObject>,
  /** the fault that the athlete's one cue was for */
  cue: code('The cue').nullable().default(null),
  /** what logged it, and its own running number: order goes by these, not by clocks */
  device: id(),
  deviceNo: count('The device’s number', 1, 2 ** 31 - 1),
  at: moment('The time'),
})
  .test('void', 'A row that takes one back names it, and no other row does.', (rep) =>
    rep.outcome === 'void' ? Boolean(rep.voids) : !rep.voids,
  )
  .test(
    'warm-up',
    'Nothing is counted of a warm-up.',
    ({ movement, outcome }) =>
      movement !== WARM_UP || !['clean', 'fault', 'again'].includes(outcome),
  );

/** Rows from a phone's queue; each is checked by itself, so that a bad one does not hold up the rest. */
export const repBatch = object({
  reps: array(mixed<object>().required('A rep is missing.').meta(BY_ITSELF))
    .required('Reps are missing.')
    .min(1, 'There is no rep to store.')
    .max(REP_BATCH, `At most ${REP_BATCH} reps at a time.`),
});
