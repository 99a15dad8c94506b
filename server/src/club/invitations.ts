import { invitationInput, type Invitation, type OnceLink } from '@gravek/contract/account';
import { sql } from 'kysely';
import type { Trx } from '../database/connect';
import { writeDown } from '../deeds/write';
import { badInput, notFound } from '../http/problem';
import { route } from '../http/route';
import { settleNew } from '../http/versioned';
import { freshLink } from '../http/token';
import { members } from './members';

/** Long enough to be passed on at the next session. */
export const INVITED_MS = 7 * 24 * 3600_000;

/** Who is invited, as it was typed; of whom there is an account nothing more is told. */
const invitations = async (trx: Trx): Promise<Invitation[]> => {
  const { rows } = await sql<Omit<Invitation, 'until'> & { until: Date | null }>`
    select i.id, i.person, i.email, i.role,
      case when g.id is null then null else i.until end as until
    from invitation i
    left join lateral gravek_invitation(i.token_hash) g on true
    order by i.person, i.id`.execute(trx);
  return rows.map((row) => ({ ...row, until: row.until?.toISOString() ?? null }));
};

export const invitationRoutes = [
  route({
    method: 'get',
    path: '/invitations',
    access: 'owner',
    run: ({ trx }) => invitations(trx),
  }),
  route({
    method: 'post',
    path: '/invitations',
    access: 'owner',
    again: true,
    body: invitationInput,
    changes: 'club',
    run: async ({ trx, who, body }): Promise<Invitation[]> => {
      const before = await invitations(trx);
      const kept = before.find(({ id }) => id === body.id);
      if (kept) {
        settleNew('invitation', kept, body);
        return before;
      }
      const here = await members(trx, who.accountId);
      if (here.some(({ email }) => email === body.email)) {
        throw badInput({ email: 'Somebody with this address is in the club already.' });
      }
      const { numInsertedOrUpdatedRows } = await trx
        .insertInto('invitation')
        .values({ ...body, made_by: who.accountId })
        .onConflict((conflict) => conflict.doNothing())
        .executeTakeFirst();
      if (!numInsertedOrUpdatedRows) {
        throw badInput({ email: 'This address is invited already; make a new link for it.' });
      }
      await writeDown(trx, who.accountId, 'invited', `${body.person}, ${body.email}, ${body.role}`);
      return invitations(trx);
    },
  }),
  route({
    method: 'post',
    path: '/invitations/:id/link',
    access: 'owner',
    again: true,
    changes: 'club',
    // A link whose answer was lost is made anew; only the last holds.
    run: async ({ trx, who, params }): Promise<OnceLink> => {
      const { token, ...kept } = freshLink(INVITED_MS);
      const invitation = await trx
        .updateTable('invitation')
        .set({ ...kept, made_by: who.accountId })
        .where('id', '=', params.id!)
        .returning(['person', 'role'])
        .executeTakeFirst();
      if (!invitation) throw notFound('invitation');
      const about = `${invitation.person}, ${invitation.role}`;
      await writeDown(trx, who.accountId, 'made an invitation link', about);
      return { token, until: kept.until.toISOString() };
    },
  }),
  route({
    method: 'delete',
    path: '/invitations/:id',
    access: 'owner',
    changes: 'club',
    run: async ({ trx, who, params }): Promise<Invitation[]> => {
      const taken = await trx
        .deleteFrom('invitation')
        .where('id', '=', params.id!)
        .returning(['person', 'email'])
        .executeTakeFirst();
      if (taken) {
        const about = `${taken.person}, ${taken.email}`;
        await writeDown(trx, who.accountId, 'took an invitation back', about);
      }
      return invitations(trx);
    },
  }),
];
