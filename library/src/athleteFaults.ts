import { faultTrend, type CueSchool, type FaultTrend } from '@gravek/core';
import { cueFor, type Cue } from './cue';
import type { FaultCount, Movement } from '@gravek/contract';

export type FaultPicture = {
  code: string;
  trend: FaultTrend;
  /** reps that showed it, over all sessions */
  seen: number;
};

/** How one athlete stands in one movement. */
export type AthleteFaults = {
  athleteId: string;
  movement: string;
  reps: number;
  sessions: number;
  /** the movement's faults that were ever seen, most frequent first */
  faults: FaultPicture[];
  cue: Cue | null;
};

/**
 * Follows every fault of one movement through the sessions of each athlete and chooses the one cue.
 *
 * @param counts of any athletes and movements, earliest session first
 */
export const athleteFaults = (
  movement: Movement,
  counts: readonly FaultCount[],
  school: CueSchool,
): AthleteFaults[] => {
  const byAthlete = new Map<string, FaultCount[]>();
  for (const count of counts) {
    if (count.movement !== movement.code) continue;
    byAthlete.set(count.athleteId, [...(byAthlete.get(count.athleteId) ?? []), count]);
  }
  return [...byAthlete].map(([athleteId, own]): AthleteFaults => {
    const faults = movement.faults
      .map(({ code }): FaultPicture => ({
        code,
        seen: own.reduce((sum, one) => sum + (one.faults[code] ?? 0), 0),
        trend: faultTrend(
          own.map((one) => ({
            date: one.date,
            reps: one.reps,
            faults: one.faults[code] ?? 0,
            cued: one.cues.includes(code),
          })),
        ),
      }))
      .filter((fault) => fault.seen > 0)
      .sort((a, b) => b.trend.now.rate - a.trend.now.rate);
    return {
      athleteId,
      movement: movement.code,
      reps: own.reduce((sum, one) => sum + one.reps, 0),
      sessions: own.length,
      faults,
      cue: cueFor(
        movement,
        school,
        faults.map(({ code, trend }) => ({ code, rate: trend.now.rate })),
      ),
    };
  });
};
