import type { Movement, MovementPhase } from '@gravek/contract/movement';

/** What a coach with ten seconds looks at: where, at what, and what right looks like. */
export type Look = { phase: string; look: string; right: string };

const THREE = 3;

/**
 * The three things to look at on a way through a movement: in the phases of its gravest faults, one each,
 * in the order in which they come; more of the same phases where there are fewer.
 *
 * @param path the phases that are gone through
 * @example threeLooks(giveGround, giveGround.phases).length // 3
 */
export const threeLooks = (
  { faults }: Pick<Movement, 'faults'>,
  path: readonly MovementPhase[],
): Look[] => {
  const gravity = ({ code }: MovementPhase): number =>
    Math.max(
      0,
      ...faults
        .filter((fault) => fault.phases.includes(code))
        .map((fault) => fault.severity + (fault.safety ? 1 : 0)),
    );
  const ranked = path
    .filter((phase) => phase.checkpoints.length > 0)
    .sort((a, b) => gravity(b) - gravity(a));
  const looks = ranked.flatMap((phase) =>
    phase.checkpoints.map((checkpoint, i) => ({ phase, checkpoint, i })),
  );
  return looks
    .sort((a, b) => a.i - b.i || ranked.indexOf(a.phase) - ranked.indexOf(b.phase))
    .slice(0, THREE)
    .sort((a, b) => path.indexOf(a.phase) - path.indexOf(b.phase) || a.i - b.i)
    .map(({ phase, checkpoint: { look, right } }) => ({ phase: phase.name, look, right }));
};
