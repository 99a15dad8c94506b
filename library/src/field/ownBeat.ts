import { isSequence } from '@gravek/contract/choices';
import type { Call } from '@gravek/contract/drillSet';
import type { RunAthlete } from '@gravek/contract/run';
import { steadyTarget } from '../planning/steadyCadence';
import type { Base } from '../session/work';

/** A call with the beat of those it is for; how far apart their targets lie, where they do, steps a minute. */
export type OwnBeat = { call: Call | null; apartSpm: [least: number, most: number] | null };

/**
 * The beat of a call at the target that each holds in this week: of several who hold the same, theirs; of others the
 * one in the middle, and how far apart they lie. Whatever holds no target keeps the beat of the set.
 *
 * @param athletes who go at this call
 * @example ownBeat({ kind: 'tempo', cadenceSpm: 180 }, null, []) // { call: { kind: 'tempo', cadenceSpm: 180 }, apartSpm: null }
 */
export const ownBeat = (
  call: Call | null,
  base: Base | null,
  athletes: readonly Pick<RunAthlete, 'body'>[],
): OwnBeat => {
  const { movement, choices } = base ?? {};
  if (call?.kind !== 'tempo' || !movement) return { call, apartSpm: null };
  const cadence = choices && isSequence(choices) ? choices.cadence : null;
  const targets = athletes
    .flatMap(({ body }) => (body && steadyTarget(movement, cadence, body)) || [])
    .map(({ cadenceSpm }) => Math.round(cadenceSpm))
    .sort((a, b) => a - b);
  const middle = targets[Math.floor((targets.length - 1) / 2)];
  if (middle === undefined) return { call, apartSpm: null };
  const [least, most] = [targets[0]!, targets.at(-1)!];
  return { call: { ...call, cadenceSpm: middle }, apartSpm: least < most ? [least, most] : null };
};
