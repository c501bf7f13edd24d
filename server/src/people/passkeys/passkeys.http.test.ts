import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { ChangeReply } from '#contract/changes';
import type { NewPasskeyOptionsReply, PasskeyOptionsReply, PasskeyReply, SessionReply } from '#contract/people';
import type { Problem } from '#contract/problems';
import { TestAuthenticator } from '../../../test/test-authenticator.js';
import { clientOf, startTestServer, type TestClient, type TestServer } from '../../../test/test-server.js';

let server: TestServer;
let teacher: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  teacher = await server.as('harun');
});
afterAll(() => server.stop());

const at = (over: object = {}) => ({ origin: server.address, ...over });
const keys = async (client = teacher) => (await client.get<PasskeyReply[]>('/session/passkeys')).body;
const asked = async (client = teacher) =>
  (await client.send<NewPasskeyOptionsReply>('POST', '/session/passkeys/options')).body;
const add = <Body = PasskeyReply[]>(response: object, client = teacher, name = 'My laptop') =>
  client.send<Body>('POST', '/session/passkeys', { name, response });

/** Somebody at the sign-in page, whom the server knows by a cookie once a device was asked. */
async function visitor() {
  const answer = await server.nobody.send<PasskeyOptionsReply>('POST', '/session/passkey/options');
  const client = clientOf(server.address, answer.headers.getSetCookie()[0]!.split(';')[0]!, '');
  const signIn = <Body = SessionReply>(response: object) => client.send<Body>('POST', '/session/passkey', { response });
  return { options: answer.body, signIn };
}

describe('a passkey', () => {
  let device: TestAuthenticator;
  beforeEach(async () => {
    await server.database.pool.query('DELETE FROM passkeys');
    device = new TestAuthenticator();
    await add(device.make(await asked(), at()));
  });

  it('signs in who has it, and says when it did last; the log names it', async () => {
    expect(await keys()).toMatchObject([{ name: 'My laptop', lastUsedAt: null }]);
    const { options, signIn } = await visitor();
    expect(options.allowCredentials ?? []).toEqual([]);
    const { status, body } = await signIn(device.show(options, at()));
    expect([status, body.person.name]).toEqual([201, 'Harun Nance']);
    expect((await keys())[0]!.lastUsedAt).toMatch(/^2026-01-21T/);
    const { rows } = await server.database.pool.query<{ after: object }>(
      `SELECT after FROM change_log WHERE action = 'sign in' ORDER BY id DESC LIMIT 1`,
    );
    expect(rows[0]!.after).toMatchObject({ passkey: 'My laptop' });
  });

  it.each<[string, (options: PasskeyOptionsReply) => object]>([
    [
      'for another site',
      (options) => device.show(options, { origin: 'https://wombat.example', host: 'wombat.example' }),
    ],
    ['from another page of the same name', (options) => device.show(options, { origin: 'http://127.0.0.1:1' })],
    ['without a finger, a face or a PIN', (options) => device.show(options, at({ isVerified: false }))],
    ['signed by another key', (options) => device.show(options, at(), new TestAuthenticator())],
    ['of a key that is not known', (options) => new TestAuthenticator().show(options, at())],
    ['to a challenge of its own', (options) => device.show({ ...options, challenge: 'AAAA' }, at())],
    ['without a signature', (options) => ({ ...device.show(options, at()), response: {} })],
    ['that is nothing', () => ({})],
    ['with a list for an id', () => ({ id: ['x'], response: null })],
  ])('does not sign in by an answer %s, and always says the same', async (_what, answer) => {
    const { options, signIn } = await visitor();
    const { status, body } = await signIn<Problem>(answer(options));
    expect([status, body.code]).toEqual([401, 'passkey-refused']);
  });

  it('answers each challenge once', async () => {
    const { options, signIn } = await visitor();
    const answer = device.show(options, at());
    expect((await signIn(answer)).status).toBe(201);
    expect((await signIn<Problem>(answer)).body.code).toBe('passkey-refused');
    const { signIn: another } = await visitor();
    expect((await another<Problem>(answer)).body.code).toBe('passkey-refused');
  });

  it('that counts back is a copy, and refused', async () => {
    const first = await visitor();
    device.counter = 9;
    expect((await first.signIn(device.show(first.options, at()))).status).toBe(201);
    const second = await visitor();
    device.counter = 3;
    expect((await second.signIn<Problem>(device.show(second.options, at()))).body.code).toBe('passkey-refused');
  });

  it('lets nobody in once it is removed, or the account is deactivated', async () => {
    await server.database.pool.query(`UPDATE accounts SET is_active = false WHERE username = 'harun'`);
    const { options, signIn } = await visitor();
    expect((await signIn<Problem>(device.show(options, at()))).body.code).toBe('passkey-refused');
    await server.database.pool.query(`UPDATE accounts SET is_active = true WHERE username = 'harun'`);
    const [{ id }] = (await keys()) as [PasskeyReply];
    const other = await server.as('mirela');
    expect((await other.send<Problem>('DELETE', `/session/passkeys/${id}`)).status).toBe(404);
    expect((await teacher.send<PasskeyReply[]>('DELETE', `/session/passkeys/${id}`)).body).toEqual([]);
    const after = await visitor();
    expect((await after.signIn<Problem>(device.show(after.options, at()))).body.code).toBe('passkey-refused');
    const history = await (await server.as('morwenna')).get<ChangeReply[]>('/log?thing=account%20harun');
    expect(JSON.stringify(history.body)).toMatch(/remove a passkey/);
  });

  it('is added by a device that was asked here and now, once, and not by one that checks nobody', async () => {
    const options = await asked();
    expect(options.excludeCredentials).toHaveLength(1);
    const second = new TestAuthenticator();
    const answer = second.make(options, at());
    expect((await add(answer)).status).toBe(201);
    expect((await add<Problem>(answer)).body.code).toBe('passkey-refused');
    expect((await add<Problem>(second.make(await asked(), at()))).body.code).toBe('passkey-refused');
    const unlocked = new TestAuthenticator().make(await asked(), at({ isVerified: false }));
    expect((await add<Problem>(unlocked)).body.code).toBe('passkey-refused');
    const elsewhere = new TestAuthenticator().make(await asked(), { origin: 'https://wombat.example' });
    expect((await add<Problem>(elsewhere)).body.code).toBe('passkey-refused');
    for (const nothing of [{}, { response: {} }, { id: 1, response: 'x' }]) {
      await asked();
      expect((await add<Problem>(nothing)).body.code).toBe('passkey-refused');
    }
    expect((await add<Problem>(answer, teacher, '')).body.errors.map(({ field }) => field)).toEqual(['name']);
    expect(await keys()).toHaveLength(2);
  });
});
