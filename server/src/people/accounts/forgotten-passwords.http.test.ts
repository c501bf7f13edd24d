import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { MailReply } from '#contract/mail';
import type { SessionReply } from '#contract/people';
import type { Problem } from '#contract/problems';
import { startTestServer, type TestClient, type TestServer } from '../../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());
beforeEach(() => server.database.pool.query('DELETE FROM sign_in_tries'));

const ask = (name: string, host?: string) =>
  server.nobody.send<Problem>('POST', '/session/link/ask', { name }, host ? { 'x-forwarded-host': host } : {});
const mails = async () => (await registrar.get<MailReply[]>('/mails?school=1')).body;
const newest = async () => (await mails())[0]!;
const tokenIn = ({ body }: MailReply) => /(https?:\/\/\S+)\/welcome\/(\S+)/.exec(body)!;

describe('a forgotten password', () => {
  it('is chosen anew by a message to the address that the school has, which ends the sessions before', async () => {
    const before = await server.as('harun');
    const { status } = await ask(' Harun ');
    const mail = await newest();
    expect([status, mail.to, mail.subject]).toEqual([204, 'Harun Nance', 'A new password for Wombat']);
    const [, origin, token] = tokenIn(mail);
    expect(origin).toBe(server.address);
    const used = await server.nobody.send<SessionReply>('PUT', '/session/link', {
      token,
      password: 'seven tall masts and a bell',
    });
    expect([used.status, used.body.person.name]).toEqual([200, 'Harun Nance']);
    expect((await before.get('/session')).status).toBe(401);
    expect(
      (await server.nobody.send('PUT', '/session/link', { token, password: 'seven tall masts and a bell' })).status,
    ).toBe(404);
  });

  it('is asked for by address too; a newer link ends the one before', async () => {
    await ask('mirela');
    const all = async () => (await registrar.get<MailReply[]>('/mails?school=2')).body;
    const [first] = await all();
    await ask(first!.address.toUpperCase());
    const [second] = await all();
    expect(second!.to).toBe(first!.to);
    const look = async (mail: MailReply) =>
      (await server.nobody.send('POST', '/session/link', { token: tokenIn(mail)[2] })).status;
    expect([await look(first!), await look(second!)]).toEqual([404, 200]);
  });

  it('is answered the same, and as late, where there is no such account, no address or no way in', async () => {
    await server.database.pool.query(`UPDATE accounts SET is_active = false WHERE username = 'tobiah'`);
    await server.database.pool.query(
      `UPDATE people SET email = '' WHERE id = (SELECT person_id FROM accounts WHERE username = 'sunniva')`,
    );
    const written = (await mails()).length;
    for (const name of ['nobody-at-all', 'tobiah', 'sunniva', "' OR true --"]) {
      const began = Date.now();
      const { status, body } = await ask(name);
      expect([status, body]).toEqual([204, undefined]);
      expect(Date.now() - began).toBeGreaterThan(400);
    }
    expect(await mails()).toHaveLength(written);
  });

  it('is asked for three times an hour, of a name that there is not as well', async () => {
    for (const name of ['ottilie', 'nobody'])
      expect([
        ...(await Promise.all([ask(name), ask(name), ask(name)])).map(({ status }) => status),
        (await ask(name)).body.code,
      ]).toEqual([204, 204, 204, 'too-many-tries']);
  });

  it('leads nowhere that somebody made up', async () => {
    const written = (await mails()).length;
    expect((await ask('ruben', 'wombat.example')).status).toBe(204);
    expect(await mails()).toHaveLength(written);
    // Where a registrar of the district was as they sent links, people find Wombat.
    const [person] = (
      await server.database.pool.query<{ id: number }>(`SELECT person_id AS id FROM accounts WHERE username = 'ruben'`)
    ).rows;
    await registrar.send(
      'POST',
      '/schools/1/accounts/links',
      { personIds: [person!.id] },
      { 'x-forwarded-host': 'wombat.school.example' },
    );
    await ask('ruben', 'wombat.example');
    expect(tokenIn(await newest())[1]).toBe('http://wombat.school.example');
  });

  it('needs a name', async () => {
    expect((await ask('')).body.errors.map(({ field }) => field)).toEqual(['name']);
  });
});
