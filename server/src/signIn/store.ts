import connectPgSimple from 'connect-pg-simple';
import session from 'express-session';
import type pg from 'pg';
import { hashOf } from '../http/token';

const PgStore = connectPgSimple(session);

/** Sign-ins in the database, each under a hash of what its cookie holds. */
class HashedStore extends PgStore {
  override get(...[sid, then]: Parameters<InstanceType<typeof PgStore>['get']>): void {
    super.get(hashOf(sid), then);
  }
  override set(...[sid, sess, then]: Parameters<InstanceType<typeof PgStore>['set']>): void {
    super.set(hashOf(sid), sess, then);
  }
  override destroy(...[sid, then]: Parameters<InstanceType<typeof PgStore>['destroy']>): void {
    super.destroy(hashOf(sid), then);
  }
}

/** @param pool the connections over which sign-ins are read and kept */
export const signInStore = (pool: pg.Pool): session.Store =>
  new HashedStore({
    pool,
    tableName: 'http_session',
    pruneSessionInterval: false,
    // Being used does not make it last longer.
    disableTouch: true,
  });
