import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { inject } from 'vitest';
import { demoPassword } from '#demo';
import { createApplication, seedFile } from '#server/application';
import { makeFirstRegistrar } from '#server/people';
import { Clock, openDatabase, type DatabaseSource, type OpenDatabase } from '#server/platform';
import { onAdministration } from './template-database.js';

/** What the server answered. */
export interface Answer<Body = never> {
  readonly status: number;
  readonly headers: Headers;
  readonly body: Body;
  /** The change that the request made; null where it made none. */
  readonly change: number | null;
}

/** The server over a copy of the demo district, spoken to through HTTP alone. */
export interface TestServer {
  readonly address: string;
  readonly application: NestExpressApplication;
  readonly database: OpenDatabase;
  readonly clock: Clock;
  /** Somebody who is signed in. */
  as(username: string): Promise<TestClient>;
  readonly nobody: TestClient;
  stop(): Promise<void>;
}

export interface TestClient {
  /** With "bytes" the body is what a download holds. */
  get<Body>(path: string, as?: 'bytes'): Promise<Answer<Body>>;
  /** Events as they come, until the signal. */
  stream(path: string, until: AbortSignal): Promise<Response>;
  send<Body>(
    method: 'POST' | 'PUT' | 'DELETE',
    path: string,
    body?: object,
    headers?: Record<string, string>,
  ): Promise<Answer<Body>>;
}

/** Wednesday of the last week of Quarter 2; its window is open. */
export const demoInstant = new Date('2026-01-21T10:42:00Z');

let copies = 0;

export async function startTestServer(): Promise<TestServer> {
  const server = await startSignedOff();
  // What is signed off takes no grade; a test signs off what it needs.
  await server.database.pool.query('DELETE FROM sign_offs');
  return server;
}

/** With the sheets that the demo has signed off. */
export async function startSignedOff(): Promise<TestServer> {
  const { source, discard } = await copyOfTemplate();
  return serve(await openDatabase(source), discard);
}

async function serve(database: OpenDatabase, discard: () => Promise<void>): Promise<TestServer> {
  const clock = new Clock();
  clock.setTo(demoInstant);
  const application = await createApplication(database, clock);
  const http = await application.listen(0, '127.0.0.1');
  const address = `http://127.0.0.1:${(http.address() as AddressInfo).port}`;
  const clients = new Map<string, Promise<TestClient>>();
  return {
    address,
    application,
    database,
    clock,
    nobody: clientOf(address, '', ''),
    as(username) {
      const known = clients.get(username) ?? signIn(address, username);
      clients.set(username, known);
      return known;
    },
    async stop() {
      await application.close();
      await database.close();
      await discard();
    },
  };
}

/** A Wombat that starts empty, and its first registrar. */
export async function startEmptyServer(): Promise<TestServer & { readonly registrar: TestClient }> {
  const { source, discard } = await emptyDatabase();
  const database = await openDatabase(source);
  const registrar = (await makeFirstRegistrar(database))!;
  const server = await serve(database, discard);
  const client = await signIn(server.address, registrar.username, registrar.password);
  return { ...server, registrar: client };
}

async function emptyDatabase(): Promise<{ source: DatabaseSource; discard: () => Promise<void> }> {
  const template = inject('template');
  if (template.kind === 'server') return databaseOnServer(template.url, '');
  const folder = mkdtempSync(join(tmpdir(), 'wombat-server-test-'));
  return {
    source: { kind: 'folder', folder, seedFile },
    discard: async () => rmSync(folder, { recursive: true, force: true }),
  };
}

async function databaseOnServer(
  url: string,
  from: string,
): Promise<{ source: DatabaseSource; discard: () => Promise<void> }> {
  const name = `wombat_test_${process.pid}_${copies++}`;
  await onAdministration(url, `CREATE DATABASE ${name} ${from}`);
  const own = new URL(url);
  own.pathname = `/${name}`;
  return {
    source: { kind: 'server', url: own.href },
    discard: () => onAdministration(url, `DROP DATABASE ${name} WITH (FORCE)`),
  };
}

async function copyOfTemplate(): Promise<{ source: DatabaseSource; discard: () => Promise<void> }> {
  const template = inject('template');
  if (template.kind === 'folder') {
    const folder = mkdtempSync(join(tmpdir(), 'wombat-server-test-'));
    cpSync(join(template.folder, 'database'), join(folder, 'database'), { recursive: true });
    return {
      source: { kind: 'folder', folder, seedFile: null },
      discard: async () => rmSync(folder, { recursive: true, force: true }),
    };
  }
  return databaseOnServer(template.url, `TEMPLATE ${template.name}`);
}

export async function signIn(address: string, username: string, password = demoPassword): Promise<TestClient> {
  const nobody = clientOf(address, '', '');
  const answer = await nobody.send<{ csrfToken: string }>('POST', '/session', { username, password });
  const cookie = answer.headers.getSetCookie()[0]!.split(';')[0]!;
  return clientOf(address, cookie, answer.body.csrfToken);
}

export function clientOf(address: string, cookie: string, csrfToken: string): TestClient {
  const call = async <Body>(
    method: string,
    path: string,
    body?: object,
    more: Record<string, string> = {},
    as?: 'bytes',
  ): Promise<Answer<Body>> => {
    const isForm = body instanceof FormData;
    const headers = {
      cookie,
      'x-csrf-token': csrfToken,
      ...(body && !isForm ? { 'content-type': 'application/json' } : {}),
      ...more,
    };
    const response = await fetch(`${address}/api${path}`, {
      method,
      headers,
      ...(body ? { body: isForm ? body : JSON.stringify(body) } : {}),
    });
    const change = response.headers.get('x-wombat-change');
    const facts = {
      status: response.status,
      headers: response.headers,
      change: change && response.ok ? Number(change) : null,
    };
    // A stream of events has no end: that it began is the answer.
    if (response.headers.get('content-type')?.startsWith('text/event-stream')) {
      await response.body?.cancel();
      return { ...facts, body: undefined as Body };
    }
    if (as) return { ...facts, body: new Uint8Array(await response.arrayBuffer()) as Body };
    const text = await response.text();
    const isOne = /\bjson\b/.test(response.headers.get('content-type') ?? ''); // and no file of many lines
    return { ...facts, body: (text === '' ? undefined : isOne ? JSON.parse(text) : text) as Body };
  };
  const stream = (path: string, signal: AbortSignal) => fetch(`${address}/api${path}`, { headers: { cookie }, signal });
  return { get: (path, as) => call('GET', path, undefined, {}, as), send: call, stream };
}
