import {
  clubUpdate,
  memberInput,
  memberRole,
  type Club,
  type ClubSettings,
  type Me,
  type Member,
} from '@gravek/contract';
import { dayIn } from '@gravek/core';
import { sql } from 'kysely';
import { v7 as uuid } from 'uuid';
import type { Trx } from '../database/connect';
import { badInput, notFound } from '../http/problem';
import { route } from '../http/route';
import { settle, settleNew } from '../http/versioned';
import { hashPassword } from '../signIn/password';

const clubRow = async (trx: Trx, clubId: string): Promise<Club> => {
  const row = await trx
    .selectFrom('club')
    .select(['id', 'name', 'unit', 'cue_school', 'time_zone', 'version'])
    .where('id', '=', clubId)
    .executeTakeFirstOrThrow();
  return {
    id: row.id,
    name: row.name,
    unit: row.unit as ClubSettings['unit'],
    cueSchool: row.cue_school as ClubSettings['cueSchool'],
    timeZone: row.time_zone,
    version: row.version,
  };
};

const members = async (trx: Trx, accountId: string): Promise<Member[]> => {
  const rows = await trx
    .selectFrom('membership')
    .innerJoin('account', 'account.id', 'membership.account_id')
    .select(['membership.id', 'account_id', 'role', 'person', 'email'])
    .where('club_id', '=', sql<string>`gravek_club()`)
    .orderBy('person')
    .execute();
  return rows.map(({ id, account_id, role, person, email }) => ({
    id,
    role,
    person,
    email,
    you: account_id === accountId,
  }));
};

/** A club without an owner could never be changed again. */
const keepAnOwner = async (trx: Trx, memberId: string): Promise<void> => {
  const owners = await trx
    .selectFrom('membership')
    .select('id')
    .where('club_id', '=', sql<string>`gravek_club()`)
    .where('role', '=', 'owner')
    .forUpdate()
    .execute();
  if (owners.length === 1 && owners[0]!.id === memberId) {
    throw badInput({ role: 'A club needs an owner; make somebody else owner first.' });
  }
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
      return {
        accountId: who.accountId,
        person,
        role: who.role,
        club,
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
    method: 'get',
    path: '/members',
    access: 'assistant',
    run: ({ trx, who }) => members(trx, who.accountId),
  }),
  route({
    method: 'post',
    path: '/members',
    access: 'owner',
    body: memberInput,
    changes: 'club',
    run: async ({ trx, who, body }): Promise<Member[]> => {
      const all = await members(trx, who.accountId);
      const kept = all.find((one) => one.id === body.id);
      if (kept) {
        const { id, person, email, role } = body;
        settleNew('member', kept, { id, person, email, role });
        return all;
      }
      await sql`select set_config('gravek.email', ${body.email}, true)`.execute(trx);
      const known = await trx
        .selectFrom('account')
        .select('id')
        .where('email', '=', body.email)
        .executeTakeFirst();
      if (known) {
        const there = await trx
          .selectFrom('membership')
          .select('id')
          .where('club_id', '=', who.clubId)
          .where('account_id', '=', known.id)
          .executeTakeFirst();
        if (there) {
          throw badInput({ email: 'Somebody with this address is in the club already.' });
        }
        throw badInput({ email: 'This address has an account elsewhere; use another one here.' });
      }
      const accountId = uuid();
      await trx
        .insertInto('account')
        .values({
          id: accountId,
          email: body.email,
          person: body.person,
          password_hash: await hashPassword(body.password),
        })
        .execute();
      await trx
        .insertInto('membership')
        .values({ id: body.id, account_id: accountId, role: body.role })
        .onConflict((conflict) => conflict.columns(['club_id', 'id']).doNothing())
        .execute();
      return members(trx, who.accountId);
    },
  }),
  route({
    method: 'put',
    path: '/members/:id',
    access: 'owner',
    body: memberRole,
    changes: 'club',
    run: async ({ trx, who, params, body }): Promise<Member[]> => {
      if (body.role !== 'owner') await keepAnOwner(trx, params.id!);
      const { numUpdatedRows } = await trx
        .updateTable('membership')
        .set({ role: body.role })
        .where('club_id', '=', who.clubId)
        .where('id', '=', params.id!)
        .executeTakeFirst();
      if (numUpdatedRows === 0n) throw notFound('member');
      return members(trx, who.accountId);
    },
  }),
  route({
    method: 'delete',
    path: '/members/:id',
    access: 'owner',
    changes: 'club',
    run: async ({ trx, who, params }): Promise<Member[]> => {
      await keepAnOwner(trx, params.id!);
      await trx
        .deleteFrom('membership')
        .where('club_id', '=', who.clubId)
        .where('id', '=', params.id!)
        .execute();
      return members(trx, who.accountId);
    },
  }),
];
