import { array, lazy, mixed, object, type InferType, type MixedSchema } from 'yup';
import { SIDE_JOINTS, type SideJoint, type SidePoint } from '@gravek/core/body/posture';
import type { FilmView } from '@gravek/core/film/watchedSteps';
import {
  choice,
  code,
  count,
  countOr,
  day,
  figure,
  figureOrNull,
  foot,
  id,
  idOrNone,
  name,
  note,
  version,
  movementCode,
} from './fields';
import { SIDES } from './drillSet';

/** Seconds of a film that is looked at; a longer one is to be cut first. */
export const FILM_MAX_S = 600;

/** A place in a picture; marks may lie a little outside it. */
const point = () =>
  object({
    x: figure('A mark', -20_000, 20_000, ' px'),
    y: figure('A mark', -20_000, 20_000, ' px'),
  });

const ground = object({
  alongM: figure('Along', -200, 200, ' m'),
  acrossM: figure('Across', -200, 200, ' m'),
});

const VIEWS = {
  marks: object({
    kind: choice('how the ground is read', ['marks']),
    pairs: array(object({ px: point(), ground }).required())
      .required('The marks are missing.')
      .max(24, 'At most 24 marks.'),
  }),
  side: object({
    kind: choice('how the ground is read', ['side']),
    from: point(),
    to: point(),
    lengthM: figure('The known length', 0.1, 100, ' m'),
  }),
};

const view = lazy((value: unknown) => {
  if (value === null || value === undefined) return mixed().nullable().default(null);
  const kind = (value as { kind?: unknown }).kind;
  return kind === 'side' ? VIEWS.side : VIEWS.marks;
}) as unknown as MixedSchema<FilmView | null>;

const frame = () =>
  object({
    atS: figure('The frame', 0, FILM_MAX_S, ' s'),
    /** since the frame before */
    gapS: figure('The time between frames', 0, 10, ' s'),
  });

const contact = object({
  foot: foot('the foot'),
  at: point(),
  on: frame(),
  off: frame().nullable().default(null),
});

const joints = object(
  Object.fromEntries(SIDE_JOINTS.map((joint) => [joint, point().required()])),
) as unknown as MixedSchema<Record<SideJoint, SidePoint>>;

const pose = object({
  on: frame(),
  /** the leg that is looked at */
  foot: foot('the leg'),
  /** which way the athlete moves in the picture */
  travel: choice('which way the athlete moves', ['left', 'right'] as const),
  joints,
});

const fields = {
  athleteId: id(),
  movement: movementCode().required('The movement is missing.'),
  /** the plan that it is held against; null for the movement as it comes */
  approachId: idOrNone(),
  side: choice('a side', SIDES),
  takenOn: day('the day'),
  note: note(500),
  /** what the film is known again by; the film itself stays on the device */
  film: object({
    name: name('the film’s name', 120),
    bytes: count('The size', 1, Number.MAX_SAFE_INTEGER),
    frames: count('Frames', 2, 200_000),
    durationS: figure('The length', 0, FILM_MAX_S, ' s'),
    width: count('The width', 1, 20_000),
    height: count('The height', 1, 20_000),
  }),
  view,
  /** where the board, bar or line lies, along the ground */
  lineM: figureOrNull('The line', -200, 200, ' m'),
  /** the plan's step that ends at the first contact; null while it is worked out */
  firstStep: countOr('The first step', 0, 60, null),
  /** when a way or "go" was called; null where nothing was */
  callS: figureOrNull('The call', 0, FILM_MAX_S, ' s'),
  contacts: array(contact.required())
    .required('Contacts are missing.')
    .max(80, 'At most 80 contacts.'),
  poses: array(pose.required()).required('Postures are missing.').max(20, 'At most 20 postures.'),
  /** where phases begin */
  ticks: array(
    object({
      phase: code('The phase').required(),
      atS: figure('The moment', 0, FILM_MAX_S, ' s'),
    }).required(),
  )
    .required('Phases are missing.')
    .max(40, 'At most 40 phases.'),
  /** checkpoints that were looked at */
  checks: array(
    object({
      phase: code('The phase').required(),
      look: name('what is looked at', 60),
      right: choice('whether it was right', ['yes', 'no'] as const),
    }).required(),
  )
    .required('Checkpoints are missing.')
    .max(200, 'At most 200 checkpoints.'),
  /** faults that the coach has seen or accepted */
  faults: array(code('A fault').required())
    .required('Faults are missing.')
    .max(20, 'At most 20 faults.'),
};

/** A film held against a plan: what was marked in it. Places in pixels of the film, times of the film. */
export const reviewInput = object({ id: id(), ...fields });
export type ReviewInput = InferType<typeof reviewInput>;

export const reviewUpdate = object({ ...fields, version: version() });

export type Review = ReviewInput & { version: number; archived: boolean };

/** A review in a list. */
export type ReviewLine = Pick<Review, 'id' | 'athleteId' | 'movement' | 'takenOn'> & {
  film: string;
  contacts: number;
  faults: string[];
};
