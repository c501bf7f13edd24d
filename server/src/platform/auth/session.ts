import { randomBytes } from 'node:crypto';
import createStore from 'connect-pg-simple';
import session, { type SessionData } from 'express-session';
import type { RequestHandler } from 'express';
import type pg from 'pg';
import type { OpenDatabase } from '../database/open-database.js';

const minute = 60_000;
/** After so long without a request a session ends. */
const longestPause = 12 * 60 * minute;
/** That it is used is written at most so often: a request that only reads should not have to write. */
const betweenTouches = 5 * minute;
/** Sessions whose last touch is remembered; beyond them one more is written than need be. */
const mostRemembered = 10_000;

/** Sessions live in the database, so that a restart or a second server keeps everybody signed in. */
export async function createSessions({ pool }: OpenDatabase): Promise<RequestHandler> {
  const Store = createStore(session);
  class SparingStore extends Store {
    private readonly touched = new Map<string, number>();

    override touch(id: string, data: SessionData, done: () => void): void {
      const now = Date.now();
      if (now - (this.touched.get(id) ?? 0) < betweenTouches) return done();
      if (this.touched.size >= mostRemembered) this.touched.clear();
      this.touched.set(id, now);
      super.touch(id, data, done);
    }
  }
  return session({
    name: 'wombat',
    secret: await sessionSecret(pool),
    store: new SparingStore({ pool, tableName: 'sessions', pruneSessionInterval: 15 * 60 }),
    resave: false,
    saveUninitialized: false,
    rolling: true,
    cookie: { httpOnly: true, sameSite: 'strict', secure: 'auto', maxAge: longestPause },
  });
}

/** Made once for a database and kept in it. */
async function sessionSecret(pool: pg.Pool): Promise<string> {
  const { rows } = await pool.query<{ value: string }>(
    `INSERT INTO settings (key, value) VALUES ('session-secret', to_jsonb($1::text))
     ON CONFLICT (key) DO UPDATE SET key = excluded.key RETURNING value #>> '{}' AS value`,
    [randomBytes(32).toString('hex')],
  );
  return rows[0]!.value;
}
