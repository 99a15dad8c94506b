import { shareMarks } from '@gravek/core/runup/setOut';
import { solveStraight } from '@gravek/core/runup/solveStraight';
import { compareStepCounts, type NearbyPlan, nearbyPlans } from '@gravek/core/runup/stepCounts';
import type { StraightInput, StraightPlan } from '@gravek/core/runup/straightPlan';

/** One athlete's ask, and the counts to choose from where each may take their own. */
export type SquadAsk = {
  athleteId: string;
  ask: StraightInput;
  /** null: the same count for everybody */
  counts: { from: number; to: number } | null;
  /** room before the target, metres; absent where nobody knows */
  laneM?: number | undefined;
  /** the approach's kind of load is not allowed for this athlete */
  barred: string | null;
};

export type SquadLine = {
  athleteId: string;
  ask: StraightInput;
  steps: number;
  plan: StraightPlan | null;
  /** why there is no plan */
  reason: 'wrong-foot' | 'too-short' | 'too-long' | null;
  /** why it must not be run */
  barred: string | null;
  /** what would work instead */
  nearby: NearbyPlan | null;
};

/** The same with another count; pins are of the steps of the one that they were set in. */
const withSteps = (ask: StraightInput, steps: number): StraightInput =>
  steps === ask.steps ? ask : { ...ask, steps, pins: [] };

/** The approach for one athlete of the squad, with the count that suits them best if they may choose. */
export const squadLine = ({ athleteId, ask, counts, laneM, barred }: SquadAsk): SquadLine => {
  const best = counts ? compareStepCounts(ask, counts.from, counts.to, laneM) : null;
  const steps = best?.recommended ?? ask.steps;
  const result = solveStraight(withSteps(ask, steps));
  const common = { athleteId, ask, steps, barred };
  if (!result.feasible) {
    const nearby = nearbyPlans({ ...ask, steps }, result)[0] ?? null;
    return { ...common, plan: null, reason: result.reason, nearby };
  }
  return { ...common, plan: result, reason: null, nearby: null };
};

/** The plan of an athlete who starts from a mark shared with others, or null where that cannot be run. */
const fromMark = ({ ask, steps }: SquadLine, atM: number): StraightPlan | null => {
  const result = solveStraight({ ...withSteps(ask, steps), distanceM: atM });
  return result.feasible ? result : null;
};

/** A start mark to tape, and each who starts there with the plan from just this mark. */
export type SquadMark = {
  atM: number;
  users: {
    line: SquadLine;
    plan: StraightPlan;
    /** own mark, and how far the shared one lies from it; farther out positive */
    ownM: number;
    givesM: number;
  }[];
};

/**
 * Start marks of a squad, nearest first. Neighbours share one where that costs nobody more than a
 * tolerance and everybody can run from it; who cannot keeps the own mark.
 *
 * @param toleranceM most that any mark may be moved, metres
 * @example
 * const ask = { model: body.model, takeoffFoot: 'left', steps: 12, absorb: 'early' };
 * const line = (distanceM) => ({ athleteId: 'ana', ask, steps: 12, plan: solveStraight({ ...ask, distanceM }) });
 * squadMarks([line(20), line(20.3)], 0.25).map(({ users }) => users.length) // [2]: both start at one mark
 */
export const squadMarks = (lines: readonly SquadLine[], toleranceM: number): SquadMark[] => {
  const feasible = lines.flatMap((line) => (line.plan ? [{ line, plan: line.plan }] : []));
  const shared = shareMarks(
    feasible.map((who) => ({ who, atM: who.plan.distanceM })),
    toleranceM,
  );
  return shared
    .flatMap(({ atM, users }): SquadMark[] => {
      const alone = users.map(({ who: { line, plan }, ownM }): SquadMark => ({
        atM: ownM,
        users: [{ line, plan, ownM, givesM: 0 }],
      }));
      if (users.length < 2) return alone;
      const moved = users.map(({ who: { line }, ownM, givesM }) => ({
        line,
        ownM,
        givesM,
        plan: fromMark(line, atM),
      }));
      const able = moved.flatMap(({ plan, ...user }) => (plan ? [{ ...user, plan }] : []));
      return [
        ...(able.length > 1 ? [{ atM, users: able }] : []),
        ...alone.filter((_, i) => able.length < 2 || moved[i]!.plan === null),
      ];
    })
    .sort((a, b) => a.atM - b.atM);
};

const WHY = {
  'wrong-foot': 'arrives on the other foot with this count from this foot.',
  'too-long': 'own steps do not reach that far with this count.',
  'too-short': 'own steps do not fit into so little with this count.',
};

/** Why an athlete is not on the sheet, in a sentence. */
export const whyNotShort = ({ barred, reason }: SquadLine): string =>
  barred ?? (reason ? WHY[reason] : '');
