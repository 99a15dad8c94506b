import type { SideView } from '@gravek/core/body/sideView';
import { chooseCue, type CueSchool } from '@gravek/core/cue/chooseCue';
import { watchedPose, type WatchedPose } from '@gravek/core/film/watchedPose';
import { type FilmContact, type Watched, watchedSteps } from '@gravek/core/film/watchedSteps';
import type { Body } from '@gravek/core/layout/body';
import type { Layout } from '@gravek/core/layout/shape';
import type { Choices } from '@gravek/contract/approach';
import type { Drill, Fault, Movement } from '@gravek/contract/movement';
import type { ReviewInput } from '@gravek/contract/watched';
import { drillFor, faultOf, firstPhaseOf } from '../movement/byCode';
import { bySchools } from '../movement/schools';
import { sideOf } from '../movement/sideOf';
import { sequenceStart, straightStart } from '../planning/planStart';
import { solve } from '../planning/solvePlan';
import { type Suggestion, suggestions } from './suggestions';
import {
  besidePlan,
  firstStepOf,
  type PlannedStep,
  plannedSteps,
  type StepBeside,
} from './watched';

/** What was marked in a film, as far as anything is worked out from it. */
export type Marked = Pick<
  ReviewInput,
  'view' | 'lineM' | 'firstStep' | 'contacts' | 'poses' | 'side'
>;

/** A film held against a plan. */
export type Reviewed = {
  layout: Layout | null;
  plan: PlannedStep[];
  side: SideView | null;
  /** null while it cannot be measured */
  seen: Watched | null;
  /** what stands in the way of measuring, as a sentence; null where nothing does */
  why: string | null;
  /** what cannot be quite right in the marks, though it can be measured */
  odd: string[];
  /** the plan's step that ends at the first contact */
  firstStep: number;
  rows: StepBeside[];
  poses: (WatchedPose & { index: number; n: number | null })[];
  /** last foot beyond the line; short of it negative */
  beyond: { m: number; sdM: number } | null;
  suggestions: Suggestion[];
};

/**
 * What to hold a film against where no plan was chosen: the movement as it comes.
 *
 * @example plainPlan(giveGround).kind // 'sequence'
 */
export const plainPlan = (movement: Movement): Choices =>
  straightStart(movement) ?? sequenceStart();

/** Feet that land together count as one contact, between them. */
const asOne = (contacts: readonly FilmContact[]): FilmContact[] =>
  contacts.reduce<FilmContact[]>((all, contact) => {
    const last = all.at(-1);
    if (last?.on.atS !== contact.on.atS) return [...all, contact];
    const at = { x: (last.at.x + contact.at.x) / 2, y: (last.at.y + contact.at.y) / 2 };
    return [...all.slice(0, -1), { ...last, at, off: last.off ?? contact.off }];
  }, []);

/** Why marks cannot be measured, in the coach's words. */
const sentenceFor = (error: RangeError): string => {
  const { message } = error;
  if (/^pairs must be at least four/.test(message))
    return 'Mark the ground first: four marks of which you know the place, two on each side of the lane.';
  if (/no three lie on a line/.test(message))
    return 'Three of these four marks lie on a line. Take marks that span an area, two on each side of the lane.';
  if (/^pairs must be seen/.test(message))
    return 'No camera sees flat ground like that: two of the marks seem to be changed over.';
  if (/^point/.test(message)) return 'A contact lies above the ground that the marks span.';
  if (/^view\.lengthM/.test(message)) return 'Say how long the known length is.';
  if (/^view\.to/.test(message)) return 'The ends of the known length lie on each other.';
  if (/offS/.test(message))
    return 'A foot leaves the ground before it lands; mark its toe-off again.';
  if (/^contacts must/.test(message)) return 'Mark two contacts or more.';
  return 'These marks cannot be measured.';
};

const oddOnes = (contacts: readonly FilmContact[], plan: readonly PlannedStep[]): string[] => {
  // A movement that hops lands twice on one foot.
  const hops = plan.some((step, i) => i > 0 && step.foot === plan[i - 1]!.foot);
  return hops
    ? []
    : contacts.flatMap(({ foot }, i) =>
        i > 0 && contacts[i - 1]!.foot === foot
          ? [
              `Contacts ${i} and ${i + 1} are both ${foot}: one between them is missing, or a foot is wrong.`,
            ]
          : [],
      );
};

const stoodFirst = ([first]: readonly StepBeside[]): string[] =>
  first && !first.isTimed
    ? [
        'The time of the first step is left out: the plan’s counts from the first movement. Mark the foot at the start on the frame at which the athlete begins to move.',
      ]
    : [];

/**
 * All that a film comes to beside a plan: the one answer that the desk, its drawings and what is taken
 * from it have.
 *
 * @param choices of the plan; see `plainPlan` where there is none
 */
export const reviewed = (
  movement: Movement,
  choices: Choices,
  body: Body,
  marked: Marked,
): Reviewed => {
  let layout: Layout | null = null;
  try {
    ({ layout } = solve(movement, choices, body, marked.side));
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
  }
  const taught = bySchools(movement, choices.schools);
  const plan = layout ? plannedSteps(layout) : [];
  const side = layout && sideOf(taught, layout, body);
  const contacts = asOne(marked.contacts);
  const none = {
    layout,
    plan,
    side,
    seen: null,
    odd: [],
    firstStep: marked.firstStep ?? 0,
    rows: [],
    poses: [],
    beyond: null,
    suggestions: [],
  };
  if (!marked.view) {
    return {
      ...none,
      why: 'Mark the ground first: four marks of which you know the place, two on each side of the lane.',
    };
  }
  try {
    const { view } = marked;
    const seen = watchedSteps({ view, contacts });
    const firstStep = marked.firstStep ?? firstStepOf(plan, seen, marked.lineM);
    const rows = besidePlan(plan, seen, firstStep);
    const poses = marked.poses.map(({ joints, travel, on }, index) => {
      const i = contacts.findIndex((contact) => contact.on.atS === on.atS);
      const n = i < 0 ? null : (plan[firstStep + i - 1]?.n ?? null);
      return { ...watchedPose({ view, joints, travel }), index, n };
    });
    const last = seen.contacts.at(-1)!;
    const beyond =
      marked.lineM === null
        ? null
        : {
            m: last.alongM - marked.lineM,
            // Of the two feet of the last step one.
            sdM: seen.steps.at(-1)!.lengthSdM / Math.SQRT2,
          };
    return {
      layout,
      plan,
      side,
      seen,
      why: null,
      odd: [...oddOnes(contacts, plan), ...stoodFirst(rows)],
      firstStep,
      rows,
      poses,
      beyond,
      suggestions: suggestions(taught, { rows, beyond, poses, side }),
    };
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    return { ...none, why: sentenceFor(error) };
  }
};

/** The one cue of what was seen in one film, and the one after it, should that be cured. */
export type ReviewCue = {
  fault: Fault;
  drill: Drill | null;
  /** faults seen that follow from it, by name */
  follow: string[];
  next: Fault | null;
};

/**
 * What to say after a film: of the faults that were seen in it the one that the club's school takes.
 *
 * @param faults codes of faults that the coach has seen or accepted
 * @returns null where none was seen
 * @example
 * const code = gaps.faults[0].code;
 * reviewCue(gaps, 'most-frequent', [code]).fault.name // 'Chin on the chest'
 */
export const reviewCue = (
  movement: Movement,
  school: CueSchool,
  faults: readonly string[],
): ReviewCue | null => {
  const choice = (codes: readonly string[]) =>
    chooseCue({
      school,
      faults: codes.flatMap((code) => {
        const fault = faultOf(movement, code);
        return fault
          ? [
              {
                ...fault,
                phase: firstPhaseOf(movement, fault),
                rate: 1,
              },
            ]
          : [];
      }),
    });
  const { code, causes } = choice(faults);
  const fault = code === null ? undefined : faultOf(movement, code);
  if (!fault) return null;
  const next = choice(faults.filter((fault) => fault !== code && !causes.includes(fault))).code;
  // What follows from the first may stay when that is cured: then it is the next to look at.
  const left = next ?? choice(faults.filter((fault) => fault !== code)).code;
  return {
    fault,
    drill: drillFor(movement, fault) ?? null,
    follow: causes.flatMap((cause) => faultOf(movement, cause)?.name ?? []),
    next: (left !== null && faultOf(movement, left)) || null,
  };
};
