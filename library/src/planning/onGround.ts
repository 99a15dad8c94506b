import { formatLength, type LengthStyle } from '@gravek/core/units';
import type { Choices } from '@gravek/contract/approach';
import type { Ground, GroundInput, OnGround, Surface } from '@gravek/contract/ground';
import { WEEKDAYS } from '@gravek/contract/weekdays';
import type { Movement } from '@gravek/contract/movement';

/**
 * What a plan takes along of a ground, so that it stays what it was.
 *
 * @example
 * const hall = { id: 'g', name: 'Hall', surface: 'hall floor', note: '', lanes: 4, slots: [], marks: [], laneM: 20, goalM: null,
 *   uprightGapM: null, apron: null, gapM: 0.8, baseM: null, rim: null, net: null };
 * takenFrom(hall).groundId // 'g'
 */
export const takenFrom = ({
  id,
  name,
  surface,
  laneM,
  goalM,
  uprightGapM,
  apron,
  gapM,
  baseM,
  rim,
  net,
  marks,
}: GroundInput): OnGround => ({
  groundId: id,
  name,
  surface,
  laneM,
  goalM,
  uprightGapM,
  apron,
  gapM,
  baseM,
  rim,
  net,
  marks,
});

/** What a ground has nothing of may be left out. */
const figuresOf = (ground: OnGround): string =>
  JSON.stringify(
    Object.entries(ground)
      .filter(([, value]) => value !== null && value !== undefined)
      .sort(),
  );

const sameFigures = (a: OnGround, b: OnGround): boolean => figuresOf(a) === figuresOf(b);

/**
 * Whether a ground has been changed since a plan took its figures.
 *
 * @example
 * const hall = { id: 'g', name: 'Hall', surface: 'hall floor', note: '', lanes: 4, slots: [], marks: [], laneM: 20, goalM: null,
 *   uprightGapM: null, apron: null, gapM: 0.8, baseM: null, rim: null, net: null };
 * isStale(takenFrom(hall), { ...hall, gapM: 0.9 }) // true
 */
export const isStale = (taken: OnGround, ground: Ground): boolean =>
  !sameFigures(taken, takenFrom(ground));

type Given = { goal: boolean; bar: boolean; gap: boolean };

/**
 * What of a ground a movement is laid out by, apart from its lane.
 *
 * @example givenBy(gaps) // { goal: false, bar: false, gap: true }
 */
export const givenBy = ({ phases }: Movement): Given => ({
  goal: phases.some(({ steps }) => steps.kind === 'arc'),
  bar: phases.some(({ steps }) => steps.kind === 'curve' && steps.bar !== null),
  gap: phases.some(({ steps }) => steps.kind === 'gaps'),
});

/** The figures of a ground by which the feet of a movement go. */
const footing = (movement: Movement, ground: OnGround | null | undefined): (number | null)[] => {
  const needs = givenBy(movement);
  return [needs.goal ? (ground?.goalM ?? null) : null, needs.gap ? (ground?.gapM ?? null) : null];
};

/**
 * Whether feet go elsewhere on one ground than on another.
 *
 * @example
 * const hall = { id: 'g', name: 'Hall', surface: 'hall floor', note: '', lanes: 4, slots: [], marks: [], laneM: 20, goalM: null,
 *   uprightGapM: null, apron: null, gapM: 0.8, baseM: null, rim: null, net: null };
 * feetDiffer(gaps, null, takenFrom(hall)) // true
 */
export const feetDiffer = (
  movement: Movement,
  ground: OnGround | null | undefined,
  other: OnGround | null | undefined,
): boolean => String(footing(movement, ground)) !== String(footing(movement, other));

/** A plan set out on another ground than its own; on none in particular it stays where it is. */
export const setOn = (choices: Choices, ground: OnGround | null): Choices =>
  ground ? { ...choices, ground } : choices;

/**
 * The movement with its gaps as far apart as they are on a ground.
 *
 * @example
 * const hall = { id: 'g', name: 'Hall', surface: 'hall floor', note: '', lanes: 4, slots: [], marks: [], laneM: 20, goalM: null,
 *   uprightGapM: null, apron: null, gapM: 0.8, baseM: null, rim: null, net: null };
 * gapsAt(gaps, takenFrom(hall)).phases[1].steps.gap // { value: 0.8, of: 'm' }
 */
export const gapsAt = (movement: Movement, ground: OnGround | null | undefined): Movement => {
  const gapM = ground?.gapM;
  if (!gapM || !givenBy(movement).gap) return movement;
  return {
    ...movement,
    phases: movement.phases.map((phase) =>
      phase.steps.kind === 'gaps'
        ? { ...phase, steps: { ...phase.steps, gap: { value: gapM, of: 'm' } } }
        : phase,
    ),
  };
};

/** From base to base on the ground that movements are written for, metres. */
export const WRITTEN_BASES_M = 18.3;

/** The movement with its bases as far apart as they are on a ground. */
export const basesAt = (movement: Movement, ground: OnGround | null | undefined): Movement => {
  const baseM = ground?.baseM;
  if (!baseM || !movement.others.some(({ kind }) => kind === 'base')) return movement;
  const scaled = <S extends { value: number }>(span: S): S => ({
    ...span,
    value: (span.value * baseM) / WRITTEN_BASES_M,
  });
  return {
    ...movement,
    others: movement.others.map((other) =>
      other.kind === 'base'
        ? { ...other, ahead: scaled(other.ahead), aside: scaled(other.aside) }
        : other,
    ),
  };
};

/** Grounds that are usual: what is built there, in metres. */
export const USUAL_GROUNDS: readonly { name: string; figures: Partial<GroundInput> }[] = [
  {
    name: 'court with a rim',
    figures: { surface: 'hall floor', rim: { outM: 1.6, laneM: 4.9, laneOutM: 5.8 } },
  },
  {
    name: 'court with a net',
    figures: { surface: 'hall floor', net: { heightM: 2.24, wideM: 9, lineM: 3 } },
  },
  {
    name: 'indoor court',
    figures: {
      surface: 'hall floor',
      goalM: 3,
      marks: [{ name: '6 m line', of: 'goal', fromM: 6 }],
    },
  },
  { name: 'field', figures: { surface: 'grass', laneM: 40, goalM: 3, gapM: 0.9 } },
  {
    name: 'track',
    figures: {
      surface: 'track',
      laneM: 45,
      uprightGapM: 4.02,
      apron: { besideM: 12, outM: 16 },
      marks: [{ name: '1 m line', of: 'board', fromM: 1 }],
    },
  },
  { name: 'diamond', figures: { surface: 'grass', baseM: 18.3 } },
  { name: 'large diamond', figures: { surface: 'grass', baseM: 27.4 } },
];

/**
 * By how much a run-up is longer than the lane, metres; 0 when it fits or nothing is known.
 *
 * @example beyondLaneM(31, { laneM: 30 }) // 1
 */
export const beyondLaneM = (startM: number | null, ground: OnGround | null | undefined): number =>
  startM === null || !ground?.laneM ? 0 : Math.max(0, startM - ground.laneM);

/**
 * Said where a lane is too short; null when it is not.
 *
 * @example
 * const hall = { id: 'g', name: 'Hall', surface: 'hall floor', note: '', lanes: 4, slots: [], marks: [], laneM: 20, goalM: null,
 *   uprightGapM: null, apron: null, gapM: 0.8, baseM: null, rim: null, net: null };
 * laneSentence(21, takenFrom(hall), metric)
 * // 'The lane of Hall ends after 20.00 m: 1.00 m too short for this start mark.'
 */
export const laneSentence = (
  startM: number | null,
  ground: OnGround | null | undefined,
  style: LengthStyle,
): string | null =>
  ground?.laneM && beyondLaneM(startM, ground) > 0
    ? `The lane of ${ground.name} ends after ${formatLength(ground.laneM, style)}: ${formatLength(beyondLaneM(startM, ground), style)} too short for this start mark.`
    : null;

/** Farther than this from a line nobody measures from it, metres. */
const NEAR_M = 2;

/**
 * A mark told by the nearest line that is there already: metres before it (negative: beyond it).
 *
 * @example
 * const ground = { laneM: 20, marks: [{ name: '6 m line', of: 'goal', fromM: 6 }] };
 * fromLine(7, 'goal', ground) // { name: '6 m line', beforeM: 1 }
 */
export const fromLine = (
  toTargetM: number,
  target: string,
  ground: OnGround | null | undefined,
): { name: string; beforeM: number } | null => {
  const [nearest] = (ground?.marks ?? [])
    .filter(({ of }) => of === target)
    .map(({ name, fromM }) => ({ name, beforeM: toTargetM - fromM }))
    .filter(({ beforeM }) => Math.abs(beforeM) <= NEAR_M)
    .sort((a, b) => Math.abs(a.beforeM) - Math.abs(b.beforeM));
  return nearest ?? null;
};

const SURFACE_CAUTIONS: Record<Surface, string> = {
  'hall floor': 'Hall floor: swept and dry, soles that grip, no spikes.',
  track: 'Track: spikes only where nobody stands close; wet, it takes longer to brake.',
  grass: 'Grass: look for holes and wet patches before anybody brakes or turns on it.',
  'artificial turf': 'Artificial turf: it holds the foot, so turn on a foot that is free to turn.',
  sand: 'Sand: steps come out shorter; what was measured elsewhere does not hold here.',
  asphalt: 'Asphalt: no jumps and no hard braking; soles that cushion.',
};

/**
 * What the surface asks of everybody, as a sentence; none where the ground is not known.
 *
 * @example surfaceCautions({ surface: 'grass' }).length // 1
 */
export const surfaceCautions = (ground: OnGround | null | undefined): string[] =>
  ground ? [SURFACE_CAUTIONS[ground.surface]] : [];

/** The day of the week of a day, yyyy-mm-dd. */
const weekdayOf = (day: string) => WEEKDAYS[(new Date(`${day}T12:00:00Z`).getUTCDay() + 6) % 7]!;

const minutesOf = (time: string): number => {
  const [hours = 0, minutes = 0] = time.split(':').map(Number);
  return hours * 60 + minutes;
};

/**
 * When the club has a ground on a day, earliest first.
 *
 * @example
 * const slots = [{ day: 'Monday', from: '18:00', to: '19:30' }];
 * slotsOn({ slots }, '2031-03-03') // [{ from: '18:00', to: '19:30', minutes: 90 }]
 */
export const slotsOn = (
  { slots }: Pick<Ground, 'slots'>,
  day: string,
): { from: string; to: string; minutes: number }[] =>
  slots
    .filter((slot) => slot.day === weekdayOf(day))
    .map(({ from, to }) => ({ from, to, minutes: minutesOf(to) - minutesOf(from) }))
    .sort((a, b) => a.from.localeCompare(b.from));

/**
 * The club's time on a ground in which a session of a day is: of several the first that it fits into.
 *
 * @param takesS seconds that the session takes
 * @example
 * const slots = [{ day: 'Monday', from: '18:00', to: '19:30' }];
 * slotFor({ slots }, '2031-03-03', 3600)?.from // '18:00'
 */
export const slotFor = (
  ground: Pick<Ground, 'slots'>,
  day: string,
  takesS: number,
): ReturnType<typeof slotsOn>[number] | undefined => {
  const slots = slotsOn(ground, day);
  return slots.find((slot) => slot.minutes * 60 >= takesS) ?? slots.at(-1);
};
