import { Kysely, PostgresDialect } from 'kysely';
import { generate, PostgresDialect as Generating } from 'kysely-codegen';
import pg from 'pg';
import { expect, it } from 'vitest';
import columns from '../src/database/columnTypes.json' with { type: 'json' };
import { migrate } from '../src/operator/migrate';
import { emptyDatabase } from './setup';

it('types tables as the database has them; `npm run tables` writes them anew', async () => {
  const { ownerUrl } = await emptyDatabase();
  await migrate(ownerUrl);
  const db = new Kysely<never>({
    dialect: new PostgresDialect({ pool: new pg.Pool({ connectionString: ownerUrl, max: 1 }) }),
  });
  const types = await generate({
    ...columns,
    db,
    dialect: new Generating({ dateParser: 'string' }),
    excludePattern: '{http_session,kysely_*}',
  });
  await db.destroy();
  await expect(types).toMatchFileSnapshot('../src/database/tables.ts');
});
