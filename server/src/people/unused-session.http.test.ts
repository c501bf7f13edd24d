import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { SessionReply } from '#contract/people';
import { startTestServer, type TestServer } from '../../test/test-server.js';

const minute = 60_000;
let server: TestServer;
let cookie: string;
let told: number;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());

const ask = (headers: Record<string, string> = {}) =>
  fetch(`${server.address}/api/session`, { headers: { cookie, ...headers } });
const minutesLeft = async () => {
  const { rows } = await server.database.pool.query<{ expire: Date }>(
    `SELECT expire FROM sessions WHERE sess #>> '{signedIn,personId}' IS NOT NULL ORDER BY expire DESC LIMIT 1`,
  );
  return Math.round((rows[0]!.expire.getTime() - Date.now()) / minute);
};
const passes = (minutes: number) =>
  server.database.pool.query(
    `UPDATE sessions SET expire = expire - make_interval(mins => $1),
       sess = jsonb_set(sess::jsonb, '{cookie,expires}', to_jsonb(to_char((expire - make_interval(mins => $1)) AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')))`,
    [minutes],
  );

describe('a session that nobody uses', () => {
  beforeEach(async () => {
    await server.database.pool.query('DELETE FROM sessions');
    const answer = await server.nobody.send<SessionReply>('POST', '/session', {
      username: 'harun',
      password: 'low-tide',
    });
    told = answer.body.pauseSeconds;
    cookie = answer.headers.getSetCookie()[0]!.split(';')[0]!;
  });

  it('says how long it lasts, and is not made longer by what a page asks by itself', async () => {
    expect(told).toBe(2 * 60 * 60);
    await passes(100);
    expect((await ask({ 'x-wombat-unattended': '1' })).status).toBe(200);
    expect(await minutesLeft()).toBe(21);
    await passes(22);
    expect((await ask({ 'x-wombat-unattended': '1' })).status).toBe(401);
  });

  it('lasts as long again after each request of somebody who is there, also right after one of the page', async () => {
    await passes(100);
    await ask({ 'x-wombat-unattended': '1' });
    expect((await ask()).status).toBe(200);
    expect(await minutesLeft()).toBe(121);
  });

  it('is not made longer by events that a board waits for', async () => {
    await passes(100);
    const until = new AbortController();
    const events = await fetch(`${server.address}/api/board/events`, {
      headers: { cookie, accept: 'text/event-stream' },
      signal: until.signal,
    });
    expect(events.status).toBe(200);
    until.abort();
    expect(await minutesLeft()).toBe(21);
  });
});
