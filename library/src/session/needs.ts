import { STAYS_AWAY_DAYS } from '@gravek/core/cue/faultHistory';
import { dayNumber } from '@gravek/core/days';
import { currentModel } from '@gravek/core/runup/currentModel';
import type { Athlete } from '@gravek/contract/athlete';
import type { Needs } from '@gravek/contract/run';
import type { Rung } from '@gravek/contract/rungs';
import { laddersOf } from '../cue/ladder';
import { faultOf } from '../movement/byCode';
import { RUNG_NAMES } from './setWords';
import type { Finds } from './work';

/** After so many days a measured run is due again. */
const RETEST_DAYS = 42;

export type Person = Pick<
  Athlete,
  'id' | 'squad' | 'archived' | 'restrictions' | 'trials' | 'heightM'
>;

/**
 * Since when somebody's measured run is missing or old, in words; null where it is not.
 *
 * @example measurementDue({ trials: [], heightM: 1.75 }, '2031-03-03') // 'never measured'
 */
export const measurementDue = (
  athlete: Pick<Athlete, 'trials' | 'heightM'>,
  today: string,
): string | null => {
  if (currentModel(athlete).source === 'estimate') return 'never measured';
  const days = dayNumber('today', today) - dayNumber('takenOn', athlete.trials[0]!.takenOn);
  const weeks = Math.floor(days / 7);
  return days > RETEST_DAYS ? `measured ${weeks} weeks ago` : null;
};

/** Something that one athlete has to work on. */
export type Need = {
  athleteId: string;
  kind: 'cue' | 'rung' | 'check' | 'away';
  /** the same for all who have the same to do */
  what: string;
  movement: string | null;
  /** of a cue, and of what was cleared */
  fault: string | null;
  /** of a ladder: where to */
  rung: Rung | null;
  weight: number;
};

/**
 * What athletes have to work on: their cues, rungs that they are ready for or too high on, tests due, and
 * whether what a cue has cleared stays away.
 */
export const needsOf = (
  athletes: readonly Person[],
  needs: Needs,
  movementOf: Finds['movementOf'],
  on: string,
): Need[] => {
  const present = new Set(athletes.map((athlete) => athlete.id));
  const plain = { movement: null, fault: null, rung: null };
  const checks = athletes.flatMap((athlete): Need[] => {
    const due = measurementDue(athlete, on);
    const what = 'a measured run is due';
    return due
      ? [{ ...plain, athleteId: athlete.id, kind: 'check', what, weight: WEIGHTS.check }]
      : [];
  });
  const cues = needs.cues.flatMap(({ athleteId, movement: code, fault: cued }): Need[] => {
    const movement = movementOf(code);
    const fault = movement && faultOf(movement, cued);
    if (!fault || !present.has(athleteId)) return [];
    return [
      {
        ...{ ...plain, athleteId, kind: 'cue', movement: code, fault: cued },
        what: `“${fault.cue}”`,
        weight: CUE_WEIGHT + fault.severity + (fault.safety ? SAFETY_WEIGHT : 0),
      },
    ];
  });
  const rungs = laddersOf(needs, movementOf).flatMap(
    ({ athleteId, movement, rung, step, next }): Need[] => {
      if (step === 'stay' || !present.has(athleteId)) return [];
      const what =
        step === 'up' ? `ready for ${RUNG_NAMES[next]}` : `${RUNG_NAMES[rung]} is too high yet`;
      return [
        { ...plain, athleteId, kind: 'rung', what, movement, rung: next, weight: WEIGHTS.rung },
      ];
    },
  );
  const away = needs.away.flatMap(({ athleteId, movement: code, fault: gone, since }): Need[] => {
    const movement = movementOf(code);
    const fault = movement && faultOf(movement, gone);
    if (!fault || !present.has(athleteId)) return [];
    if (dayNumber('on', on) - dayNumber('since', since) < STAYS_AWAY_DAYS) return [];
    const what = `whether “${fault.name}” stays away`;
    return [
      {
        ...{ ...plain, athleteId, kind: 'away', movement: code, fault: gone, what },
        weight: WEIGHTS.away,
      },
    ];
  });
  return [...checks, ...cues, ...rungs, ...away];
};
export const WEIGHTS = { check: 2, rung: 3, away: 2 } as const;
export const CUE_WEIGHT = 2;
export const SAFETY_WEIGHT = 3;
