import type { OnceLink } from '@gravek/contract/account';
import { memberRole, type Member } from '@gravek/contract/club';
import { sql } from 'kysely';
import type { Trx } from '../database/connect';
import { writeDown } from '../deeds/write';
import { badInput, notFound, refused } from '../http/problem';
import { route } from '../http/route';
import { holdAccount, makePasswordLink } from '../signIn/link';

export const members = async (trx: Trx, accountId: string): Promise<Member[]> => {
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

/**
 * Who is behind an account's id in the log, also behind one that an archive has brought along.
 *
 * @returns null for somebody who is neither a member nor invited
 */
export const peopleOf = async (
  trx: Trx,
): Promise<(id: string | null) => { accountId: string; person: string } | null> => {
  // Who is invited has no account yet.
  const { rows } = await sql<{ id: string | null; formerly: string | null; person: string }>`
    select null as id, formerly, person from invitation where formerly is not null
    union all
    select m.account_id, m.formerly, a.person
    from membership m join account a on a.id = m.account_id where m.club_id = gravek_club()`.execute(
    trx,
  );
  const accounts = new Map<string | null, { accountId: string; person: string }>();
  const members = rows.filter(({ id }) => id !== null);
  for (const { formerly, person } of rows.filter(({ id }) => id === null)) {
    accounts.set(formerly, { accountId: formerly!, person });
  }
  for (const { id, formerly, person } of members) {
    const member = { accountId: id!, person };
    if (formerly) accounts.set(formerly, member);
    accounts.set(id, member);
  }
  return (id) => accounts.get(id) ?? null;
};

const memberOf = async (trx: Trx, clubId: string, memberId: string) => {
  const member = await trx
    .selectFrom('membership')
    .innerJoin('account', 'account.id', 'membership.account_id')
    .select(['account_id', 'role', 'person'])
    .where('club_id', '=', clubId)
    .where('membership.id', '=', memberId)
    .executeTakeFirst();
  if (!member) throw notFound('member');
  return member;
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

/** Ends what hangs on the part that somebody had: links that they gave, changes that they hear. */
const endWhatHangsOn = async (trx: Trx, accountId: string): Promise<void> => {
  await trx.deleteFrom('own_link').where('account_id', '=', accountId).execute();
};

export const memberRoutes = [
  route({
    method: 'get',
    path: '/members',
    access: 'assistant',
    run: ({ trx, who }) => members(trx, who.accountId),
  }),
  route({
    method: 'put',
    path: '/members/:id',
    access: 'owner',
    again: true,
    body: memberRole,
    changes: 'club',
    run: async ({ trx, who, params, body }): Promise<Member[]> => {
      const member = await memberOf(trx, who.clubId, params.id!);
      if (body.role !== 'owner') await keepAnOwner(trx, params.id!);
      if (body.role !== member.role) {
        await trx
          .updateTable('membership')
          .set({ role: body.role })
          .where('club_id', '=', who.clubId)
          .where('id', '=', params.id!)
          .execute();
        if (body.role === 'assistant') await endWhatHangsOn(trx, member.account_id);
        const about = `${member.person}: ${member.role} to ${body.role}`;
        await writeDown(trx, who.accountId, 'changed a role', about);
      }
      return members(trx, who.accountId);
    },
  }),
  route({
    method: 'delete',
    path: '/members/:id',
    access: 'owner',
    again: true,
    changes: 'club',
    run: async ({ trx, who, params }): Promise<Member[]> => {
      const all = await members(trx, who.accountId);
      const member = all.find(({ id }) => id === params.id);
      // One that is gone already has been removed before, and the answer was lost.
      if (!member) return all;
      await keepAnOwner(trx, params.id!);
      const { account_id } = await memberOf(trx, who.clubId, params.id!);
      await writeDown(trx, who.accountId, 'ended a membership', `${member.person}, ${member.role}`);
      await endWhatHangsOn(trx, account_id);
      await trx
        .deleteFrom('membership')
        .where('club_id', '=', who.clubId)
        .where('id', '=', params.id!)
        .execute();
      // Who belongs to no club any more is not kept.
      await sql`select gravek_end_account(${account_id})`.execute(trx);
      return members(trx, who.accountId);
    },
  }),
  route({
    method: 'post',
    path: '/members/:id/link',
    access: 'owner',
    again: true,
    run: async ({ trx, who, params }): Promise<OnceLink> => {
      const { account_id, person } = await memberOf(trx, who.clubId, params.id!);
      await holdAccount(trx, account_id);
      const { rows } = await sql<{ elsewhere: boolean }>`
        select gravek_is_elsewhere(${account_id}) as elsewhere`.execute(trx);
      if (rows[0]!.elsewhere) {
        throw refused(
          403,
          'This person belongs to another club too, so no single club may open the account. Whoever runs the server can make a link.',
        );
      }
      await writeDown(trx, who.accountId, 'made a password link', person);
      return makePasswordLink(trx, account_id, who.clubId);
    },
  }),
];
