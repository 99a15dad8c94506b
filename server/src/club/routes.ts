import { clubUpdate, twoSteps, type Club, type ClubSettings, type Me } from '@gravek/contract/club';
import { dayIn } from '@gravek/core/days';
import type { Trx } from '../database/connect';
import { writeDown } from '../deeds/write';
import { refused } from '../http/problem';
import { route } from '../http/route';
import { settle } from '../http/versioned';

const clubRow = async (trx: Trx, clubId: string): Promise<Club> => {
  const row = await trx
    .selectFrom('club')
    .select([
      'id',
      'name',
      'unit',
      'cue_school',
      'time_zone',
      'limits',
      'owners_two_steps',
      'version',
    ])
    .where('id', '=', clubId)
    .executeTakeFirstOrThrow();
  return {
    id: row.id,
    name: row.name,
    unit: row.unit as ClubSettings['unit'],
    cueSchool: row.cue_school as ClubSettings['cueSchool'],
    timeZone: row.time_zone,
    limits: row.limits,
    ownersTwoSteps: row.owners_two_steps,
    version: row.version,
  };
};

export const clubRoutes = [
  route({
    method: 'get',
    path: '/me',
    access: 'assistant',
    run: async ({ trx, who }): Promise<Me> => {
      const club = await clubRow(trx, who.clubId);
      const { person } = await trx
        .selectFrom('account')
        .select('person')
        .where('id', '=', who.accountId)
        .executeTakeFirstOrThrow();
      const clubs = await trx
        .selectFrom('club')
        .innerJoin('membership', 'membership.club_id', 'club.id')
        .select(['club.id', 'club.name'])
        .where('membership.account_id', '=', who.accountId)
        .orderBy('club.name')
        .execute();
      return {
        accountId: who.accountId,
        person,
        role: who.role,
        club,
        clubs,
        today: dayIn(club.timeZone, new Date()),
      };
    },
  }),
  route({
    method: 'put',
    path: '/club',
    access: 'owner',
    body: clubUpdate,
    changes: 'club',
    run: async ({ trx, who, body }): Promise<Club> => {
      const changed = await trx
        .updateTable('club')
        .set({
          name: body.name,
          unit: body.unit,
          cue_school: body.cueSchool,
          time_zone: body.timeZone,
          limits: JSON.stringify(body.limits),
          version: body.version + 1,
        })
        .where('id', '=', who.clubId)
        .where('version', '=', body.version)
        .executeTakeFirst();
      const current = await clubRow(trx, who.clubId);
      return changed.numUpdatedRows > 0n ? current : settle('club', current, body);
    },
  }),
  route({
    method: 'put',
    path: '/club/two-steps',
    access: 'owner',
    again: true,
    body: twoSteps,
    changes: 'club',
    run: async ({ trx, who, body }): Promise<Club> => {
      const { totp_secret } = await trx
        .selectFrom('account')
        .select('totp_secret')
        .where('id', '=', who.accountId)
        .executeTakeFirstOrThrow();
      if (body.asked && totp_secret === null) {
        throw refused(409, 'Turn the second step on for yourself first, under Your account.');
      }
      const { numUpdatedRows } = await trx
        .updateTable('club')
        .set({ owners_two_steps: body.asked })
        .where('id', '=', who.clubId)
        .where('owners_two_steps', '!=', body.asked)
        .executeTakeFirst();
      if (numUpdatedRows > 0n) {
        const about = body.asked ? 'asked of owners' : 'asked of nobody';
        await writeDown(trx, who.accountId, 'changed who needs a second step', about);
      }
      return clubRow(trx, who.clubId);
    },
  }),
];
