import type { Choices } from '@gravek/contract/approach';
import { isSequence } from '@gravek/contract/choices';
import type { ClubList } from '@gravek/contract/clubFile';
import type { DrillSet } from '@gravek/contract/drillSet';
import type { Rep } from '@gravek/contract/session';
import { withFaultPhases } from '@gravek/library/movement/olderMovement';
import { asDrillSet, type OlderDrillSet } from '@gravek/library/session/sessionFit';

type Given = Record<string, unknown>;
type Plan = { movement: string; choices: Choices };

/** What a rep of version 2 or before was of: its drill set and approach say it. */
const saidBy = (
  rep: Rep,
  i: number,
  set: OlderDrillSet | undefined,
  plan: Plan | undefined,
  device: unknown,
): Given | Rep => {
  // What names nothing that is there is refused by the check, with its place.
  if (!set || !plan) return rep;
  const { choices } = plan;
  return {
    ...rep,
    movement: plan.movement,
    part: isSequence(choices) ? choices.drill : null,
    turn:
      set.reps * (set.sides?.length ?? 1) * (rep.set - 1) +
      set.reps * Math.max(0, set.sides?.indexOf(rep.side) ?? 0) +
      rep.rep,
    leadFoot: null,
    speedPct: Math.round(choices.speedFraction * 100),
    device,
    deviceNo: i + 1,
  };
};

const isThing = (value: unknown): value is Given => typeof value === 'object' && value !== null;

/**
 * What an item of an older club file is as this version writes it, one after the other. Reps of the oldest
 * files take what they were from the drill set and approach that they name, which stand before them.
 *
 * @param version of the file
 * @param clubId under which reps without a device are numbered
 * @example
 * const upgraded = upgrader(2, clubId);
 * upgraded('sessions', session, 0); // { …session, drillSets: [{ work: { kind: 'plan', … }, … }] }
 */
export const upgrader = (version: number, clubId: unknown) => {
  const plans = new Map<unknown, Plan>();
  const sets = new Map<unknown, OlderDrillSet>();
  return (list: ClubList, item: unknown, i: number): unknown => {
    if (!isThing(item)) return item;
    if (version < 7 && list === 'movements') {
      const basedOn = isThing(item.basedOn) ? item.basedOn.code : null;
      return { ...item, movement: withFaultPhases(item.movement, basedOn as string | null) };
    }
    if (version > 3) return item;
    if (list === 'sessions' && Array.isArray(item.drillSets)) {
      const drillSets = (item.drillSets as unknown[]).map((set) => {
        if (!isThing(set) || !Array.isArray(set.sides)) return set;
        sets.set(set.id, set as unknown as OlderDrillSet);
        return asDrillSet(set as unknown as DrillSet | OlderDrillSet);
      });
      return { ...item, drillSets };
    }
    if (version > 2) return item;
    if (list === 'approaches' && isThing(item.choices)) plans.set(item.id, item as unknown as Plan);
    if (list !== 'reps') return item;
    const set = sets.get(item.drillSetId);
    return saidBy(item as unknown as Rep, i, set, set && plans.get(set.approachId), clubId);
  };
};
