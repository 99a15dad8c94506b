import { bodyOf } from '@gravek/core/layout/body';
import { compareStepCounts } from '@gravek/core/runup/stepCounts';
import { checkRules } from '@gravek/core/runup/stepRules';
import { groupBy, type Side } from '@gravek/core/session/repLog';
import { AS_PLANNED } from '@gravek/core/session/variants';
import { formatLength, type LengthStyle } from '@gravek/core/units';
import type { Athlete } from '@gravek/contract/athlete';
import { isSequence } from '@gravek/contract/choices';
import type { DrillSet, Work } from '@gravek/contract/drillSet';
import type { Load, Movement } from '@gravek/contract/movement';
import type { ApproachSummary } from '@gravek/contract/plan';
import type { NamedRuleSet } from '@gravek/contract/ruleSet';
import { beyondLaneM } from '../planning/onGround';
import { outlineOf, solve, straightAsk } from '../planning/solvePlan';
import { barredBy } from './restrictions';

type Plan = Pick<ApproachSummary, 'choices'>;

/** Most steps that are looked at for a count that would fit. */
const MOST_STEPS = 40;

export type SessionFit = {
  /** where the athlete starts, or what would fit, in words */
  mark: string;
  fits: boolean;
};

/** Where an athlete starts on an approach and with which foot, or why it cannot be run. */
export const fitOf = (
  movement: Movement,
  { choices }: Plan,
  athlete: Athlete,
  style: LengthStyle,
): SessionFit => {
  const body = bodyOf(athlete);
  const outline = outlineOf(solve(movement, choices, body));
  if (outline) {
    const mark =
      outline.startM === null
        ? `${outline.firstFoot} foot first`
        : formatLength(outline.startM, style);
    const beyondM = beyondLaneM(outline.startM, choices.ground);
    return {
      mark: [
        mark,
        ...(beyondM > 0 ? [`${formatLength(beyondM, style)} beyond the lane`] : []),
        ...(body.estimated.includes('steps') ? ['estimate'] : []),
      ].join(', '),
      fits: beyondM === 0,
    };
  }
  if (isSequence(choices)) return { mark: 'no step to take', fits: false };
  const ask = straightAsk(choices, body, body.model);
  const { recommended } = compareStepCounts(ask, 1, MOST_STEPS, choices.ground?.laneM ?? undefined);
  return {
    mark: recommended ? `does not fit; ${recommended} steps would` : 'does not fit',
    fits: false,
  };
};

/** What a plan breaks of the step rules that it is held to, each with the first names of whom it is about. */
export const brokenRules = (
  movement: Movement,
  { choices }: Plan,
  athletes: readonly Athlete[],
  rules: NamedRuleSet | undefined,
): { why: string; names: string[] }[] => {
  if (!isSequence(choices) || !rules) return [];
  const broken = athletes.flatMap((athlete) =>
    checkRules(solve(movement, choices, bodyOf(athlete)).layout?.footfalls ?? [], rules).map(
      ({ why }) => ({
        why,
        name: athlete.name.split(' ')[0]!,
      }),
    ),
  );
  return [...groupBy(broken, ({ why }) => why)].map(([why, rows]) => ({
    why,
    names: rows.map(({ name }) => name),
  }));
};

/**
 * Drill sets in which nobody is left, by field. One whose last athlete was deleted since it was saved
 * may stay so: that must not keep the rest from being changed.
 *
 * @param before the drill sets as they are saved; none for a new session
 * @example
 * withoutAthletes([{ id: 's', athleteIds: [] }]) // { 'drillSets[0].athleteIds': 'Choose at least one athlete.' }
 */
export const withoutAthletes = (
  drillSets: readonly DrillSet[],
  before: readonly DrillSet[] = [],
): Record<string, string> =>
  Object.fromEntries(
    drillSets.flatMap((set, i) => {
      const emptied = before.find((old) => old.id === set.id)?.athleteIds.length === 0;
      return set.athleteIds.length === 0 && !emptied
        ? [[`drillSets[${i}].athleteIds`, 'Choose at least one athlete.']]
        : [];
    }),
  );

/** What a new drill set begins with. */
const FRESH = {
  struck: [],
  order: 'blocked',
  slowFirst: true,
  seed: 1,
  sets: 2,
  reps: 4,
  target: 'attempts',
  amount: 1,
  stand: 'turns',
  helpers: [],
  lanes: null,
  apartPaces: null,
  beside: false,
  redo: false,
  retryMissed: false,
  freeze: false,
  call: null,
  restS: 60,
  setRestS: 180,
} as const;

/**
 * A drill set of some work, nothing in it varied yet.
 *
 * @param id of the new set
 * @example freshDrillSet('s1', { kind: 'warm-up', name: 'Easy run' }, ['ana']).reps // 4
 */
export const freshDrillSet = (id: string, work: Work, athleteIds: readonly string[]): DrillSet => ({
  ...structuredClone(FRESH as unknown as DrillSet),
  vary: structuredClone(AS_PLANNED.vary) as DrillSet['vary'],
  id,
  work,
  athleteIds: [...athleteIds],
});

/** Who may take part in something on a day: nobody who is archived or barred from what it asks. */
export const mayRun = <P extends Pick<Athlete, 'archived' | 'restrictions'>>(
  loads: readonly Load[],
  people: readonly P[],
  on: string,
): P[] => people.filter((person) => !person.archived && !barredBy(loads, person.restrictions, on));

/** A drill set as it was kept before sets could vary: one plan, at one pace, on one side or both. */
export type OlderDrillSet = {
  id: string;
  approachId: string;
  athleteIds: string[];
  pace?: number;
  sides?: Side[];
  sets: number;
  reps: number;
  restS: number;
  setRestS: number;
};

/**
 * A drill set as it is now, from one that may be older: of a file, a draft, or a phone.
 *
 * @example
 * asDrillSet({ id: 's', approachId: 'a', athleteIds: ['ana'], sets: 1, reps: 3, restS: 60, setRestS: 0 }).vary.paces
 * // [1]
 */
export const asDrillSet = (set: DrillSet | OlderDrillSet): DrillSet => {
  if ('work' in set) {
    // Before sets had spots, and ways of teaching.
    const { spots, ways } = set.vary as Partial<DrillSet['vary']>;
    return spots && ways ? set : { ...set, vary: { ...AS_PLANNED.vary, ...set.vary } };
  }
  const { id, approachId, athleteIds, sets, reps, restS, setRestS } = set;
  const fresh = freshDrillSet(id, { kind: 'plan', approachId }, athleteIds ?? []);
  const vary = { ...fresh.vary, sides: set.sides ?? ['own' as const], paces: [set.pace ?? 1] };
  return { ...fresh, sets, reps, restS, setRestS, vary };
};
