import type { SequenceChoices } from '@gravek/contract/approach';
import type { Movement, School } from '@gravek/contract/movement';
import { phasesOn } from './branches';

type Chosen = Pick<SequenceChoices, 'reads' | 'schools'>;

/** An exit that is not taken or a way of teaching that is not chosen, with what choosing it would make. */
export type OtherWay = Chosen & { code: string; name: string };

/**
 * Whether a way of teaching changes anything: steps, phases, faults, cues or what is looked at.
 *
 * @example giveGround.schools.map(({ options }) => options.some(hasEffect)) // [true, true]
 */
export const hasEffect = (option: School['options'][number]): boolean =>
  [
    option.changes,
    option.skips,
    option.without,
    option.faults,
    option.postures,
    option.turns,
    option.checkpoints,
  ].some((list) => (list?.length ?? 0) > 0);

/**
 * What can be laid over a movement as it is chosen: each other exit on its way, each other school.
 *
 * @example otherWays(giveGround, sequenceStart()).length // 4
 */
export const otherWays = (movement: Movement, { reads, schools }: Chosen): OtherWay[] => {
  const path = phasesOn(movement, { reads, schools });
  const exits = path.flatMap((phase, i): OtherWay[] =>
    (phase.read?.options ?? [])
      .filter((option) => option.to !== path[i + 1]?.code)
      .map((option) => ({
        code: `${phase.code}/${option.code}`,
        name: option.name,
        reads: { ...reads, [phase.code]: option.code },
        schools,
      })),
  );
  const taught = movement.schools.flatMap((school) => {
    const chosen = schools[school.code] ?? school.options[0]?.code;
    return school.options
      .filter((option) => option.code !== chosen && school.options.some(hasEffect))
      .map((option): OtherWay => ({
        code: `${school.code}/${option.code}`,
        name: option.name,
        reads,
        schools: { ...schools, [school.code]: option.code },
      }));
  });
  return [...exits, ...taught];
};
