import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Problem } from '#contract/problems';
import { createApplication } from '#server/application';
import {
  clientOf,
  signIn as signedIn,
  startTestServer,
  type TestClient,
  type TestServer,
} from '../../test/test-server.js';

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
    expect(body.map(({ username }) => username).slice(0, 2)).toEqual(['morwenna', 'harun']);
    expect(body).toHaveLength(7);
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
    expect((await client.get('/session')).body).toMatchObject({
      person: { name: 'Harun Nance', grants: [{ role: 'teacher', schoolId: 1 }] },
    });
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
    expect((await run({ 'sec-fetch-site': 'same-origin' })).status).toBe(202);
  });
});

describe('what somebody may do is asked of the database at each request', () => {
  const query = (text: string, values: readonly unknown[] = []) => server.database.pool.query(text, [...values]);
  const accountOf = async (username: string) =>
    (await query('SELECT id, password_hash FROM accounts WHERE username = $1', [username])).rows[0] as {
      id: number;
      password_hash: string;
    };
  const statuses = async (client: TestClient) => [
    (await client.get('/session')).status,
    (await client.get('/students?school=1')).status,
  ];

  it('so that a registrar who is one no longer reads no students from then on', async () => {
    const registrar = await signedIn(server.address, 'morwenna');
    const { id } = await accountOf('morwenna');
    await query(`UPDATE account_roles SET role = 'teacher' WHERE account_id = $1`, [id]);
    expect(await statuses(registrar)).toEqual([200, 403]);
    await query(`UPDATE account_roles SET role = 'registrar' WHERE account_id = $1`, [id]);
    expect(await statuses(registrar)).toEqual([200, 200]);
  });

  it('so that another password ends every session, and the old one with it', async () => {
    const registrar = await signedIn(server.address, 'morwenna');
    const { password_hash: before } = await accountOf('morwenna');
    const { password_hash: another } = await accountOf('harun');
    await query(`UPDATE accounts SET password_hash = $1 WHERE username = 'morwenna'`, [another]);
    expect(await statuses(registrar)).toEqual([401, 401]);
    await query(`UPDATE accounts SET password_hash = $1 WHERE username = 'morwenna'`, [before]);
  });

  it('so that an account that is gone is gone', async () => {
    const teacher = await signedIn(server.address, 'harun');
    const { id } = await accountOf('harun');
    const { rows } = await query(`DELETE FROM accounts WHERE username = 'harun' RETURNING *`);
    expect(await statuses(teacher)).toEqual([401, 401]);
    await query(`INSERT INTO accounts SELECT * FROM json_populate_record(NULL::accounts, $1)`, [rows[0]]);
    await query(`INSERT INTO account_roles (account_id, role, school_id) VALUES ($1, 'teacher', 1)`, [id]);
  });

  it('and a session has an end, however busily it is used', async () => {
    const registrar = await signedIn(server.address, 'morwenna');
    const begun = server.clock.now();
    for (let hour = 1; hour <= 24; hour += 1) {
      server.clock.setTo(new Date(begun.getTime() + hour * 3_600_000 - 60_000));
      expect((await registrar.get('/session')).status).toBe(200);
    }
    server.clock.setTo(new Date(begun.getTime() + 24 * 3_600_000 + 60_000));
    expect((await registrar.get('/session')).status).toBe(401);
    server.clock.setTo(begun);
  });
});

describe('tries to sign in', () => {
  let own: TestServer;
  beforeAll(async () => {
    own = await startTestServer();
  });
  afterAll(() => own.stop());
  const tryAs = (username: string, password: string, address = '203.0.113.7') =>
    own.nobody.send<Problem>('POST', '/session', { username, password }, { 'x-forwarded-for': address });
  const often = async (times: number, attempt: (count: number) => Promise<{ status: number; body: Problem }>) => {
    const answers = [];
    for (let count = 0; count < times; count++) answers.push(await attempt(count));
    return answers;
  };

  it('are ended for a name after ten wrong ones, from whatever address they come', async () => {
    const tries = await often(12, (count) => tryAs('morwenna', `guess ${count}`, `203.0.113.${count}`));
    expect(tries.map(({ status }) => status)).toEqual([...Array(10).fill(401), 429, 429]);
    expect(tries.at(-1)!.body).toMatchObject({
      code: 'too-many-tries',
      detail: 'Wait 15 minutes before you try again.',
    });
    expect((await tryAs('morwenna', 'low-tide')).status).toBe(429);
    expect((await tryAs('Harun', 'low-tide')).status).toBe(201);
  });

  it('are not counted where they succeed: a whole school may sign in from one address', async () => {
    const right = await often(15, () => tryAs('harun', 'low-tide', '203.0.113.50'));
    expect(right.map(({ status }) => status)).toEqual(Array(15).fill(201));
  });

  it('are ended for an address after a hundred wrong ones, of whatever names', async () => {
    await own.database.pool.query('DELETE FROM sign_in_tries');
    const wrong = await Promise.all(
      Array.from({ length: 100 }, (_, count) => tryAs(`somebody ${count}`, 'low-tide', '203.0.113.60')),
    );
    expect(new Set(wrong.map(({ status }) => status))).toEqual(new Set([401]));
    expect((await tryAs('harun', 'low-tide', '203.0.113.60')).status).toBe(429);
    expect((await tryAs('harun', 'low-tide', '203.0.113.61')).status).toBe(201);
  });

  it('leave an entry in the log each, with their address, but never what was typed for an unknown name', async () => {
    await tryAs('my-own-password', 'low-tide', '203.0.113.70');
    await tryAs('harun', 'high-tide', '203.0.113.70');
    await tryAs('harun', 'low-tide', '203.0.113.70');
    const { rows } = await own.database.pool.query<{ told: string }>(`
      SELECT concat_ws(' | ', actor, action, thing, change_id) AS told FROM change_log
      WHERE after->>'address' = '203.0.113.70' ORDER BY id`);
    expect(rows.map(({ told }) => told)).toEqual([
      'Not signed in | sign-in refused | account unknown',
      'Not signed in | sign-in refused | account harun',
      'Harun Nance | sign in | account harun',
    ]);
  });
});

it('signs in after a query failed, and its connection was given up for another one', async () => {
  await signIn('harun', 'low-tide');
  await expect(server.database.pool.query('SELECT no_such_column')).rejects.toThrow(/no_such_column/);
  const after = await server.nobody.send('POST', '/session', { username: 'harun', password: 'low-tide' });
  expect(after.status).toBe(201);
});
