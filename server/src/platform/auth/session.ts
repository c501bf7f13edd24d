import { randomBytes } from 'node:crypto';
import createStore from 'connect-pg-simple';
import session from 'express-session';
import type { RequestHandler } from 'express';
import type pg from 'pg';
import type { OpenDatabase } from '../database/open-database.js';

const twelveHours = 12 * 60 * 60 * 1000;

/** Sessions live in the database, so that a restart or a second server keeps everybody signed in. */
export async function createSessions({ pool }: OpenDatabase): Promise<RequestHandler> {
  const Store = createStore(session);
  return session({
    name: 'wombat',
    secret: await sessionSecret(pool),
    store: new Store({ pool, tableName: 'sessions', pruneSessionInterval: 15 * 60 }),
    resave: false,
    saveUninitialized: false,
    rolling: true,
    cookie: { httpOnly: true, sameSite: 'strict', secure: 'auto', maxAge: twelveHours },
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
