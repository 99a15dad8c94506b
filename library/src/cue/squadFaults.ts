import { LIVE_RATE } from '@gravek/core/cue/faultHistory';
import type { SquadFault, SquadFaults } from '@gravek/contract/faults';
import type { Movement } from '@gravek/contract/movement';
import { drillFor, faultOf } from '../movement/byCode';

export type FaultLine = SquadFaults['items'][number];

/** A fault that several share, with the drill against it. */
export type SharedFault = {
  fault: Movement['faults'][number];
  athleteIds: string[];
  drill: Movement['drills'][number] | null;
};

const MOST_SHARED = 3;
/** Reps of four weeks under which nobody was watched enough to be judged. */
export const WATCHED_FROM = 10;
/** What was learnt and lost, or does not move, needs the coach more than what goes by itself. */
const URGENT = 1.5;
const GOING = 0.5;

const weightOf = (movement: Movement, { code, rate, state }: SquadFault): number => {
  const fault = faultOf(movement, code);
  if (!fault || rate < LIVE_RATE) return 0;
  const urgent = state === 'back' || state === 'stuck' ? URGENT : state === 'clearing' ? GOING : 1;
  return rate * (fault.safety ? fault.severity + 3 : fault.severity) * urgent;
};

/**
 * The squad in a movement by who most deserves the next session: rate by severity of the worst fault,
 * more where it is stuck, back or can hurt, less where it is clearing.
 */
export const byNeed = <L extends FaultLine>(movement: Movement, items: readonly L[]): L[] => {
  const need = new Map(
    items.map((item) => [
      item,
      Math.max(0, ...item.faults.map((fault) => weightOf(movement, fault))),
    ]),
  );
  return [...items].sort((a, b) => need.get(b)! - need.get(a)! || b.reps - a.reps);
};

/**
 * Why somebody deserves the next session: the fault that weighs most, how often it shows, and what makes it urgent.
 *
 * @example
 * const [fault] = gaps.faults;
 * whyNeeded(gaps, { faults: [{ code: fault.code, rate: 0.4, low: 0.3, high: 0.5, state: 'stuck' }] }).includes('40 % of reps')
 * // true
 */
export const whyNeeded = (movement: Movement, { faults }: FaultLine): string | null => {
  const [worst] = [...faults].sort((a, b) => weightOf(movement, b) - weightOf(movement, a));
  const fault = worst && weightOf(movement, worst) > 0 ? faultOf(movement, worst.code) : undefined;
  if (!fault) return null;
  const because = [
    `${fault.name.toLowerCase()} in ${Math.round(worst!.rate * 100)} % of reps`,
    ...(fault.safety ? ['can hurt'] : []),
    ...(worst!.state === 'stuck' ? ['the cue does nothing'] : []),
    ...(worst!.state === 'back' ? ['it had cleared'] : []),
  ];
  return because.join(', ');
};

/** The faults that most athletes share, those with one drill for all first among equals. */
export const sharedFaults = (movement: Movement, items: readonly FaultLine[]): SharedFault[] =>
  movement.faults
    .map((fault): SharedFault => ({
      fault,
      athleteIds: items
        .filter((item) =>
          item.faults.some(({ code, rate }) => code === fault.code && rate >= LIVE_RATE),
        )
        .map((item) => item.athleteId),
      drill: drillFor(movement, fault) ?? null,
    }))
    .filter(({ athleteIds }) => athleteIds.length > 1)
    .sort(
      (a, b) =>
        b.athleteIds.length - a.athleteIds.length ||
        Number(b.drill !== null) - Number(a.drill !== null) ||
        b.fault.severity - a.fault.severity,
    )
    .slice(0, MOST_SHARED);
