import { createReadStream } from 'node:fs';
import { loadClubFile, loadDemo } from './clubFile/load';
import { readConfig } from './config';
import { atDoor, checkRole, connect, isEmpty } from './database/connect';
import { migrate } from './operator/migrate';
import { StartFault } from './startFault';
import { isUnreachable } from './http/problem';
import { serve } from './serve';
import { makePasswordLink } from './signIn/link';
import { accountByEmail } from './signIn/account';

/**
 * One command line for the server: `prepare` migrates and says whether the database is empty,
 * `load FILE` loads a club file (`-` reads the input) and prints a link for each owner, `load-demo` loads
 * the demo from its input, `link E-MAIL` makes a link to a new password,
 * `serve` serves.
 */
const commands: Record<string, (args: string[]) => Promise<void>> = {
  prepare: async () => {
    const config = readConfig(process.env);
    if (config.ownerUrl) await migrate(config.ownerUrl);
    const { db } = connect(config.databaseUrl);
    try {
      await checkRole(db);
      process.stdout.write((await isEmpty(db)) ? 'empty\n' : 'filled\n');
    } finally {
      await db.destroy();
    }
  },
  load: async ([file]) => {
    if (!file) throw new StartFault('Say which club file to load.');
    const { db } = connect(readConfig(process.env).databaseUrl);
    try {
      const owners = await loadClubFile(db, file === '-' ? process.stdin : createReadStream(file));
      for (const { person, token, until } of owners) {
        process.stdout.write(
          `${person}, owner: /invitation#${token}\nOpen it at Gravek’s address, once, by ${until.toISOString()}.\n`,
        );
      }
    } finally {
      await db.destroy();
    }
  },
  'load-demo': async () => {
    const { db } = connect(readConfig(process.env).databaseUrl);
    try {
      await loadDemo(db, process.stdin);
    } finally {
      await db.destroy();
    }
  },
  link: async ([email = '']) => {
    const { db } = connect(readConfig(process.env).databaseUrl);
    try {
      const account = await accountByEmail(db, email.trim().toLowerCase());
      if (!account) throw new StartFault('Nobody has an account with that e-mail address.');
      const { token, until } = await atDoor(db, { accountId: account.id }, (trx) =>
        makePasswordLink(trx, account.id, null),
      );
      process.stdout.write(
        `/new-password#${token}\nOpen it at Gravek’s address, once, by ${until}.\n`,
      );
    } finally {
      await db.destroy();
    }
  },
  serve: async () => {
    const { stop } = await serve(readConfig(process.env));
    const leave = (): void => void stop().then(() => process.exit(0));
    process.once('SIGINT', leave);
    process.once('SIGTERM', leave);
    // The command that started this server holds the other end: if it dies, so does this.
    if (process.env.GRAVEK_PARENT === '1') process.stdin.resume().once('end', leave);
  },
};

const [name = 'serve', ...args] = process.argv.slice(2);
try {
  const command = commands[name];
  if (!command) throw new StartFault(`There is no command ${name}.`);
  await command(args);
} catch (error) {
  const readable =
    error instanceof StartFault
      ? error.message
      : isUnreachable(error)
        ? 'The database cannot be reached. Check DATABASE_URL and that the database runs.'
        : ((error as Error).stack ?? String(error));
  process.stderr.write(`gravek: ${readable}\n`);
  process.exit(1);
}
