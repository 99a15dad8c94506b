import { isSequence, type Choices, type ClubFile, type Rep } from '@gravek/contract';
import { asDrillSet, type OlderDrillSet } from '@gravek/library';

type Given = Record<string, unknown>;

/** What a rep of version 2 or before was of: its drill set and approach say it. */
const saidBy = (
  rep: Rep,
  i: number,
  set: OlderDrillSet | undefined,
  plan: { movement: string; choices: Choices } | undefined,
  device: string,
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

/**
 * A club file as this version writes it. Reps of the oldest files take what they were from the drill set
 * and approach that they name, in the order of the file.
 */
export const upgraded = (file: unknown): unknown => {
  const before = file as ClubFile | null;
  if (typeof before?.version !== 'number' || before.version > 3 || !Array.isArray(before.reps))
    return file;
  const { approaches = [], sessions = [], clubId } = before;
  const plans = new Map(approaches.map((approach) => [approach.id, approach]));
  const setsBefore = sessions.flatMap(
    (session) => (session.drillSets ?? []) as unknown as OlderDrillSet[],
  );
  const sets = new Map(setsBefore.map((set) => [set?.id, set]));
  return {
    ...before,
    sessions: sessions.map((session) => ({
      ...session,
      drillSets: (session.drillSets as unknown as OlderDrillSet[] | undefined)?.map((set) =>
        Array.isArray(set?.sides) ? asDrillSet(set) : set,
      ),
    })),
    reps:
      before.version > 2
        ? before.reps
        : before.reps.map((rep, i) => {
            const set = sets.get(rep?.drillSetId);
            return saidBy(rep, i, set, set && plans.get(set.approachId), clubId);
          }),
  };
};
