import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { roleNames, roles, type Role } from '#core/access';
import type { Problem } from '#contract/problems';
import { accessDocument, routesOf, type Route } from '../../../test/access-document.js';
import { startTestServer, type TestClient, type TestServer } from '../../../test/test-server.js';
import type { RouteAccess } from './access.js';
import type { PlaceKind } from './whereabouts.js';

const document = fileURLToPath(new URL('../../../../docs/access.md', import.meta.url));

let server: TestServer;
let routes: (Route & { readonly access: RouteAccess })[];
/** What stands in the document: for each action, whether it concerns all schools, and each role's cell. */
let written: ReadonlyMap<string, { readonly ofAll: boolean; readonly cells: ReadonlyMap<Role, string> }>;
const clients = new Map<string, TestClient>();
/** By school: one thing of each kind. */
const things = new Map<1 | 2, Readonly<Record<PlaceKind, number>>>();

beforeAll(async () => {
  server = await startTestServer();
  routes = routesOf(server.application).filter((route): route is (typeof routes)[number] =>
    Boolean(route.access && route.access !== 'public'),
  );
  written = readTable();
  for (const school of [1, 2] as const) things.set(school, await thingsOf(school));
  for (const role of roles)
    for (const schoolId of [null, 1]) clients.set(`${role} ${schoolId}`, await holder(role, schoolId));
}, 60_000);
afterAll(() => server.stop());

const query = async <Row>(text: string, values: readonly unknown[] = []) =>
  (await server.database.pool.query(text, [...values])).rows as Row[];

/** The table as a reader has it: none of the code that it was made from. */
function readTable() {
  const lines = readFileSync(document, 'utf8')
    .split('\n')
    .filter((line) => line.startsWith('| '))
    .map((line) =>
      line
        .split('|')
        .slice(1, -1)
        .map((cell) => cell.trim()),
    );
  const [head, ...rows] = lines as [string[], ...string[][]];
  return new Map(
    rows
      .filter(([action]) => action !== '---')
      .map((row) => {
        const cells = new Map(roles.map((role): [Role, string] => [role, row[head.indexOf(roleNames[role])]!]));
        return [row[0]!, { ofAll: row[2] === 'all schools', cells }] as const;
      }),
  );
}

/** Somebody with one role, at one school or all. */
async function holder(role: Role, schoolId: number | null): Promise<TestClient> {
  const username = `${role}-${schoolId ?? 'all'}`;
  const [person] = await query<{ id: number }>(
    `INSERT INTO people (sourced_id, kind, school_id, given_name, family_name, email) VALUES ($1, 'staff', 1, 'Any', 'One', '') RETURNING id`,
    [username],
  );
  const [account] = await query<{ id: number }>(
    `INSERT INTO accounts (person_id, username, password_hash)
     SELECT $1, $2, password_hash FROM accounts WHERE username = 'morwenna' RETURNING id`,
    [person!.id, username],
  );
  await query('INSERT INTO account_roles (account_id, role, school_id) VALUES ($1, $2, $3)', [
    account!.id,
    role,
    schoolId,
  ]);
  return server.as(username);
}

/** Of each kind one that there is; where the demo has none, one is made. */
async function thingsOf(school: 1 | 2): Promise<Readonly<Record<PlaceKind, number>>> {
  const one = async (text: string) => (await query<{ id: number }>(text, [school]))[0]!.id;
  const period = await one(
    `SELECT id FROM periods p WHERE school_id = $1 AND id IN (SELECT period_id FROM grades) ORDER BY id LIMIT 1`,
  );
  const section = await one(
    `SELECT s.id FROM sections s JOIN courses c ON c.id = s.course_id WHERE c.school_id = $1 ORDER BY s.id LIMIT 1`,
  );
  const platform = await one(
    `INSERT INTO learning_platforms (school_id, name, address, client_id, client_secret)
     VALUES ($1, 'Any', 'http://127.0.0.1:9', '', '') RETURNING id`,
  );
  return {
    school,
    period,
    section,
    platform,
    scale: await one(`INSERT INTO scales (school_id, name, kind) VALUES ($1, 'Any', 'percent') RETURNING id`),
    'report-item': await one('SELECT id FROM report_items WHERE school_id = $1 ORDER BY id LIMIT 1'),
    course: await one('SELECT id FROM courses WHERE school_id = $1 ORDER BY id LIMIT 1'),
    enrollment: (await query<{ id: number }>('SELECT id FROM enrollments WHERE section_id = $1', [section]))[0]!.id,
    person: await one(`SELECT id FROM people WHERE school_id = $1 AND kind = 'student' ORDER BY id LIMIT 1`),
    run: (
      await query<{ id: number }>(
        `INSERT INTO runs (platform_id, period_id, stage, state, mode, carries_work, carries_totals, is_nightly, started_by, started_at)
         VALUES ($1, $2, 'plan', 'ready', 'keep', true, true, false, 1, now()) RETURNING id`,
        [platform, period],
      )
    )[0]!.id,
    'file-import': await one(
      `INSERT INTO file_imports SELECT (jsonb_populate_record(f, jsonb_build_object(
         'id', 9000 + $1::int, 'school_id', $1::int, 'period_id', ${period}))).* FROM file_imports f LIMIT 1 RETURNING id`,
    ),
    'posting-request': (
      await query<{ id: number }>(
        `INSERT INTO posting_requests (section_id, item_id, period_id, asked_by, asked_at, changes)
         SELECT $1, (SELECT min(id) FROM report_items WHERE school_id = $2), $3, 1, now(), '[]' RETURNING id`,
        [section, school, period],
      )
    )[0]!.id,
    mail: await one(
      `INSERT INTO mails (school_id, written_by, written_at, recipient_name, recipient_address, subject, body, about, message)
       VALUES ($1, 1, now(), 'Any One', 'any@one.example', 'A', 'B', '', 'C') RETURNING id`,
    ),
  };
}

const nowhere = 999_999_999;

/** Asks for it with these things in every place, and without the token that a write needs, so that nothing is changed. */
async function ask(client: TestClient, { method, path, access }: (typeof routes)[number], of: 1 | 2 | null) {
  const idOf = (kind: PlaceKind) => (of === null ? nowhere : things.get(of)![kind]);
  const places = (Object.entries(access.places) as [PlaceKind, string | readonly string[]][]).flatMap(([kind, where]) =>
    [where].flat().map((at) => [kind, at] as const),
  );
  const parts: Record<'query' | 'body', Record<string, number>> = { query: {}, body: {} };
  let address = path;
  for (const [kind, at] of places) {
    const [source, name] = at.split('.') as ['query' | 'body', string | undefined];
    if (name) parts[source][name] = idOf(kind);
    else address = address.replace(`:${at}`, String(idOf(kind)));
  }
  // What no place names stands there with the number of its own kind.
  address = address.replaceAll(/:(\w+)/g, (_all, name: string) =>
    String(({ itemId: idOf('report-item'), periodId: idOf('period') } as Record<string, number>)[name] ?? 1),
  );
  const search = new URLSearchParams(Object.entries(parts.query).map(([name, id]) => [name, String(id)]));
  const whole = `${address}?${search}&version=1.2&type=csv`;
  if (method === 'GET') {
    const { status, headers, body } = await client.get<Uint8Array>(whole, 'bytes');
    const isProblem = headers.get('content-type')?.includes('problem+json');
    return { status, body: (isProblem ? JSON.parse(Buffer.from(body).toString()) : {}) as Problem };
  }
  return client.send<Problem>(method, whole, parts.body, { 'x-csrf-token': '' });
}

/** A write is let through where only its token is missing; a route that names nothing may still find nothing. */
const isLetThrough = (
  { status, body }: { status: number; body: Problem },
  { method, access }: (typeof routes)[number],
) => {
  if (method !== 'GET') return body.code === 'token-missing';
  return ![401, 403, ...(Object.keys(access.places).length > 0 ? [404] : [])].includes(status);
};

describe('the table of docs/access.md', () => {
  it('is the one in the code, and names every route that needs a role', async () => {
    await expect(accessDocument(routesOf(server.application))).toMatchFileSnapshot(document);
  });

  it('leaves out no route: each says what it does, and with what', () => {
    expect(routesOf(server.application).filter(({ access }) => access === undefined)).toEqual([]);
    expect(routes.length).toBeGreaterThan(110);
    // A number in an address that no place names is looked at by the route's own service, among what the places let through.
    const unnamed = routes.flatMap(({ method, path, access }) =>
      [...path.matchAll(/:(\w+)/g)]
        .filter(([, name]) => !Object.values(access.places).flat().includes(name!))
        .map(([, name]) => `${method} ${path} ${name}`),
    );
    expect(unnamed.filter((each) => !/(itemId|periodId|assignmentId)$/.test(each))).toEqual([
      'POST /changes/:id/undo id',
      'DELETE /exchange/imports/:id id',
      'GET /exchange/imports/:id id',
      'POST /exchange/imports/:id/accept id',
      'GET /exchange/imports/:id/rows id',
      'PUT /schools/:schoolId/accounts/:personId personId',
      // One's own.
      'DELETE /session/passkeys/:id id',
    ]);
  });

  it('holds for every route without signing in', async () => {
    for (const route of routes)
      expect([route.path, (await ask(server.nobody, route, 1)).status]).toEqual([route.path, 401]);
  });

  describe.each(roles.flatMap((role) => [null, 1].map((schoolId) => [role, schoolId] as const)))(
    'for a %s of %s',
    (role, schoolId) => {
      const client = () => clients.get(`${role} ${schoolId}`)!;
      /** Yes, of some sections, or no: as the document has it. */
      const cellOf = ({ access: { action } }: (typeof routes)[number]) => {
        const { ofAll, cells } = written.get(action)!;
        return ofAll && schoolId !== null ? '–' : cells.get(role)!;
      };
      /** How each route answers about what is of a school, and how the document says that it does. */
      const answers = async (of: 1 | 2) => {
        const isHeld = schoolId === null || of === schoolId;
        const [given, said]: [unknown[], unknown[]] = [[], []];
        for (const route of routes) {
          const answer = await ask(client(), route, of);
          const [cell, name] = [cellOf(route), `${route.method} ${route.path}`];
          const hasPlace = Object.keys(route.access.places).length > 0;
          const isOpen = cell !== '–' && (!hasPlace || (cell === 'yes' && isHeld));
          given.push([name, isLetThrough(answer, route) ? 'open' : answer.body.code]);
          said.push([name, isOpen ? 'open' : cell === '–' ? 'not-allowed' : 'not-found']);
        }
        return { given, said };
      };

      it.each([1, 2] as const)('holds for what is of school %i', async (of) => {
        const { given, said } = await answers(of);
        expect(given).toEqual(said);
      });

      it('tells nobody whether there is what is beyond their reach', async () => {
        if (schoolId === null) return;
        for (const route of routes.filter(
          (each) => cellOf(each) !== '–' && Object.keys(each.access.places).length > 0,
        )) {
          const [there, not] = [await ask(client(), route, 2), await ask(client(), route, null)];
          const plain = ({ detail, ...rest }: Problem) => ({ ...rest, detail: detail.replaceAll(/\d+/g, 'N') });
          expect([route.path, there.status, plain(there.body)]).toEqual([route.path, not.status, plain(not.body)]);
        }
      });
    },
  );

  it('is asked of every thing that a request names, of one kind too: one beyond reach among others is enough', async () => {
    const client = clients.get('grading-administrator 1')!;
    const [here, there] = [things.get(1)!, things.get(2)!];
    const send = async (path: string, body: object) => {
      const answer = await client.send<Problem>('POST', `/schools/1/${path}`, body, { 'x-csrf-token': '' });
      return answer.body.code;
    };
    const pair = (keptId: number, goneId: number) => send('duplicates/preview', { keptId, goneId });
    const move = (...enrollmentIds: unknown[]) =>
      send('moves/preview', { enrollmentIds, sectionId: here.section, enteredOn: '2026-01-12' });
    expect(await pair(here.person, here.person)).toBe('token-missing');
    expect([await pair(here.person, there.person), await pair(there.person, here.person)]).toEqual([
      'not-found',
      'not-found',
    ]);
    expect(await move(here.enrollment)).toBe('token-missing');
    expect([await move(here.enrollment, there.enrollment), await move(here.enrollment, '1e0')]).toEqual([
      'not-found',
      'fields-wrong',
    ]);
  });

  it('gives a teacher the sections that they teach, and no other', async () => {
    const own = routes.filter(({ access }) => written.get(access.action)!.cells.get('teacher') === 'own sections');
    expect(own.length).toBeGreaterThan(8);
    const [{ id }] = (await query<{ id: number }>(
      `SELECT person_id AS id FROM accounts WHERE username = 'teacher-1'`,
    )) as [{ id: number }];
    await query('UPDATE sections SET teacher_id = $1 WHERE id = $2', [id, things.get(1)!.section]);
    await query('UPDATE sections SET teacher_id = $1 WHERE id = $2', [id, things.get(2)!.section]);
    for (const route of own.filter(({ access }) => Object.keys(access.places).length > 0)) {
      const mine = await ask(clients.get('teacher 1')!, route, 1);
      expect([route.path, isLetThrough(mine, route)]).toEqual([route.path, true]);
      const elsewhere = await ask(clients.get('teacher 1')!, route, 2);
      expect([route.path, elsewhere.status]).toEqual([route.path, 404]);
    }
  });
});
