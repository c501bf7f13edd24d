import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { usualView, type OwnView } from '#core/people';
import type { AccountsReply, SessionReply } from '#contract/people';
import type { Problem } from '#contract/problems';
import type { SheetListReply, SheetReply } from '#contract/posting';
import { signIn, startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
let teacher: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
  teacher = await server.as('harun');
});
afterAll(() => server.stop());

const change = <Body = OwnView>(view: object, client = registrar) => client.send<Body>('PUT', '/session/view', view);
const viewOf = async (client: TestClient) => (await client.get<SessionReply>('/session')).body.view;
const layout = { hidden: ['email'], order: ['name', 'gpa'], widths: { name: 240 } };

describe('how somebody likes what they see', () => {
  it('is the usual until they say so, and goes with them to every machine', async () => {
    expect(await viewOf(registrar)).toEqual(usualView);
    const { status, body } = await change({ theme: 'dark', names: 'preferred' });
    expect([status, body]).toEqual([200, { ...usualView, theme: 'dark', names: 'preferred' }]);
    const elsewhere = await signIn(server.address, 'morwenna');
    expect(await viewOf(elsewhere)).toEqual(body);
    expect(await viewOf(teacher)).toEqual(usualView);
  });

  it('changes part by part, of two tabs at once too, and leaves no entry in the log', async () => {
    const entries = async () =>
      (await server.database.pool.query<{ count: string }>('SELECT count(*) FROM change_log')).rows[0]!.count;
    const before = await entries();
    await Promise.all([
      change({ density: 'roomy' }),
      change({ letterKeys: false }),
      change({ columns: { '/people all': layout } }),
      change({ columns: { '/log all': { ...layout, hidden: [] } } }),
    ]);
    const view = await viewOf(registrar);
    expect([view.density, view.letterKeys, view.theme]).toEqual(['roomy', false, 'dark']);
    expect(view.columns).toEqual({ '/people all': layout, '/log all': { ...layout, hidden: [] } });
    await change({ columns: { '/people all': null } });
    expect(Object.keys((await viewOf(registrar)).columns)).toEqual(['/log all']);
    expect(await entries()).toBe(before);
  });

  it.each<[string, object]>([
    ['theme', { theme: 'pink' }],
    ['names', { names: 'nick' }],
    ['peopleOrder', { peopleOrder: 'age' }],
    ['density', { density: 1 }],
    ['firstWeekday', { firstWeekday: 2 }],
    ['locale', { locale: 'not a tag' }],
    ['locale', { locale: 'x'.repeat(200) }],
    ['letterKeys', { letterKeys: 'yes' }],
    ['columns', { columns: [] }],
    ['columns', { columns: { '/people all': { ...layout, widths: { name: -1 } } } }],
    ['columns', { columns: { '/people all': { ...layout, more: 'x'.repeat(100_000) } } }],
    ['columns', { columns: { ['x'.repeat(121)]: layout } }],
    ['columns', { columns: Object.fromEntries(Array.from({ length: 21 }, (_each, at) => [`${at}`, layout])) }],
  ])('is refused in %s where it makes no sense: %j', async (field, view) => {
    const before = await viewOf(registrar);
    const { status, body } = await change<Problem>(view);
    expect([status, body.errors.map((error) => error.field)]).toEqual([422, [field]]);
    expect(await viewOf(registrar)).toEqual(before);
  });

  it('is theirs alone: whoever sees as somebody sees with their view, and does not change it', async () => {
    const { body } = await registrar.get<AccountsReply>('/schools/1/accounts');
    const { personId } = body.accounts.find(({ username }) => username === 'harun')!;
    await change({ density: 'compact' }, teacher);
    await registrar.send('POST', '/session/seeing', { personId });
    expect((await viewOf(registrar)).density).toBe('compact');
    expect((await change<Problem>({ density: 'roomy' })).body.code).toBe('only-seeing');
    await registrar.send('DELETE', '/session/seeing');
    expect([(await viewOf(registrar)).density, (await viewOf(teacher)).density]).toEqual(['roomy', 'compact']);
  });
});

it('a name that somebody goes by stands beside the legal one on every list, and in no sentence of the log', async () => {
  const { rows } = await server.database.pool.query<{ id: number; section: number; name: string }>(`
    SELECT p.id, e.section_id AS section, p.family_name || ', ' || p.given_name AS name FROM people p
    JOIN enrollments e ON e.student_id = p.id JOIN sections s ON s.id = e.section_id
    WHERE p.preferred_name IS NULL AND p.school_id = 1 AND s.period_id = 1 AND e.withdrawn_on IS NULL ORDER BY 1, 2 LIMIT 1`);
  const [{ id, section, name }] = rows as [(typeof rows)[0]];
  const [list] = (await registrar.get<SheetListReply[]>('/grade-sheets?period=4')).body;
  const onSheet = async () =>
    (await registrar.get<SheetReply>(`/grade-sheets/${section}/${list!.itemId}/4`)).body.rows.map(
      ({ student }) => student,
    );
  expect(await onSheet()).toContain(name);
  await server.database.pool.query(`UPDATE people SET preferred_name = 'Birdie' WHERE id = $1`, [id]);
  expect(await onSheet()).toContain(`${name} “Birdie”`);
  const transcripts = (await registrar.get<{ id: number; name: string }[]>('/students?school=1&text=birdie')).body;
  expect(transcripts.map((student) => [student.id, student.name])).toEqual([[id, `${name} “Birdie”`]]);
  const found = (await registrar.get<{ id: number; title: string }[]>('/search?text=birdie')).body;
  expect(found.map((hit) => [hit.id, hit.title])).toEqual([[id, `${name} “Birdie”`]]);
});
