import type { Needs } from '@gravek/contract/run';
import { dayNumber } from '@gravek/core/days';
import type { Trx } from '../database/connect';
import { faultsOf } from '../faults/queries';
import { LADDER_DAYS, laddersIn } from '../faults/rungs';

/**
 * What the athletes of the club have to work on: their cues, how they fare on their ladders, and
 * which faults may be cleared.
 *
 * @param day yyyy-mm-dd; nothing later is looked at
 */
export const needsOn = async (trx: Trx, day: string): Promise<Needs> => {
  const people = await trx
    .selectFrom('athlete')
    .select('id')
    .where('archived_at', 'is', null)
    .execute();
  const faults = await faultsOf(
    trx,
    people.map((one) => one.id),
  );
  return {
    cues: faults.flatMap(({ athleteId, movement, cue }) =>
      cue ? [{ athleteId, movement, ...cue }] : [],
    ),
    away: faults.flatMap(({ athleteId, movement, lastDay, faults: own }) =>
      // Of what somebody has given up nobody asks whether it stays away.
      (dayNumber('day', day) - dayNumber('lastDay', lastDay) > LADDER_DAYS ? [] : own).flatMap(
        ({ code, state, lowSince }) =>
          lowSince !== null && state !== 'cleared' && state !== 'new'
            ? [{ athleteId, movement, fault: code, since: lowSince }]
            : [],
      ),
    ),
    ...(await laddersIn(trx, day, null)),
  };
};
