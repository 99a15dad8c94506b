import { compareWays, type WayCounts, type WayLook } from '@gravek/core/cue/compareWays';
import { pointedOutTo } from '@gravek/core/cue/manyLooks';
import { groupBy } from '@gravek/core/session/repLog';
import type { Condition, WayCheck } from '@gravek/contract/faults';
import type { Movement } from '@gravek/contract/movement';

/** Counts of reps of one athlete in one session, under one condition and taught by some ways. */
export type WayRow = WayCounts &
  Pick<Condition, 'part' | 'side' | 'speedPct' | 'rung' | 'exit'> & {
    athleteId: string;
    sessionId: string;
    /** each as `school:way` */
    ways: readonly string[];
  };

const together = (rows: readonly WayRow[]): WayCounts =>
  rows.reduce(
    (sum, row) => ({
      reps: sum.reps + row.reps,
      clean: sum.clean + row.clean,
      held: sum.held + row.held,
      heldS: sum.heldS + row.heldS,
      heard: sum.heard + row.heard,
      heardS: sum.heardS + row.heardS,
    }),
    { reps: 0, clean: 0, held: 0, heldS: 0, heard: 0, heardS: 0 },
  );

/** Seconds from a call are the better the fewer they are. */
const betterOf = ({ measure, a, b }: WayLook): 'a' | 'b' =>
  b.value > a.value === (measure !== 'reaction') ? 'b' : 'a';

/**
 * What a club's reps say of the ways in which a movement is taught, school by school, two ways at a time, with
 * all looks allowed for. Held against each other are reps of one athlete in one session, alike in drill, side,
 * speed, rung, exit and in the ways of all other schools: neither a better athlete nor a season's learning makes
 * a way look good.
 */
export const checkWays = (
  { schools }: Pick<Movement, 'schools'>,
  rows: readonly WayRow[],
): WayCheck => {
  const pairs = schools.flatMap(({ code, options }) => {
    const apart = groupBy(rows, (row) => {
      const other = row.ways.filter((way) => !way.startsWith(`${code}:`));
      const { athleteId, sessionId, part, side, speedPct, rung, exit } = row;
      return JSON.stringify([athleteId, sessionId, part, side, speedPct, rung, exit, other]);
    });
    const strata = (a: string, b: string) =>
      [...apart.values()].map((wayRows) => ({
        athlete: wayRows[0]!.athleteId,
        side: wayRows[0]!.side,
        a: together(wayRows.filter(({ ways }) => ways.includes(`${code}:${a}`))),
        b: together(wayRows.filter(({ ways }) => ways.includes(`${code}:${b}`))),
      }));
    return options.flatMap((a, i) =>
      options.slice(i + 1).map((b) => ({
        ...{ school: code, a: a.code, b: b.code },
        looks: compareWays(strata(a.code, b.code)),
      })),
    );
  });
  const limit = pointedOutTo(
    pairs.flatMap(({ looks }) => looks.flatMap(({ chance }) => chance ?? [])),
  );
  return {
    reps: rows.reduce((sum, row) => sum + row.reps, 0),
    pairs: pairs.map((pair) => ({
      ...pair,
      looks: pair.looks.map((look) => ({
        ...look,
        better: look.chance !== null && look.chance <= limit ? betterOf(look) : null,
      })),
    })),
  };
};
