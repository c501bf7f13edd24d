import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { LogReply, ReadingReply } from '#contract/changes';
import type { AccountsReply, SessionReply } from '#contract/people';
import type { SheetListReply } from '#contract/posting';
import type { Problem } from '#contract/problems';
import type { StudentReply } from '#contract/transcripts';
import { signIn, startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
let other: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await signIn(server.address, 'morwenna');
  other = await signIn(server.address, 'morwenna');
});
afterAll(() => server.stop());

const personOf = async (username: string) =>
  (await other.get<AccountsReply>('/schools/1/accounts')).body.accounts.find((one) => one.username === username)!
    .personId;
const seeAs = <Body = SessionReply>(client: TestClient, personId: number) =>
  client.send<Body>('POST', '/session/seeing', { personId });
const back = () => registrar.send<SessionReply>('DELETE', '/session/seeing');

describe('who sees as another person', () => {
  it('sees the sheets of that teacher and nothing more, in this session alone, and comes back', async () => {
    const seen = await seeAs(registrar, await personOf('harun'));
    expect([seen.status, seen.body.person.name, seen.body.seenBy]).toEqual([
      200,
      'Harun Nance',
      'Morwenna Oake, seeing as Harun Nance',
    ]);
    const teacher = await server.as('harun');
    const sheets = async (client: TestClient) => (await client.get<SheetListReply[]>('/grade-sheets?period=4')).body;
    expect(await sheets(registrar)).toEqual(await sheets(teacher));
    expect((await registrar.get('/students?school=1')).status).toBe(403);
    expect((await other.get<SessionReply>('/session')).body).toMatchObject({
      person: { name: 'Morwenna Oake' },
      seenBy: null,
    });
    expect((await back()).body).toMatchObject({ person: { name: 'Morwenna Oake' }, seenBy: null });
    expect((await registrar.get('/students?school=1')).status).toBe(200);
  });

  it('changes nothing, not even what that person may: neither grades, nor the password, nor by undoing', async () => {
    await seeAs(registrar, await personOf('harun'));
    const [list] = (await registrar.get<SheetListReply[]>('/grade-sheets?period=4')).body;
    const path = `/grade-sheets/${list!.sheets[0]!.sectionId}/${list!.itemId}/4`;
    expect((await registrar.get(path)).status).toBe(200);
    for (const [method, at, body] of [
      ['PUT', path, { changes: [] }],
      ['PUT', '/session/password', { current: 'low-tide', password: 'three boats and a lamp' }],
      ['POST', '/changes/1/undo', {}],
      ['POST', '/session/seeing', { personId: 1 }],
    ] as const) {
      const { status, body: problem } = await registrar.send<Problem>(method, at, body);
      expect([at, status, ['only-seeing', 'not-allowed'].includes(problem.code)]).toEqual([at, 403, true]);
    }
    await back();
  });

  it('is the one whom the log names, whatever is read meanwhile', async () => {
    const viewer = await personOf('sunniva');
    const [student] = (await other.get<StudentReply[]>('/students?school=1')).body;
    await seeAs(registrar, viewer);
    await registrar.get(`/students/${student!.id}/transcript`);
    await back();
    const readings = (await other.get<ReadingReply[]>(`/students/${student!.id}/readings`)).body;
    expect(readings[0]).toMatchObject({ actor: 'Morwenna Oake, seeing as Sunniva Holloway', part: 'transcript' });
    const log = await other.get<LogReply>('/log?thing=account%20sunniva');
    expect(log.body.entries.map(({ actor, action }) => [actor, action])).toEqual([
      ['Morwenna Oake', 'see what they see'],
    ]);
  });

  it('has a say in all roles of that person: a registrar of one school does not see as one of the district', async () => {
    const { pool } = server.database;
    await pool.query(
      `INSERT INTO account_roles (account_id, role, school_id) SELECT id, 'registrar', 1 FROM accounts WHERE username = 'ruben'`,
    );
    const ofOne = await signIn(server.address, 'ruben');
    const [morwenna, harun] = [await personOf('morwenna'), await personOf('harun')];
    expect((await seeAs<Problem>(ofOne, morwenna)).body.code).toBe('role-elsewhere');
    expect((await seeAs(ofOne, harun)).status).toBe(200);
    // Without the role the view is their own again.
    await pool.query(`DELETE FROM account_roles WHERE role = 'registrar' AND school_id = 1`);
    expect((await ofOne.get<SessionReply>('/session')).body).toMatchObject({
      person: { name: 'Ruben Varley' },
      seenBy: null,
    });
    expect((await seeAs<Problem>(await server.as('harun'), morwenna)).status).toBe(403);
    expect((await seeAs<Problem>(registrar, 999_999)).status).toBe(404);
  });
});
