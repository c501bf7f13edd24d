import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Problem } from '#contract/problems';
import { createApplication } from '#server/application';
import { clientOf, startTestServer, type TestServer } from '../../test/test-server.js';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());

const signIn = (username: string, password: string) =>
  server.nobody.send<Problem>('POST', '/session', { username, password });

describe('signing in', () => {
  it('gives a cookie that scripts cannot read and other sites cannot send', async () => {
    const answer = await signIn('Morwenna ', 'low-tide');
    expect(answer.status).toBe(201);
    expect(answer.headers.getSetCookie()[0]).toMatch(/^wombat=[^;]+;.*HttpOnly; SameSite=Strict/);
  });

  it('says the same of an unknown name as of a wrong password', async () => {
    const [unknown, wrong] = [await signIn('nobody', 'low-tide'), await signIn('morwenna', 'high-tide')];
    expect([unknown.status, unknown.body]).toEqual([wrong.status, wrong.body]);
    expect(wrong.body).toMatchObject({
      status: 401,
      code: 'sign-in-failed',
      type: 'urn:wombat:problem:sign-in-failed',
    });
    expect(wrong.headers.get('content-type')).toContain('application/problem+json');
  });

  it('names the field that is empty', async () => {
    const { status, body } = await signIn('', 'low-tide');
    expect([status, body.errors]).toEqual([422, [{ field: 'username', detail: 'type your sign-in name' }]]);
  });

  it('lists the people of the demo while its data is loaded', async () => {
    const { body } = await server.nobody.get<{ username: string }[]>('/session/demo-people');
    expect(body.map(({ username }) => username)).toEqual(['morwenna', 'harun']);
    await server.database.pool.query(`UPDATE settings SET key = 'demo-people-away' WHERE key = 'demo-people'`);
    expect((await server.nobody.get('/session/demo-people')).body).toEqual([]);
    await server.database.pool.query(`UPDATE settings SET key = 'demo-people' WHERE key = 'demo-people-away'`);
  });

  it('keeps no password in the database', async () => {
    const { rows } = await server.database.pool.query<{ password_hash: string }>('SELECT password_hash FROM accounts');
    for (const { password_hash } of rows) expect(password_hash).toMatch(/^\$argon2id\$/);
  });
});

describe('a session', () => {
  it('outlives the server, as it is kept in the database', async () => {
    const before = await signIn('harun', 'low-tide');
    const cookie = before.headers.getSetCookie()[0]!.split(';')[0]!;
    const second = await createApplication(server.database, server.clock);
    const http = await second.listen(0, '127.0.0.1');
    const client = clientOf(`http://127.0.0.1:${(http.address() as { port: number }).port}`, cookie, '');
    expect((await client.get('/session')).body).toMatchObject({ person: { name: 'Harun Nance', role: 'teacher' } });
    await second.close();
  });

  it('ends when the person signs out', async () => {
    const answer = await server.nobody.send<{ csrfToken: string }>('POST', '/session', {
      username: 'harun',
      password: 'low-tide',
    });
    const client = clientOf(server.address, answer.headers.getSetCookie()[0]!.split(';')[0]!, answer.body.csrfToken);
    expect((await client.send('DELETE', '/session')).status).toBe(204);
    expect((await client.get('/session')).status).toBe(401);
  });

  it('writes nothing without its own token, or for the page of another site', async () => {
    const registrar = await server.as('morwenna');
    const run = (headers: Record<string, string>) =>
      registrar.send<Problem>('POST', '/audit/runs', { periodId: 4 }, headers);
    expect((await run({ 'x-csrf-token': 'guessed' })).body.code).toBe('token-missing');
    expect((await run({ 'sec-fetch-site': 'cross-site' })).body.code).toBe('token-missing');
    expect((await run({ 'sec-fetch-site': 'same-origin' })).status).toBe(200);
  });
});

it('throttles whoever tries too often', async () => {
  const own = await startTestServer();
  const tries = [];
  for (let count = 0; count < 12; count++)
    tries.push(
      await own.nobody.send<Problem>('POST', '/session', { username: 'morwenna', password: `guess ${count}` }),
    );
  await own.stop();
  expect(tries.map(({ status }) => status)).toEqual([...Array(10).fill(401), 429, 429]);
  expect(tries.at(-1)!.body.code).toBe('too-many-tries');
});
