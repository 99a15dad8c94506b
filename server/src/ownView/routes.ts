import { dayIn } from '@gravek/core/days';
import { ownLinkInput, ownViewAsk, type OwnLink, type OwnLinkKept } from '@gravek/contract/ownView';
import { check } from '@gravek/contract/problem';
import express, { Router } from 'express';
import { sql } from 'kysely';
import { athlete } from '../athletes/queries';
import { inClubReading, type Db, type Trx } from '../database/connect';
import { writeDown } from '../deeds/write';
import { badInput, notFound, refused } from '../http/problem';
import { route } from '../http/route';
import type { Limits } from '../signIn/attempts';
import { freshLink, hashOf } from '../http/token';
import { ownView } from './view';

const must = async (trx: Trx, id: string) => {
  const found = await athlete(trx, id);
  if (!found) throw notFound('athlete');
  return found;
};

/** What a coach does with an athlete's link: gives it, and takes it back. */
export const ownLinkRoutes = [
  route({
    method: 'get',
    path: '/athletes/:id/own-link',
    access: 'coach',
    run: async ({ trx, params }): Promise<OwnLinkKept> => {
      await must(trx, params.id!);
      const link = await trx
        .selectFrom('own_link')
        .select('until')
        .where('athlete_id', '=', params.id!)
        .where('until', '>', sql<Date>`now()`)
        .executeTakeFirst();
      return { until: link?.until.toISOString() ?? null };
    },
  }),
  route({
    method: 'post',
    path: '/athletes/:id/own-link',
    access: 'coach',
    body: ownLinkInput,
    changes: 'athletes',
    // A link given before holds no more; one whose answer was lost is given anew.
    run: async ({ trx, params, who, body }): Promise<OwnLink> => {
      const { id, minor } = await must(trx, params.id!);
      if (minor && !body.guardian)
        throw badInput({
          guardian:
            'A guardian must agree for a minor. Give the birthday of somebody who is of age already.',
        });
      const { token, ...kept } = freshLink(body.days * 24 * 3600_000);
      const linkRow = { ...kept, account_id: who.accountId, guardian: body.guardian };
      await trx
        .insertInto('own_link')
        .values({ athlete_id: id, ...linkRow })
        .onConflict((conflict) => conflict.columns(['club_id', 'athlete_id']).doUpdateSet(linkRow))
        .execute();
      await writeDown(trx, who.accountId, 'gave an athlete’s link');
      return { token, until: linkRow.until.toISOString() };
    },
  }),
  route({
    method: 'delete',
    path: '/athletes/:id/own-link',
    access: 'coach',
    changes: 'athletes',
    run: async ({ trx, who, params }) => {
      const { numDeletedRows } = await trx
        .deleteFrom('own_link')
        .where('athlete_id', '=', params.id!)
        .executeTakeFirst();
      if (numDeletedRows > 0n) {
        await writeDown(trx, who.accountId, 'took an athlete’s link back');
      }
    },
  }),
];

type Found = { club: string; account: string; athlete: string; until: Date; guardian: boolean };

/**
 * POST /own: the page of the athlete whose link it is, read-only. Nobody is signed in; the link itself is
 * the key, and comes in the body so that it stands in no log.
 */
export const ownRouter = (db: Db, { oneByOne, byLink }: Limits): Router => {
  const router = Router();
  router.post('/own', express.json({ limit: 1_000 }), byLink, oneByOne, async (req, res) => {
    const input = check(ownViewAsk, req.body as unknown);
    if (!input.ok) throw badInput(input.fields);
    const { rows } = await sql<Found>`
      select club, account, athlete, until, guardian
      from gravek_own_link(${hashOf(input.value.token)})`.execute(db);
    const [link] = rows;
    const view =
      link &&
      (await inClubReading(
        db,
        { clubId: link.club, accountId: link.account },
        async (trx, { role, timeZone }) => {
          // Who gave it must still be somebody who may.
          if (role !== 'owner' && role !== 'coach') return null;
          return ownView(trx, link.club, {
            athleteId: link.athlete,
            until: link.until.toISOString(),
            guardian: link.guardian,
            today: dayIn(timeZone, new Date()),
          });
        },
      ));
    if (!view) throw refused(404, 'This link holds no more. Ask your coach for a new one.');
    res.json(view);
  });
  return router;
};
