import { randomBytes } from 'node:crypto';
import createStore from 'connect-pg-simple';
import session, { type Session, type SessionData } from 'express-session';
import type { Request, RequestHandler } from 'express';
import type pg from 'pg';
import type { OpenDatabase } from '../database/open-database.js';

const minute = 60_000;
/** That it is used is written at most so often: a request that only reads should not have to write. */
const betweenTouches = minute;
/** On a request that a page makes by itself, while nobody is at it; it does not make the session last longer. */
const unattendedHeader = 'x-wombat-unattended';
/** Sessions whose last touch is remembered; beyond them one more is written than need be. */
const mostRemembered = 10_000;

/**
 * Sessions live in the database, so that a restart or a second server keeps everybody signed in. One ends after that many
 * minutes in which nobody did anything: what a page asks by itself, as it does each minute and when told of a change, keeps
 * none open.
 */
export async function createSessions({ pool }: OpenDatabase, pauseMinutes: number): Promise<RequestHandler> {
  const Store = createStore(session);
  class SparingStore extends Store {
    private readonly touched = new Map<string, number>();

    override touch(id: string, data: SessionData, done: () => void): void {
      const now = Date.now();
      if (unattended.has(data)) return done();
      if (now - (this.touched.get(id) ?? 0) < betweenTouches) return done();
      if (this.touched.size >= mostRemembered) this.touched.clear();
      this.touched.set(id, now);
      super.touch(id, data, done);
    }
  }
  const handle = session({
    name: 'wombat',
    secret: await sessionSecret(pool),
    store: new SparingStore({ pool, tableName: 'sessions', pruneSessionInterval: 15 * 60 }),
    resave: false,
    saveUninitialized: false,
    rolling: true,
    cookie: { httpOnly: true, sameSite: 'strict', secure: 'auto', maxAge: pauseMinutes * minute + betweenTouches },
  });
  return (request, response, next) =>
    handle(request, response, (problem?: unknown) => {
      if (!problem && isUnattended(request)) leaveAsItIs(request.session);
      next(problem);
    });
}

/** For how many seconds a session lasts when nobody does anything; it is kept a little longer than that. */
export function pauseSecondsOf({ cookie }: Pick<SessionData, 'cookie'>): number {
  return (cookie.originalMaxAge! - betweenTouches) / 1000;
}

const unattended = new WeakSet<object>();

/** Asked by a page at which nobody typed or pointed lately, or kept open for what the server has to tell. */
function isUnattended(request: Request): boolean {
  return request.get(unattendedHeader) !== undefined || request.get('accept') === 'text/event-stream';
}

/** A request does not make it last longer. */
function leaveAsItIs(of: Session): void {
  unattended.add(of);
  of.touch = () => of;
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
