import { otherFoot, type Foot } from '@gravek/core/feet';
import { fitPlane, groundAt, pictureAt, type PicturePoint } from '@gravek/core/film/planeMap';
import { SIDE_JOINTS } from '@gravek/core/body/posture';
import type { Fault, Movement } from '@gravek/contract/movement';
import type { ReviewInput } from '@gravek/contract/watched';
import type { Reviewed } from '../film/reviewed';

/** What is marked in a film, as far as presses change it. */
export type FilmMarks = Pick<ReviewInput, 'view' | 'contacts' | 'poses' | 'ticks'>;

type Frame = ReviewInput['contacts'][number]['on'];

/** Moments nearer than this are of one frame, seconds. */
const SAME_FRAME_S = 1e-6;
const isSame = (a: number, b: number): boolean => Math.abs(a - b) < SAME_FRAME_S;
const isBefore = (a: number, b: number): boolean => a < b - SAME_FRAME_S;

/**
 * The foot that lands next, by those marked before and after a moment.
 *
 * @param plannedFirst foot of the first contact; null where no plan says
 * @example footAt([], 0.4, 'right') // 'right'
 */
export const footAt = (
  contacts: FilmMarks['contacts'],
  atS: number,
  plannedFirst: Foot | null,
): Foot => {
  const before = contacts.findLast(({ on }) => isBefore(on.atS, atS));
  if (before) return otherFoot(before.foot);
  const after = contacts.find(({ on }) => isBefore(atS, on.atS));
  return after ? otherFoot(after.foot) : (plannedFirst ?? 'left');
};

/** Where the next foot is likely to come down: a step on from the last, as far as the one before. */
const likelyPlace = (
  { contacts, view }: Pick<FilmMarks, 'contacts' | 'view'>,
  stepM: number,
  middle: PicturePoint,
): PicturePoint => {
  const last = contacts.at(-1)?.at;
  if (!last) return middle;
  if (view?.kind !== 'marks') return last;
  try {
    const fit = fitPlane(view.pairs);
    const { alongM, acrossM } = groundAt(fit, last);
    return pictureAt(fit, { alongM: alongM + stepM, acrossM: -acrossM }) ?? last;
  } catch {
    return last;
  }
};

/**
 * Contacts once a foot was marked as down on a frame: pressed again on the same frame it is moved, else it is a
 * new one, whose foot alternates by itself.
 *
 * @param at where it was pressed; null for the place where it is likely to be
 * @param middle of the picture
 */
export const withContact = (
  marks: Pick<FilmMarks, 'contacts' | 'view'>,
  on: Frame,
  at: PicturePoint | null,
  { plan }: Pick<Reviewed, 'plan'>,
  middle: PicturePoint,
): FilmMarks['contacts'] => {
  const { contacts } = marks;
  if (contacts.some((contact) => isSame(contact.on.atS, on.atS)))
    return at === null
      ? contacts
      : contacts.map((contact) => (isSame(contact.on.atS, on.atS) ? { ...contact, at } : contact));
  // The foot at the start is the other one than that of the first step.
  const first = plan[0] ? otherFoot(plan[0].foot) : null;
  const stepM = plan[contacts.length]?.lengthM ?? 1;
  const contact = {
    ...{ foot: footAt(contacts, on.atS, first), on, off: null },
    at: at ?? likelyPlace(marks, stepM, middle),
  };
  return [...contacts, contact].sort((a, b) => a.on.atS - b.on.atS);
};

/**
 * Contacts once the last foot that is down was marked as up again on a frame; the same list where none is.
 *
 * @example
 * withToeOff([{ on: { atS: 1 }, off: null, at: [0, 0] }], { atS: 1.15 })[0].off // { atS: 1.15 }
 */
export const withToeOff = (contacts: FilmMarks['contacts'], off: Frame): FilmMarks['contacts'] => {
  const last = contacts.findLastIndex(({ on }) => isBefore(on.atS, off.atS));
  return last < 0
    ? contacts
    : contacts.map((contact, i) => (i === last ? { ...contact, off } : contact));
};

/**
 * Postures once a joint was pressed: joints are pressed one after the other, and the last makes a posture of them,
 * in place of one on the same frame.
 *
 * @param begun joints pressed on this frame so far
 * @returns `poses` null while joints are missing
 */
export const withJoint = (
  poses: FilmMarks['poses'],
  begun: readonly PicturePoint[],
  joint: PicturePoint,
  of: Pick<FilmMarks['poses'][number], 'on' | 'foot' | 'travel'>,
): { begun: PicturePoint[]; poses: FilmMarks['poses'] | null } => {
  const all = [...begun, joint];
  if (all.length < SIDE_JOINTS.length) return { begun: all, poses: null };
  const joints = Object.fromEntries(
    SIDE_JOINTS.map((name, i) => [name, all[i]!]),
  ) as FilmMarks['poses'][number]['joints'];
  return {
    begun: [],
    poses: [...poses.filter(({ on }) => !isSame(on.atS, of.on.atS)), { ...of, joints }].sort(
      (a, b) => a.on.atS - b.on.atS,
    ),
  };
};

/** Where phases begin: as the coach has said, else as the contacts lie in the plan. */
export const phaseTicks = (
  { ticks, contacts }: Pick<FilmMarks, 'ticks' | 'contacts'>,
  { plan, firstStep, seen }: Pick<Reviewed, 'plan' | 'firstStep' | 'seen'>,
): FilmMarks['ticks'] =>
  ticks.length > 0
    ? ticks
    : contacts.flatMap(({ on }, i) => {
        const phase = plan[firstStep + i - 1]?.phase;
        const before = plan[firstStep + i - 2]?.phase;
        return seen && phase && phase !== before ? [{ phase, atS: on.atS }] : [];
      });

/**
 * Ticks once the phase after the last one before a moment was said to begin there; the same list where none is left.
 *
 * @example
 * withNextPhase([{ phase: 'run', atS: 0 }], ['run', 'plant', 'jump'], 1.2)
 * // [{ phase: 'run', atS: 0 }, { phase: 'plant', atS: 1.2 }]
 */
export const withNextPhase = (
  ticks: FilmMarks['ticks'],
  path: readonly string[],
  atS: number,
): FilmMarks['ticks'] => {
  const last = ticks.findLast((tick) => isBefore(tick.atS, atS));
  const phase = path[last ? path.indexOf(last.phase) + 1 : 0];
  return phase === undefined
    ? ticks
    : [...ticks.filter((tick) => tick.phase !== phase), { phase, atS }].sort(
        (a, b) => a.atS - b.atS,
      );
};

/**
 * Faults that a film can show: those of the phases on its way, and a wrong answer to a read on it.
 *
 * @example faultsInFilm(gaps, { layout: laidOut(gaps, body) }).length > 0 // true
 */
export const faultsInFilm = (movement: Movement, { layout }: Pick<Reviewed, 'layout'>): Fault[] => {
  if (!layout) return movement.faults;
  const codes = layout.phases.map(({ code }) => code);
  return movement.faults.filter(({ phases }) => phases.some((phase) => codes.includes(phase)));
};
