import { setTimeout as wait } from 'node:timers/promises';
import { PlatformProblem } from './platform-problem.js';

export interface PlatformAccess {
  readonly name: string;
  readonly address: string;
  readonly clientId: string;
  readonly clientSecret: string;
}

type Row = Readonly<Record<string, unknown>>;

const [tries, firstPauseMilliseconds, answerMilliseconds] = [4, 150, 20_000];
const mostPages = 10_000;
const largestAnswer = 64 * 1024 * 1024;

/**
 * Asks a learning platform for lists, page after page. A token that ran out is asked for again; an answer that is cut,
 * late or refused by the server's own fault is tried again, longer apart each time. A list whose pages repeat or whose
 * length is not the stated one is read once more from its beginning, and then refused rather than believed.
 */
export class PlatformClient {
  private token: string | undefined;

  constructor(
    private readonly access: PlatformAccess,
    private readonly signal: AbortSignal,
  ) {}

  /** All rows of a list under the key that its standard names, or of a bare list. @throws PlatformProblem */
  async list(path: string, key: string | null, idOf: (row: Row) => unknown): Promise<Row[]> {
    const first = await this.pages(path, key, idOf);
    if (first.fault === undefined) return first.rows;
    const second = await this.pages(path, key, idOf);
    if (second.fault === undefined) return second.rows;
    throw new PlatformProblem(
      `${this.access.name} contradicts itself at ${path}: ${second.fault}. Nothing was imported.`,
    );
  }

  /** Sends a change, which may safely come twice. @throws PlatformProblem */
  async put(path: string, body: object): Promise<void> {
    await this.answer(path, {
      method: 'PUT',
      body: JSON.stringify(body),
      headers: { 'content-type': 'application/json' },
    });
  }

  private async pages(path: string, key: string | null, idOf: (row: Row) => unknown) {
    const rows: Row[] = [];
    const seen = new Set<unknown>();
    let next: string | undefined = path;
    let stated: number | undefined;
    for (let page = 0; next !== undefined; page++) {
      if (page >= mostPages) return { rows, fault: `it has more than ${mostPages} pages` };
      const answer: Answer = await this.answer(next);
      for (const row of rowsOf(answer.body, key, path, this.access.name)) {
        const id = idOf(row);
        if (seen.has(id)) return { rows, fault: `"${String(id)}" is listed twice` };
        seen.add(id);
        rows.push(row);
      }
      stated = answer.total ?? stated;
      next = answer.next;
    }
    const isShort = stated !== undefined && stated !== rows.length;
    return { rows, fault: isShort ? `it says ${stated} rows and sends ${rows.length}` : undefined };
  }

  private async answer(path: string, init: RequestInit = {}): Promise<Answer> {
    let last = '';
    for (let attempt = 0; attempt < tries; attempt++) {
      if (attempt > 0) await wait(firstPauseMilliseconds * 2 ** (attempt - 1), undefined, { signal: this.signal });
      const tried = await this.attempt(path, init);
      if (typeof tried !== 'string') return tried;
      last = tried;
    }
    throw new PlatformProblem(`${this.access.name} did not answer ${path} after ${tries} tries: ${last}.`);
  }

  /** An answer, or in words why there is none and trying again may help. */
  private async attempt(path: string, init: RequestInit): Promise<Answer | string> {
    this.token ??= await this.freshToken();
    const headers = { ...(init.headers as Record<string, string>), authorization: `Bearer ${this.token}` };
    const response = await this.fetch(path, { ...init, headers });
    if (typeof response === 'string') return response;
    if (response.status === 401) {
      this.token = undefined;
      return 'it no longer knows the token it gave';
    }
    if (response.status === 429 || response.status >= 500) return `it answered ${response.status}`;
    if (!response.ok)
      throw new PlatformProblem(`${this.access.name} answered ${response.status} at ${path}. Is the address right?`);
    return answerOf(response, this.access.name, path);
  }

  private async freshToken(): Promise<string> {
    const body = new URLSearchParams({
      grant_type: 'client_credentials',
      client_id: this.access.clientId,
      client_secret: this.access.clientSecret,
    });
    const response = await this.fetch('/token', { method: 'POST', body });
    if (typeof response === 'string')
      throw new PlatformProblem(`${this.access.name} cannot be reached at ${this.access.address}: ${response}.`);
    if (!response.ok)
      throw new PlatformProblem(
        `${this.access.name} does not accept the client id with this secret (${response.status}).`,
      );
    const { access_token: token } = (await jsonOf(response)) as { access_token?: unknown };
    if (typeof token !== 'string') throw new PlatformProblem(`${this.access.name} gave no token at /token.`);
    return token;
  }

  private async fetch(path: string, init: RequestInit): Promise<Response | string> {
    const signal = AbortSignal.any([this.signal, AbortSignal.timeout(answerMilliseconds)]);
    try {
      return await fetch(new URL(path, this.access.address), { ...init, signal, redirect: 'error' });
    } catch (error) {
      this.signal.throwIfAborted();
      return causeOf(error);
    }
  }
}

interface Answer {
  readonly body: unknown;
  readonly next: string | undefined;
  readonly total: number | undefined;
}

async function answerOf(response: Response, name: string, path: string): Promise<Answer | string> {
  if (!(response.headers.get('content-type') ?? '').includes('json'))
    throw new PlatformProblem(`${name} sent a page for people, not data, at ${path}. Is the address right?`);
  if (Number(response.headers.get('content-length')) > largestAnswer)
    throw new PlatformProblem(`${name} sends more than 64 MB at once at ${path}.`);
  const body = await jsonOf(response);
  if (body === undefined) return 'the answer broke off';
  const total = response.headers.get('x-total-count');
  const link = response.headers.get('link') ?? '';
  return { body, next: nextOf(link, name), total: total === null ? undefined : Number(total) };
}

/** Only a path is taken from a link: the next page is asked of the same platform, whatever the link says. */
function nextOf(link: string, name: string): string | undefined {
  const target = /<([^>]+)>\s*;[^,]*rel="?next"?/.exec(link)?.[1];
  if (target === undefined) return undefined;
  if (!URL.canParse(target, 'http://platform'))
    throw new PlatformProblem(`${name} names "${target}" as its next page.`);
  const { pathname, search } = new URL(target, 'http://platform');
  return pathname + search;
}

/** Undefined where the text breaks off. */
async function jsonOf(response: Response): Promise<unknown> {
  try {
    return await response.json();
  } catch {
    return undefined;
  }
}

function rowsOf(body: unknown, key: string | null, path: string, name: string): Row[] {
  const rows = key === null ? body : (body as Row | null)?.[key];
  if (Array.isArray(rows)) return rows as Row[];
  throw new PlatformProblem(`${name} sends no list${key === null ? '' : ` "${key}"`} at ${path}.`);
}

function causeOf(error: unknown): string {
  if (error instanceof Error && error.name === 'TimeoutError') return 'it took longer than 20 seconds';
  const { cause } = error as { cause?: { code?: string } };
  return cause?.code === 'ECONNREFUSED' ? 'nothing listens there' : 'the connection was cut';
}
