import { movementInput, movementUpdate } from '@gravek/contract/movementSchema';
import { ruleSetInput, ruleSetUpdate } from '@gravek/contract/ruleSet';
import { sql } from 'kysely';
import type { Trx } from '../database/connect';
import { awayRoute } from '../deeds/away';
import { notFound } from '../http/problem';
import { route } from '../http/route';
import { settle, settleNew } from '../http/versioned';
import { clubMovement, clubMovements, movementColumns, ruleSet, ruleSets } from './queries';

const mustMovement = async (trx: Trx, id: string) => {
  const movement = await clubMovement(trx, id);
  if (!movement) throw notFound('movement');
  return movement;
};

const mustRuleSet = async (trx: Trx, id: string) => {
  const rules = await ruleSet(trx, id);
  if (!rules) throw notFound('rule set');
  return rules;
};

/** The code of a club's movement is its id, whatever the file or form said. */
const underId = <T extends { movement: object }>(body: T, id: string): T => ({
  ...body,
  movement: { ...body.movement, code: id },
});

export const movementRoutes = [
  route({
    method: 'get',
    path: '/movements',
    access: 'assistant',
    run: async ({ trx }) => ({ items: await clubMovements(trx), next: null }),
  }),
  route({
    method: 'post',
    path: '/movements',
    access: 'coach',
    body: movementInput,
    changes: 'movements',
    run: async ({ trx, body }) => {
      const input = underId(body, body.id);
      const { numInsertedOrUpdatedRows } = await trx
        .insertInto('movement')
        .values({ id: body.id, ...movementColumns(input) })
        .onConflict((conflict) => conflict.columns(['club_id', 'id']).doNothing())
        .executeTakeFirst();
      if (!numInsertedOrUpdatedRows)
        return settleNew('movement', await clubMovement(trx, body.id), input);
      return mustMovement(trx, body.id);
    },
  }),
  route({
    method: 'put',
    path: '/movements/:id',
    access: 'coach',
    body: movementUpdate,
    changes: 'movements',
    run: async ({ trx, params, body }) => {
      const id = params.id!;
      const input = underId(body, id);
      const { numUpdatedRows } = await trx
        .updateTable('movement')
        .set({ ...movementColumns(input), version: body.version + 1, saved_at: sql`now()` })
        .where('id', '=', id)
        .where('version', '=', body.version)
        .executeTakeFirst();
      if (numUpdatedRows === 0n) return settle('movement', await clubMovement(trx, id), input);
      return mustMovement(trx, id);
    },
  }),
  awayRoute({
    path: '/movements/:id/away',
    table: 'movement',
    changes: 'movements',
    answer: mustMovement,
  }),
  route({
    method: 'get',
    path: '/rule-sets',
    access: 'assistant',
    run: async ({ trx }) => ({ items: await ruleSets(trx), next: null }),
  }),
  route({
    method: 'post',
    path: '/rule-sets',
    access: 'coach',
    body: ruleSetInput,
    changes: 'movements',
    run: async ({ trx, body }) => {
      const { id, name, note, rules } = body;
      const { numInsertedOrUpdatedRows } = await trx
        .insertInto('rule_set')
        .values({ id, name, note, rules: JSON.stringify(rules) })
        .onConflict((conflict) => conflict.columns(['club_id', 'id']).doNothing())
        .executeTakeFirst();
      if (!numInsertedOrUpdatedRows) return settleNew('rule set', await ruleSet(trx, id), body);
      return mustRuleSet(trx, id);
    },
  }),
  route({
    method: 'put',
    path: '/rule-sets/:id',
    access: 'coach',
    body: ruleSetUpdate,
    changes: 'movements',
    run: async ({ trx, params, body }) => {
      const id = params.id!;
      const { name, note, rules, version } = body;
      const { numUpdatedRows } = await trx
        .updateTable('rule_set')
        .set({ name, note, rules: JSON.stringify(rules), version: version + 1 })
        .where('id', '=', id)
        .where('version', '=', version)
        .executeTakeFirst();
      if (numUpdatedRows === 0n) return settle('rule set', await ruleSet(trx, id), body);
      return mustRuleSet(trx, id);
    },
  }),
  awayRoute({
    path: '/rule-sets/:id/away',
    table: 'rule_set',
    changes: 'movements',
    answer: mustRuleSet,
  }),
];
