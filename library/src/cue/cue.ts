import { chooseCue, type CueSchool } from '@gravek/core/cue/chooseCue';
import { LIVE_RATE } from '@gravek/core/cue/faultHistory';
import type { Fault, Movement } from '@gravek/contract/movement';
import { faultOf, firstPhaseOf } from '../movement/byCode';

/** How often a fault of a movement shows, 0–1; faults that were never seen are left out. */
export type SeenRate = { code: string; rate: number; alone?: number };

export type Cue = {
  fault: Fault;
  rate: number;
  /** why this one and no other, as a sentence */
  reason: string;
};

const percent = (rate: number): string => `${Math.round(rate * 100)} %`;

const listed = (names: readonly string[]): string =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;

/**
 * The one cue for an athlete in a movement, by the club's school, or null when no fault shows often
 * enough to deserve one.
 */
export const cueFor = (
  movement: Movement,
  school: CueSchool,
  seen: readonly SeenRate[],
): Cue | null => {
  const rates = new Map(seen.map(({ code, rate }) => [code, rate]));
  const alone = new Map(seen.map((fault) => [fault.code, fault.alone]));
  const faults = movement.faults
    .filter((fault) => rates.has(fault.code))
    .map((fault) => ({
      code: fault.code,
      phase: firstPhaseOf(movement, fault),
      severity: fault.severity,
      safety: fault.safety,
      leadsTo: fault.leadsTo,
      rate: rates.get(fault.code)!,
      alone: alone.get(fault.code),
    }));
  const choice = chooseCue({ school, faults });
  const fault = choice.code === null ? undefined : faultOf(movement, choice.code);
  if (!fault) return null;
  const rate = rates.get(fault.code)!;
  const shows = `${fault.name} shows in ${percent(rate)} of reps`;
  const phase = movement.phases[firstPhaseOf(movement, fault)]!.name.toLowerCase();
  const followers = choice.causes.map((code) => faultOf(movement, code)!.name.toLowerCase());
  const others = faults.filter((fault) => fault.rate >= LIVE_RATE).length - 1;
  const reasons: Record<typeof choice.why, string> = {
    safety: `${shows} and can hurt; that comes first.`,
    'root-cause':
      followers.length > 0
        ? `${shows} and brings about: ${listed(followers)}.`
        : others > 0
          ? `${shows}; it weighs more than the ${others === 1 ? 'other live fault' : `${others} other live faults`} with what follows from them.`
          : `${shows}; no other fault does more often than ${percent(LIVE_RATE)}.`,
    'first-phase': `${shows}, and ${phase} comes before every other live fault.`,
    'most-frequent': `${shows}; counted by how grave it is, none shows more.`,
    none: '',
  };
  return { fault, rate, reason: reasons[choice.why] };
};
