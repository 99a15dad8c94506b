import { cueChoiceInput, drillChoiceInput, rungChoiceInput } from '@gravek/contract/coachChoices';
import { mustAthlete } from '../athletes/queries';
import { route } from '../http/route';
import { causesIn } from './causes';
import { ledgerOf } from './ledger';
import { progressIn } from './progress';
import { chooseCue, faultsOf } from './queries';
import { chooseRung } from './rungs';
import { squadFaults } from './squad';
import { waysIn } from './ways';

export const faultRoutes = [
  route({
    method: 'get',
    path: '/faults',
    access: 'assistant',
    run: ({ trx, today, query }) => squadFaults(trx, query.movement, today),
  }),
  route({
    method: 'get',
    path: '/causes/:movement',
    access: 'assistant',
    run: ({ trx, today, params }) => causesIn(trx, params.movement!, today),
  }),
  route({
    method: 'get',
    path: '/ways/:movement',
    access: 'assistant',
    run: ({ trx, today, params }) => waysIn(trx, params.movement!, today),
  }),
  route({
    method: 'get',
    path: '/progress/:movement',
    access: 'assistant',
    run: async ({ trx, today, params }) => ({
      items: await progressIn(trx, params.movement!, today),
      next: null,
    }),
  }),
  route({
    method: 'get',
    path: '/athletes/:id/faults',
    access: 'assistant',
    run: async ({ trx, params }) => {
      await mustAthlete(trx, params.id!);
      return { items: await faultsOf(trx, [params.id!]), next: null };
    },
  }),
  route({
    method: 'get',
    path: '/athletes/:id/ledger/:movement',
    access: 'assistant',
    run: ({ trx, today, params, query }) =>
      ledgerOf(trx, { athleteId: params.id!, movement: params.movement!, today }, query),
  }),
  route({
    method: 'post',
    path: '/athletes/:id/cues',
    access: 'coach',
    body: cueChoiceInput,
    changes: 'reps',
    run: async ({ trx, who, today, params, body }) => {
      await mustAthlete(trx, params.id!);
      await chooseCue(trx, who.accountId, params.id!, { ...body, day: today });
    },
  }),
  route({
    method: 'post',
    path: '/athletes/:id/rungs',
    access: 'coach',
    body: rungChoiceInput,
    changes: 'reps',
    run: async ({ trx, who, today, params, body }) => {
      await mustAthlete(trx, params.id!);
      await chooseRung(trx, who.accountId, params.id!, { ...body, day: today });
    },
  }),
  route({
    method: 'post',
    path: '/athletes/:id/drills',
    access: 'coach',
    body: drillChoiceInput,
    changes: 'reps',
    run: async ({ trx, who, today, params, body }) => {
      await mustAthlete(trx, params.id!);
      await chooseRung(trx, who.accountId, params.id!, { ...body, day: today });
    },
  }),
];
