import { dayIn } from '@gravek/core/days';
import {
  ownCountsInput,
  type OwnCountsKept,
  ownLinkInput,
  ownViewAsk,
  type OwnLink,
  type OwnLinkKept,
} from '@gravek/contract/ownView';
import { check } from '@gravek/contract/problem';
import express, { Router } from 'express';
import { sql } from 'kysely';
import { athlete } from '../athletes/queries';
import { inClub, inClubReading, type Db, type Trx } from '../database/connect';
import { writeDown } from '../deeds/write';
import { badInput, notFound, refused } from '../http/problem';
import { route } from '../http/route';
import type { Limits } from '../signIn/attempts';
import { freshLink, hashOf } from '../http/token';
import { countedBy, storeCounts } from './counts';
import { listsOf, ownView } from './view';

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

/** What athletes have counted of themselves. */
export const ownCountRoutes = [
  route({
    method: 'get',
    path: '/athletes/:id/own-counts',
    access: 'assistant',
    run: async ({ trx, params }) => {
      await must(trx, params.id!);
      return { items: await countedBy(trx, params.id!) };
    },
  }),
];

type Found = { club: string; account: string; athlete: string; until: Date; guardian: boolean };

/** An own link that holds no more, or whose coach may not give it any more. */
const holdsNoMore = () => refused(404, 'This link holds no more. Ask your coach for a new one.');

/** Whose page a link opens; in the club of the coach who gave it. */
const linkBy = async (db: Db, token: string): Promise<Found> => {
  const { rows } = await sql<Found>`
    select club, account, athlete, until, guardian
    from gravek_own_link(${hashOf(token)})`.execute(db);
  if (!rows[0]) throw holdsNoMore();
  return rows[0];
};

/** Who gave a link must still be somebody who may. */
const mayStillGive = ({ role }: { role: string | null }): boolean =>
  role === 'owner' || role === 'coach';

/**
 * POST /own: the page of the athlete whose link it is. POST /own/counts: what the athlete has counted alone. Nobody
 * is signed in; the link itself is the key, and comes in the body so that it stands in no log.
 */
export const ownRouter = (db: Db, { oneByOne, byLink, byCounts }: Limits): Router => {
  const router = Router();
  router.post('/own', express.json({ limit: 1_000 }), byLink, oneByOne, async (req, res) => {
    const input = check(ownViewAsk, req.body as unknown);
    if (!input.ok) throw badInput(input.fields);
    const link = await linkBy(db, input.value.token);
    const view = await inClubReading(
      db,
      { clubId: link.club, accountId: link.account },
      async (trx, club) =>
        mayStillGive(club)
          ? ownView(trx, link.club, {
              athleteId: link.athlete,
              until: link.until.toISOString(),
              guardian: link.guardian,
              today: dayIn(club.timeZone, new Date()),
            })
          : null,
    );
    if (!view) throw holdsNoMore();
    res.json(view);
  });
  router.post(
    '/own/counts',
    express.json({ limit: 60_000 }),
    byCounts,
    oneByOne,
    async (req, res) => {
      const input = check(ownCountsInput, req.body as unknown);
      if (!input.ok) throw badInput(input.fields);
      const { token, counts } = input.value;
      const link = await linkBy(db, token);
      const kept = await inClub(
        db,
        { clubId: link.club, accountId: link.account },
        async (trx, club): Promise<OwnCountsKept | null> => {
          const viewer = await athlete(trx, link.athlete);
          if (!viewer || viewer.archived || !mayStillGive(club)) return null;
          if (viewer.minor && !link.guardian) return null;
          const lists = await listsOf(trx, viewer, dayIn(club.timeZone, new Date()));
          return storeCounts(trx, viewer.id, lists, counts);
        },
      );
      if (!kept) throw holdsNoMore();
      res.json(kept);
    },
  );
  return router;
};
