import { Reflector } from '@nestjs/core';
import { getMetadataStorage } from 'class-validator';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { courseFields } from '#core/courses';
import type { Problem } from '#contract/problems';
import { startTestServer, type TestServer } from '../../../test/test-server.js';
import { AccessGuard } from './access.guard.js';
import { Actors } from './actors.js';
import { Whereabouts } from './whereabouts.js';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());

/** Every operation that the server describes of itself, with made-up numbers in its address. */
async function operations(): Promise<{ method: 'GET' | 'POST' | 'PUT' | 'DELETE'; path: string }[]> {
  const { body } = await server.nobody.get<{ paths: Record<string, Record<string, unknown>> }>('/openapi.json');
  return Object.entries(body.paths).flatMap(([path, methods]) =>
    Object.keys(methods).map((method) => ({
      method: method.toUpperCase() as 'GET',
      path: path.replace('/api', '').replace(/\{\w+\}/g, '1'),
    })),
  );
}

const open = [
  'POST /session',
  'POST /session/link',
  'PUT /session/link',
  'POST /session/link/ask',
  'POST /session/passkey',
  'POST /session/passkey/options',
  'GET /session/demo-people',
];
describe('every route', () => {
  it('is closed to whoever is not signed in, but for signing in', async () => {
    const all = await operations();
    expect(all.length).toBeGreaterThan(20);
    for (const { method, path } of all.filter((each) => !open.includes(`${each.method} ${each.path}`))) {
      const { status } = method === 'GET' ? await server.nobody.get(path) : await server.nobody.send(method, path, {});
      expect([`${method} ${path}`, status]).toEqual([`${method} ${path}`, 401]);
    }
  });

  it('lets nobody through when nobody said whom it lets through', async () => {
    const actors = server.application.get(Actors, { strict: false });
    const { rows } = await server.database.pool.query<{ personId: number; passwordHash: string }>(
      `SELECT person_id AS "personId", password_hash AS "passwordHash" FROM accounts WHERE username = 'morwenna'`,
    );
    const guard = new AccessGuard(new Reflector(), actors, server.application.get(Whereabouts, { strict: false }));
    const signedIn = actors.signedIn(rows[0]!.personId, rows[0]!.passwordHash);
    const request = { method: 'GET', session: { signedIn }, get: () => undefined };
    const context = {
      getHandler: () => () => undefined,
      getClass: () => class {},
      switchToHttp: () => ({ getRequest: () => request }),
    };
    await expect(guard.canActivate(context as never)).rejects.toThrow('not-allowed');
  });
});

it('describes itself: what each request holds, and the problem that any of them may end in', async () => {
  interface Description {
    readonly openapi: string;
    readonly paths: Record<string, Record<string, { responses: Record<string, unknown> }>>;
    readonly components: {
      readonly schemas: Record<string, { properties: Record<string, { pattern?: string; items?: { $ref: string } }> }>;
    };
  }
  const { body } = await server.nobody.get<Description>('/openapi.json');
  expect(body.openapi).toMatch(/^3\./);
  const { BandBody, MarkBody, SaveScaleRequest, Problem } = body.components.schemas;
  expect(SaveScaleRequest!.properties['bands']!.items).toEqual({ $ref: '#/components/schemas/BandBody' });
  expect(MarkBody!.properties['lastDate']).toEqual({ type: 'string', pattern: '^\\d{4}-\\d{2}-\\d{2}$' });
  expect(BandBody!.properties['lowest']!.pattern).toBe('^\\d{1,3}(\\.\\d{1,2})?$');
  expect(Object.keys(Problem!.properties)).toEqual(['type', 'title', 'status', 'detail', 'code', 'errors']);
  const operationsOfAll = Object.values(body.paths).flatMap((path) => Object.values(path));
  expect(operationsOfAll.every(({ responses }) => 'default' in responses)).toBe(true);
});

describe('what is wrong with a request', () => {
  it.each([
    ['no such address', 'GET', '/nothing-here', undefined, 404, 'not-found'],
    ['no such thing', 'GET', '/students/999999/transcript', undefined, 404, 'not-found'],
    ['a word for a number', 'GET', '/students/abc/transcript', undefined, 400, 'body-unreadable'],
    ['an unknown field', 'POST', '/audit/runs', { periodId: 4, hurry: true }, 422, 'fields-wrong'],
  ] as const)('%s', async (_what, method, path, body, status, code) => {
    const registrar = await server.as('morwenna');
    const answer =
      method === 'GET' ? await registrar.get<Problem>(path) : await registrar.send<Problem>(method, path, body);
    expect([answer.status, answer.body.code]).toEqual([status, code]);
    expect(answer.headers.get('content-type')).toContain('application/problem+json');
  });

  it('JSON that is none is told apart from a bug', async () => {
    const response = await fetch(`${server.address}/api/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: '{"username":',
    });
    expect([response.status, ((await response.json()) as Problem).code]).toEqual([400, 'body-unreadable']);
  });
});

describe('a body', () => {
  const sent = (text: string) =>
    fetch(`${server.address}/api/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: text,
    });

  it('may hold as many as its list promises: 5,000 courses, 500 grades with the longest comments', async () => {
    const registrar = await server.as('morwenna');
    const cells = Object.fromEntries(courseFields.map((field) => [field, 'x'.repeat(60)]));
    const changes = Array.from({ length: 5000 }, () => ({ id: null, revision: '', cells }));
    const courses = await registrar.send<Problem>('PUT', '/schools/1/courses?period=4', { changes, removed: [] });
    expect(courses.status).toBe(422); // what is in it is looked at
    const mark = { percent: '81', label: null, code: null, lastDate: null, hours: null, comment: '好'.repeat(2000) };
    const grades = Array.from({ length: 500 }, (_, at) => ({ ...mark, enrollmentId: at + 1, version: 0 }));
    const sheet = await registrar.send<Problem>('PUT', '/grade-sheets/1/1/4', { changes: grades });
    expect(sheet.body.code).not.toBe('body-too-large');
  });

  it('of who is not signed in may only be small', async () => {
    const response = await sent(JSON.stringify({ username: 'x'.repeat(20_000), password: 'y' }));
    expect([response.status, await response.json()]).toMatchObject([413, { code: 'body-too-large' }]);
  });

  it('that is nested without an end is refused, whoever sends it', async () => {
    expect((await sent('['.repeat(8000) + ']'.repeat(8000))).status).toBe(422);
    const registrar = await server.as('morwenna');
    const deep = JSON.parse('['.repeat(1000) + ']'.repeat(1000)) as object;
    expect(await registrar.send('PUT', '/codes', { revision: 'r', codes: deep })).toMatchObject({
      status: 422,
      body: { errors: [{ detail: 'at most 12 levels within one another' }] },
    });
  });
});

it('answers with the headers that keep pages from being framed or fed scripts', async () => {
  const { headers } = await server.nobody.get('/session/demo-people');
  expect(headers.get('content-security-policy')).toContain("default-src 'self'");
  expect(headers.get('x-frame-options')).toBe('SAMEORIGIN');
  expect(headers.get('x-content-type-options')).toBe('nosniff');
  expect(headers.get('cache-control')).toBe('no-store');
});

it('the description of the interface has a schema of its own for each class of request', () => {
  const { validationMetadatas } = getMetadataStorage() as unknown as {
    readonly validationMetadatas: ReadonlyMap<{ readonly name: string }, unknown>;
  };
  const names = [...validationMetadatas.keys()].map(({ name }) => name);
  expect(names.length).toBeGreaterThan(50);
  expect(names.filter((name, at) => names.indexOf(name) !== at)).toEqual([]);
});
