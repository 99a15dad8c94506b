import type { AthleteFaults } from '@gravek/contract/faults';
import type { Needs } from '@gravek/contract/run';
import { dayNumber } from '@gravek/core/days';
import type { Trx } from '../database/connect';
import { faultsOf } from '../faults/queries';
import { presentIn } from './cues';
import { LADDER_DAYS, laddersIn } from '../faults/rungs';

/**
 * What the athletes of the club have to work on: their cues, how they fare on their ladders, and
 * which faults may be cleared.
 *
 * @param day yyyy-mm-dd; nothing later is looked at
 * @param faults how those stand who are not archived
 */
export const needsOf = async (
  trx: Trx,
  day: string,
  faults: readonly AthleteFaults[],
): Promise<Needs> => {
  return {
    cues: faults.flatMap(({ athleteId, movement, cue }) =>
      cue ? [{ athleteId, movement, ...cue }] : [],
    ),
    away: faults.flatMap(({ athleteId, movement, lastDay, faults: athleteFaults }) =>
      // Of what somebody has given up nobody asks whether it stays away.
      (dayNumber('day', day) - dayNumber('lastDay', lastDay) > LADDER_DAYS
        ? []
        : athleteFaults
      ).flatMap(({ code, state, lowSince }) =>
        lowSince !== null && state !== 'cleared' && state !== 'new'
          ? [{ athleteId, movement, fault: code, since: lowSince }]
          : [],
      ),
    ),
    ...(await laddersIn(trx, day, null)),
  };
};

/** As `needsOf`, of everybody who is not archived. */
export const needsOn = async (trx: Trx, day: string): Promise<Needs> =>
  needsOf(trx, day, await faultsOf(trx, await presentIn(trx)));
