import { array, object, string, type InferType } from 'yup';
import { WEEKDAYS } from './weekdays';
import { choice, count, figure, id, name, note, version } from './fields';

export const SURFACES = [
  'hall floor',
  'track',
  'grass',
  'artificial turf',
  'sand',
  'asphalt',
] as const;
export type Surface = (typeof SURFACES)[number];

/** What lines of a ground are measured from. */
export const DATUMS = ['board', 'line', 'box', 'hurdle', 'bar', 'goal'] as const;

const TIME = /^([01]\d|2[0-3]):[0-5]\d$/;

const time = (what: string) =>
  string()
    .strict()
    .required(`${what} is missing.`)
    .max(5, `${what} must be a time of day.`)
    .matches(TIME, `${what} must be a time of day.`);

/** A figure of the ground; null where it has none or nobody measured it. */
const measured = (what: string, min: number, max: number) =>
  figure(what, min, max, ' m').nullable().defined();

/** What a ground gives a plan. */
const figures = {
  name: name('the ground’s name', 60),
  surface: choice('a surface', SURFACES),
  /** room for a run-up, metres before the target */
  laneM: measured('The lane', 2, 200),
  /** between the posts, metres */
  goalM: measured('The goal', 1, 12),
  /** from upright to upright of a bar, metres */
  uprightGapM: measured('Between the uprights', 2, 8),
  /** where the apron of a bar ends */
  apron: object({
    besideM: figure('The apron beside', 0.5, 40, ' m'),
    outM: figure('The apron out', 0.5, 40, ' m'),
  })
    .nullable()
    .default(null),
  /** from one bag, rung or hoop to the next, where they cannot be moved, metres */
  gapM: measured('The gap', 0.1, 5),
  /** from one base to the next, metres */
  baseM: figure('Between the bases', 5, 40, ' m').nullable().default(null),
  /** a rim: how far in front of the end line, and the lane before it; null where there is none */
  rim: object({
    outM: figure('The rim before the end line', 0.5, 3, ' m'),
    laneM: figure('The lane across', 2, 8, ' m'),
    laneOutM: figure('The lane from the end line', 3, 9, ' m'),
  })
    .nullable()
    .default(null),
  /** a net: how high, how long, and the line before it; null where there is none */
  net: object({
    heightM: figure('The height of the net', 1, 3, ' m'),
    wideM: figure('The net across', 3, 12, ' m'),
    lineM: figure('The line before the net', 1, 5, ' m'),
  })
    .nullable()
    .default(null),
  /** lines that are there already, so far before what they are measured from */
  marks: array(
    object({
      name: name('the mark’s name', 30),
      of: choice('what it is measured from', DATUMS),
      fromM: figure('The mark', 0.1, 200, ' m'),
    }).required(),
  )
    .max(12, 'At most 12 marks.')
    .default([]),
};

/** The ground of a plan as it was when it was chosen: a plan stays what it was. */
export const onGround = object({ groundId: id(), ...figures });
export type OnGround = InferType<typeof onGround>;

const slot = object({
  day: choice('a day of the week', WEEKDAYS),
  from: time('The begin'),
  to: time('The end'),
}).test('order', 'It must end after it begins.', function inOrder(value) {
  return value.to > value.from
    ? true
    : this.createError({ path: `${this.path}.to`, message: 'It must end after it begins.' });
});

const fields = object({
  ...figures,
  note: note(300),
  /** how many can run side by side */
  lanes: count('Lanes', 1, 20),
  /** when the club has it, times of day in the club’s zone */
  slots: array(slot.required()).max(21, 'At most 21 slots.').default([]),
});

export const groundInput = fields.shape({ id: id() });
export type GroundInput = InferType<typeof groundInput>;

export const groundUpdate = fields.shape({ version: version() });

export type Ground = GroundInput & { version: number; archived: boolean };
