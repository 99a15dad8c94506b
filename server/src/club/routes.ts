import {
  clubUpdate,
  memberInput,
  memberRole,
  type Club,
  type ClubSettings,
  type Me,
  type Member,
  type MemberInput,
  type PasswordLink,
} from '@gravek/contract';
import { dayIn } from '@gravek/core';
import { sql } from 'kysely';
import { v7 as uuid } from 'uuid';
import type { Trx } from '../database/connect';
import { badInput, notFound, refused } from '../http/problem';
import { route } from '../http/route';
import { settle, settleNew } from '../http/versioned';
import { makeLink } from '../signIn/link';
import { hashPassword, refuseCommon } from '../signIn/password';

const clubRow = async (trx: Trx, clubId: string): Promise<Club> => {
  const row = await trx
    .selectFrom('club')
    .select(['id', 'name', 'unit', 'cue_school', 'time_zone', 'limits', 'version'])
    .where('id', '=', clubId)
    .executeTakeFirstOrThrow();
  return {
    id: row.id,
    name: row.name,
    unit: row.unit as ClubSettings['unit'],
    cueSchool: row.cue_school as ClubSettings['cueSchool'],
    timeZone: row.time_zone,
    limits: row.limits,
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

const accountOf = async (trx: Trx, email: string): Promise<string | undefined> =>
  (await trx.selectFrom('account').select('id').where('email', '=', email).executeTakeFirst())?.id;

/** An account for somebody who has none; of several at once for one address the first makes it. */
const newAccount = async (trx: Trx, { email, person, password }: MemberInput): Promise<string> => {
  await refuseCommon('password', password, [person, email]);
  await trx
    .insertInto('account')
    .values({ id: uuid(), email, person, password_hash: await hashPassword(password) })
    .onConflict((conflict) => conflict.column('email').doNothing())
    .execute();
  return (await accountOf(trx, email))!;
};

/** The account behind a membership of this club. */
const accountOfMember = async (trx: Trx, clubId: string, memberId: string): Promise<string> => {
  const member = await trx
    .selectFrom('membership')
    .select('account_id')
    .where('club_id', '=', clubId)
    .where('id', '=', memberId)
    .executeTakeFirst();
  if (!member) throw notFound('member');
  return member.account_id;
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
        // Who has an account already keeps the name it goes by.
        const { id, email, role } = body;
        settleNew('member', kept, { id, email, role });
        return all;
      }
      await sql`select set_config('gravek.email', ${body.email}, true)`.execute(trx);
      const known = await accountOf(trx, body.email);
      const there =
        known &&
        (await trx
          .selectFrom('membership')
          .select('id')
          .where('club_id', '=', who.clubId)
          .where('account_id', '=', known)
          .executeTakeFirst());
      if (there) throw badInput({ email: 'Somebody with this address is in the club already.' });
      const accountId = known ?? (await newAccount(trx, body));
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
      const removed = await trx
        .deleteFrom('membership')
        .where('club_id', '=', who.clubId)
        .where('id', '=', params.id!)
        .returning('account_id')
        .executeTakeFirst();
      // Who belongs to no club any more is not kept.
      if (removed) await sql`select gravek_end_account(${removed.account_id})`.execute(trx);
      return members(trx, who.accountId);
    },
  }),
  route({
    method: 'post',
    path: '/members/:id/link',
    access: 'owner',
    run: async ({ trx, who, params }): Promise<PasswordLink> => {
      const account_id = await accountOfMember(trx, who.clubId, params.id!);
      const { rows } = await sql<{ elsewhere: boolean }>`
        select gravek_is_elsewhere(${account_id}) as elsewhere`.execute(trx);
      if (rows[0]!.elsewhere) {
        throw refused(
          403,
          'This person belongs to another club too, so no single club may open the account. Whoever runs the server can make a link.',
        );
      }
      return makeLink(trx, account_id);
    },
  }),
];
