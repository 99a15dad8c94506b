import { isSequence, type ClubFile } from '@gravek/contract';

/** A club file of version 2 or before: its reps do not say what they were of. */
type Before = Omit<ClubFile, 'reps'> & {
  reps: (Omit<
    ClubFile['reps'][number],
    'movement' | 'part' | 'turn' | 'leadFoot' | 'speedPct' | 'device' | 'deviceNo'
  > & { side: 'own' | 'other' })[];
};

/**
 * A club file as this version writes it. Reps of older files take what they were from the drill set and
 * approach that they name, in the order of the file.
 */
export const upgraded = (file: unknown): unknown => {
  const before = file as Before | null;
  if (typeof before?.version !== 'number' || before.version > 2 || !Array.isArray(before.reps))
    return file;
  const { approaches = [], sessions = [], clubId } = before;
  const plans = new Map(approaches.map((approach) => [approach.id, approach]));
  const sets = new Map(
    sessions.flatMap((session) => session.drillSets ?? []).map((set) => [set.id, set]),
  );
  return {
    ...before,
    reps: before.reps.map((rep, i) => {
      const set = sets.get(rep?.drillSetId);
      const plan = set && plans.get(set.approachId);
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
        device: clubId,
        deviceNo: i + 1,
      };
    }),
  };
};
