import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { ChangeReply, LogReply } from '#contract/changes';
import type { MailReply } from '#contract/mail';
import type { AccountReply, AccountsReply, LinkReply, SentLinksReply, SessionReply } from '#contract/people';
import type { Problem } from '#contract/problems';
import { checkLog } from '../../../test/check-log.js';
import {
  clientOf,
  demoInstant,
  signIn,
  startTestServer,
  type TestClient,
  type TestServer,
} from '../../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());

/** Its é is two signs here and one where it is typed again. */
const passphrase = 'three boats and a lampe\u0301';
const accounts = async () => (await registrar.get<AccountsReply>('/schools/1/accounts')).body.accounts;
const withState = async (state: AccountReply['state']) => (await accounts()).filter((one) => one.state === state);
const send = <Body = SentLinksReply>(personIds: readonly number[]) =>
  registrar.send<Body>('POST', '/schools/1/accounts/links', { personIds });
const change = <Body = AccountsReply>({ personId, revision, grants }: AccountReply, over: object) =>
  registrar.send<Body>('PUT', `/schools/1/accounts/${personId}`, { revision, grants, isActive: true, ...over });
const letters = async () => (await registrar.get<MailReply[]>('/mails?school=1')).body;
const use = <Body = SessionReply>(token: string, password = passphrase) =>
  server.nobody.send<Body>('PUT', '/session/link', { token, password });
const look = (token: string) => server.nobody.send<LinkReply & Problem>('POST', '/session/link', { token });
/** Since the test began. */
const minutesSince = (instant: string | null) => (Date.parse(instant!) - demoInstant.getTime()) / 60_000;
const undo = (number: number | null) => registrar.send('POST', `/changes/${number}/undo`);
const current = ({ personId }: AccountReply, all: readonly AccountReply[]) =>
  all.find((one) => one.personId === personId)!;

/** Invites somebody who has no account yet, and answers with what the message says. */
async function invite() {
  const person = (await withState('none')).find(({ email }) => email !== '')!;
  const sent = await send([person.personId]);
  const letter = (await letters()).find(({ address }) => address === person.email)!;
  const [, token] = /\/welcome\/(\S+)/.exec(letter.body) as unknown as [string, string];
  return { person, sent, letter, token, account: current(person, sent.body.accounts) };
}

describe('the accounts of a school', () => {
  it('say who of the staff can sign in, and when each did last', async () => {
    const all = await accounts();
    const states = all.filter(({ username }) => username !== null);
    expect(states.map(({ username, grants, state }) => [username, grants, state])).toEqual(
      expect.arrayContaining([
        ['morwenna', [{ role: 'registrar', schoolId: null }], 'active'],
        ['harun', [{ role: 'teacher', schoolId: 1 }], 'active'],
      ]),
    );
    const { lastSignInAt } = states.find(({ username }) => username === 'morwenna')!;
    expect(Math.abs(minutesSince(lastSignInAt))).toBeLessThan(5);
    const teacher = await server.as('harun');
    expect((await teacher.get('/schools/1/accounts')).status).toBe(403);
    expect((await teacher.send('POST', '/schools/1/accounts/links', { personIds: [1] })).status).toBe(403);
  });

  it('are made by an invitation, whose link chooses the first password and signs in', async () => {
    const { person, sent, letter, token, account } = await invite();
    expect([sent.status, sent.body.sent, sent.body.skipped]).toEqual([200, 1, []]);
    expect([account.state, account.grants, account.username]).toEqual([
      'invited',
      [{ role: 'teacher', schoolId: 1 }],
      person.email.toLowerCase(),
    ]);
    expect(Math.abs(minutesSince(account.linkUntil) - 3 * 24 * 60)).toBeLessThan(5);
    expect([letter.subject, letter.body]).toEqual([
      'Your account in Wombat',
      expect.stringContaining(`Your sign-in name is ${account.username}.`),
    ]);
    expect((await look(token)).body).toMatchObject({ username: account.username, isFirst: true });

    const session = await use(token);
    expect([session.status, session.body.person]).toEqual([
      200,
      { personId: person.personId, name: expect.any(String) as unknown, grants: [{ role: 'teacher', schoolId: 1 }] },
    ]);
    const cookie = session.headers.getSetCookie()[0]!.split(';')[0]!;
    const teacher = clientOf(server.address, cookie, session.body.csrfToken);
    expect((await teacher.get('/grade-sheets?period=4')).status).toBe(200);
    expect([(await look(token)).status, (await use<Problem>(token)).body.code]).toEqual([404, 'link-gone']);
    const mine = await signIn(server.address, account.username!, passphrase.normalize('NFC'));
    expect((await mine.get('/session')).status).toBe(200);
    expect(current(person, await accounts())).toMatchObject({ state: 'active', linkUntil: null });
    const log = await registrar.get<LogReply>(`/log?thing=${encodeURIComponent(`account ${account.username}`)}`);
    expect(log.body.entries.map(({ action }) => action).slice(0, 4)).toEqual([
      'sign in',
      'sign in',
      'choose a first password',
      'write messages',
    ]);
    expect(await checkLog(registrar)).toMatchObject({ state: 'whole' });
  });

  it('an invitation is undone with its account, and its link is worth nothing', async () => {
    const before = await accounts();
    const { sent, token } = await invite();
    expect((await undo(sent.change)).status).toBe(200);
    expect([(await look(token)).status, await accounts()]).toEqual([404, before]);
  });

  it('a newer link ends the one before, and none lasts longer than three days', async () => {
    const { person, token } = await invite();
    await send([person.personId]);
    const second = (await letters())[0]!.body.match(/\/welcome\/(\S+)/)![1]!;
    expect([(await look(token)).status, (await look(second)).status]).toEqual([404, 200]);
    server.clock.setTo(new Date(demoInstant.getTime() + (3 * 24 * 60 + 10) * 60_000));
    expect((await use<Problem>(second)).body.code).toBe('link-gone');
    server.clock.setTo(demoInstant);
    expect((await look(second)).status).toBe(200);
  });

  it('whoever has no address gets no message and is named, and the others get theirs', async () => {
    const [first, second] = (await withState('none')).slice(0, 2);
    await server.database.pool.query(`UPDATE people SET email = '' WHERE id = $1`, [first!.personId]);
    const { body } = await send([first!.personId, second!.personId]);
    expect([body.sent, body.skipped]).toEqual([1, [{ personId: first!.personId, reason: 'no-address' }]]);
    expect([current(first!, body.accounts).state, current(second!, body.accounts).state]).toEqual(['none', 'invited']);
    expect((await send<Problem>([999_999])).status).toBe(404);
  });

  it.each([
    ['short', 'fourteen-signs', /^at least 15 signs/],
    ['common', 'passwordpassword', /^more that is your own/],
  ])('a %s password is refused, and the link still works', async (_what, password, says) => {
    const { token } = await invite();
    const refused = await use<Problem>(token, password);
    expect([refused.status, refused.body.errors?.map(({ field }) => field)]).toEqual([422, ['password']]);
    expect(refused.body.errors![0]!.detail).toMatch(says);
    expect((await use(token)).status).toBe(200);
  });

  it('of people with a say elsewhere are beyond a registrar of one school: their roles, and the links to them', async () => {
    const { pool } = server.database;
    await pool.query(
      `INSERT INTO account_roles (account_id, role, school_id) SELECT id, 'registrar', 1 FROM accounts WHERE username = 'ruben'`,
    );
    const ofOne = await server.as('ruben');
    const all = await accounts();
    const [morwenna, harun] = ['morwenna', 'harun'].map((name) => all.find(({ username }) => username === name)!);
    const ask = <Body>(personId: number) =>
      ofOne.send<Body>('POST', '/schools/1/accounts/links', { personIds: [personId] });
    const put = <Body>({ personId, revision }: AccountReply, grants: readonly object[]) =>
      ofOne.send<Body>('PUT', `/schools/1/accounts/${personId}`, { revision, grants, isActive: true });
    expect((await ask<SentLinksReply>(morwenna!.personId)).body.skipped).toEqual([
      { personId: morwenna!.personId, reason: 'role-elsewhere' },
    ]);
    expect((await put<Problem>(morwenna!, [{ role: 'teacher', schoolId: 1 }])).body.code).toBe('role-elsewhere');
    const viewer = { role: 'viewer', schoolId: 1 };
    expect((await put<Problem>(harun!, [viewer, { role: 'viewer', schoolId: 2 }])).body.code).toBe('role-elsewhere');
    expect((await put<Problem>(harun!, [{ role: 'registrar', schoolId: null }])).body.code).toBe('role-elsewhere');
    const given = await put<AccountsReply>(harun!, [viewer, ...harun!.grants!]);
    expect(current(harun!, given.body.accounts).grants).toEqual([...harun!.grants!, viewer]);
    await undo(given.change);

    await send([morwenna!.personId]);
    const [letter] = await letters();
    const seen = (await ofOne.get<MailReply[]>('/mails?school=1')).body;
    expect([letter!.about, seen.some(({ id }) => id === letter!.id)]).toEqual(['account morwenna', false]);
    expect((await ofOne.get(`/mails/${letter!.id}/message`)).status).toBe(404);
    expect((await registrar.get<Uint8Array>(`/mails/${letter!.id}/message`, 'bytes')).status).toBe(200);
    await pool.query(`DELETE FROM account_roles WHERE role = 'registrar' AND school_id = 1`);
  });

  it('that are deactivated end all sessions at once; let in again they have their password', async () => {
    const { person, token } = await invite();
    await use(token);
    const account = current(person, await accounts());
    const client = await signIn(server.address, account.username!, passphrase);
    const off = await change(account, { isActive: false });
    expect(current(person, off.body.accounts).state).toBe('deactivated');
    expect((await client.get('/session')).status).toBe(401);
    expect(
      (await server.nobody.send('POST', '/session', { username: account.username, password: passphrase })).status,
    ).toBe(401);
    expect((await send([person.personId])).body.skipped).toEqual([
      { personId: person.personId, reason: 'deactivated' },
    ]);
    const [latest] = (await registrar.get<ChangeReply[]>('/changes/mine')).body;
    expect(latest!.action).toMatch(/^deactivate the account of /);
    expect((await undo(off.change)).status).toBe(200);
    expect((await client.get('/session')).status).toBe(200);
  });

  it('the last registrar stays one, also of two who take it from one another', async () => {
    const morwenna = (await accounts()).find(({ username }) => username === 'morwenna')!;
    const teacher = { grants: [{ role: 'teacher', schoolId: 1 }] } as const;
    const ofOne = { grants: [{ role: 'registrar', schoolId: 1 }] } as const;
    for (const over of [teacher, ofOne, { isActive: false }]) {
      const refused = await change<Problem>(morwenna, over);
      expect([refused.status, refused.body.code]).toEqual([409, 'last-registrar']);
    }
    const { person, token } = await invite();
    await change(current(person, await accounts()), {
      grants: [{ role: 'registrar', schoolId: null }],
    });
    const invited = await change<Problem>(morwenna, teacher);
    expect([invited.status, invited.body.code]).toEqual([409, 'last-registrar']);
    await use(token);
    const other = current(person, await accounts());
    const both = await Promise.all([change(morwenna, teacher), change(other, teacher)]);
    expect(both.map(({ status }) => status).toSorted()).toEqual([
      200,
      expect.not.toSatisfy((status) => status === 200),
    ]);
    const { rows } = await server.database.pool.query(
      `SELECT 1 FROM accounts a JOIN account_roles r ON r.account_id = a.id
       WHERE r.role = 'registrar' AND r.school_id IS NULL AND a.is_active AND a.password_hash IS NOT NULL`,
    );
    expect(rows).toHaveLength(1);
    await server.database.pool.query(`UPDATE account_roles SET role = 'registrar', school_id = NULL
       WHERE account_id = (SELECT id FROM accounts WHERE username = 'morwenna')`);
  });

  it('change their own password, which ends their other sessions', async () => {
    const { person, token } = await invite();
    await use(token);
    const { username } = current(person, await accounts());
    const [here, there] = [
      await signIn(server.address, username!, passphrase),
      await signIn(server.address, username!, passphrase),
    ];
    const put = (body: object) => here.send<SessionReply & Problem>('PUT', '/session/password', body);
    const wrong = await put({ current: 'not it at all, no', password: 'five lamps on one boat' });
    expect(wrong.body.errors).toEqual([{ field: 'current', detail: 'your present password' }]);
    const changed = await put({ current: passphrase, password: 'five lamps on one boat' });
    expect(changed.status).toBe(200);
    const cookie = changed.headers.getSetCookie()[0]!.split(';')[0]!;
    expect((await clientOf(server.address, cookie, changed.body.csrfToken).get('/session')).status).toBe(200);
    expect((await there.get('/session')).status).toBe(401);
  });

  it('keep no link that can be read, and no password', async () => {
    const { rows } = await server.database.pool.query<{ token_hash: string }>('SELECT token_hash FROM account_links');
    for (const { token_hash } of rows) expect(token_hash).toMatch(/^[0-9a-f]{64}$/);
    const log = await server.database.pool.query(
      'SELECT 1 FROM change_log WHERE position($1 in coalesce(after::text, $2)) > 0',
      [passphrase, ''],
    );
    expect(log.rows).toEqual([]);
  });
});
