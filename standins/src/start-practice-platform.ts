import { randomUUID } from 'node:crypto';
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { answerList, type AnsweredList } from './answer-lists.js';
import { FaultList, faultKinds, type Fault, type FaultKind } from './faults.js';
import type { PlatformContent, PlatformHabits } from './platform-content.js';

export interface PracticePlatform {
  readonly address: string;
  readonly faults: FaultList;
  /** What it holds from now on; a stale answer still tells what it held before. */
  change(content: PlatformContent): void;
  stop(): Promise<void>;
}

const slowMilliseconds = 400;

/**
 * A learning platform to practise with, over HTTP on a port of this computer. It gives tokens for its client id and
 * secret (OAuth 2.0, RFC 6749, 4.4), answers lists page by page (links as in RFC 8288), and fails when asked to:
 * POST /practice/faults with a kind, a part of the path, and how often. Its content is asked for when it is first needed.
 */
export async function startPracticePlatform(
  habits: PlatformHabits,
  content: () => Promise<PlatformContent>,
  port = 0,
): Promise<PracticePlatform> {
  const faults = new FaultList();
  let held = content;
  let before = content;
  const tokens = new Map<string, number>();
  const server = createServer((request, response) => {
    void answer(request, response).catch((error: unknown) => send(response, 500, { error: String(error) }));
  });

  async function answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const url = new URL(request.url ?? '/', 'http://practice');
    if (url.pathname === '/token') return giveToken(request, response);
    if (url.pathname === '/practice/faults') return takeFault(request, response);
    const fault = faults.strike(url.pathname);
    if (fault === 'expiredToken') tokens.clear();
    if (!isKnown(request)) return send(response, 401, { error: 'the token is not known or has expired' });
    if (fault === 'error') return send(response, 500, { error: 'practice fault' });
    if (fault === 'slow') await new Promise((resolve) => setTimeout(resolve, slowMilliseconds));
    if (fault === 'page') return sendPage(response);
    if (request.method === 'PUT') return takeWeight(request, response, url.pathname);
    const list = answerList(await (fault === 'staleAnswer' ? before : held)(), url.pathname);
    if (!list) return send(response, 404, { error: `nothing at ${url.pathname}` });
    sendList(response, list, url, fault);
  }

  async function giveToken(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const form = new URLSearchParams(await bodyOf(request));
    const isRight = form.get('client_id') === habits.clientId && form.get('client_secret') === habits.clientSecret;
    if (!isRight) return send(response, 401, { error: 'invalid_client' });
    const token = randomUUID();
    tokens.set(token, Date.now() + habits.tokenSeconds * 1000);
    send(response, 200, { access_token: token, token_type: 'Bearer', expires_in: habits.tokenSeconds });
  }

  /** The weight of a group, as OneRoster 1.2 puts a category. */
  async function takeWeight(request: IncomingMessage, response: ServerResponse, path: string): Promise<void> {
    const id = /^\/ims\/oneroster\/gradebook\/v1p2\/categories\/([^/]+)$/.exec(path)?.[1];
    const now = await held();
    const group = now.groups.find((each) => each.id === id);
    if (!group) return send(response, 404, { error: `nothing at ${path}` });
    const { category } = JSON.parse(await bodyOf(request)) as { category: { weight: number } };
    const groups = now.groups.map((each) => (each === group ? { ...each, weight: category.weight } : each));
    held = () => Promise.resolve({ ...now, groups });
    send(response, 201, {});
  }

  async function takeFault(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const fault = JSON.parse(await bodyOf(request)) as Fault;
    if (!faultKinds.includes(fault.kind))
      return send(response, 422, { error: `kind: one of ${faultKinds.join(', ')}` });
    faults.add(fault);
    send(response, 202, {});
  }

  function isKnown(request: IncomingMessage): boolean {
    const token = /^Bearer (.+)$/.exec(request.headers.authorization ?? '')?.[1];
    return token !== undefined && (tokens.get(token) ?? 0) > Date.now();
  }

  function sendList(
    response: ServerResponse,
    { key, type, rows }: AnsweredList,
    url: URL,
    fault: FaultKind | undefined,
  ): void {
    const limit = Math.min(habits.pageSize, Number(url.searchParams.get('limit')) || habits.pageSize);
    const offset = Number(url.searchParams.get('offset')) || 0;
    const from = fault === 'repeatedPage' ? Math.max(0, offset - limit) : offset;
    const page = rows.slice(from, from + limit);
    if (habits.tellsTotal) response.setHeader('X-Total-Count', rows.length + (fault === 'wrongTotal' ? 7 : 0));
    if (offset + limit < rows.length)
      response.setHeader('Link', `<${url.pathname}?limit=${limit}&offset=${offset + limit}>; rel="next"`);
    const text = JSON.stringify(key === null ? page : { [key]: page });
    if (fault !== 'cut') return send(response, 200, text, type);
    response.writeHead(200, { 'content-type': type, 'content-length': Buffer.byteLength(text) });
    response.write(text.slice(0, text.length / 2), () => response.destroy());
  }

  await new Promise<void>((resolve) => server.listen(port, '127.0.0.1', resolve));
  return {
    address: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    faults,
    change(next) {
      before = held;
      held = () => Promise.resolve(next);
    },
    stop: () =>
      new Promise((resolve) => {
        server.close(() => resolve());
        server.closeAllConnections();
      }),
  };
}

function send(response: ServerResponse, status: number, body: object | string, type = 'application/json'): void {
  response.writeHead(status, { 'content-type': type });
  response.end(typeof body === 'string' ? body : JSON.stringify(body));
}

/** What some gateways answer instead of data. */
function sendPage(response: ServerResponse): void {
  send(response, 200, '<!doctype html><title>Please sign in</title>', 'text/html');
}

async function bodyOf(request: IncomingMessage): Promise<string> {
  let text = '';
  for await (const piece of request) text += String(piece);
  return text;
}
