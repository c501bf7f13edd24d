import { setTimeout as wait } from 'node:timers/promises';
import { mayBeAsked, namedBy, pathOn } from './platform-address.js';
import { PlatformProblem } from './platform-problem.js';
import { freshToken } from './platform-token.js';
import { readBody } from './read-body.js';

export interface PlatformAccess {
  readonly name: string;
  readonly address: string;
  readonly clientId: string;
  readonly clientSecret: string;
}

type Row = Readonly<Record<string, unknown>>;

const [tries, firstPauseMilliseconds, answerMilliseconds] = [4, 150, 20_000];
const mostPages = 10_000;
const megabyte = 1024 * 1024;
/** Megabytes of one answer, and of all pages of a list. */
const [largestAnswer, largestList] = [64, 256];

/**
 * Asks a learning platform for lists, page after page. A token that ran out is asked for again; an answer that is cut,
 * late or refused by the server's own fault is tried again, longer apart each time. A list whose pages repeat or whose
 * length is not the stated one is read once more from its beginning, and then refused rather than believed. Nothing is
 * asked of anybody but the platform, and nothing without an end is read.
 */
export class PlatformClient {
  private token: string | undefined;
  private isAllowed = false;

  constructor(
    private readonly access: PlatformAccess,
    private readonly signal: AbortSignal,
  ) {}

  /** All rows of a list under the key that its standard names, or of a bare list. @throws PlatformProblem */
  list(path: string, key: string | null, idOf: (row: Row) => unknown): Promise<Row[]> {
    return this.listAt(pathOn(this.access.address, path), key, idOf);
  }

  /** The bare list that lies beneath what the platform gave an address to, such as the results of a column. @throws PlatformProblem */
  listBeneath(named: string, part: string, idOf: (row: Row) => unknown): Promise<Row[]> {
    const url = this.namedOrThrow(named);
    url.pathname += part;
    return this.listAt(url, null, idOf);
  }

  /** Sends a change, which may safely come twice. @throws PlatformProblem */
  async put(path: string, body: object): Promise<void> {
    await this.answer(pathOn(this.access.address, path), {
      method: 'PUT',
      body: JSON.stringify(body),
      headers: { 'content-type': 'application/json' },
    });
  }

  private async listAt(url: URL, key: string | null, idOf: (row: Row) => unknown): Promise<Row[]> {
    const first = await this.pages(url, key, idOf);
    if (first.fault === undefined) return first.rows;
    const second = await this.pages(url, key, idOf);
    if (second.fault === undefined) return second.rows;
    throw new PlatformProblem(
      `${this.access.name} contradicts itself at ${url.pathname}: ${second.fault}. Nothing was imported.`,
    );
  }

  private async pages(url: URL, key: string | null, idOf: (row: Row) => unknown) {
    const rows: Row[] = [];
    const seen = new Set<unknown>();
    let next: URL | undefined = url;
    let stated: number | undefined;
    let size = 0;
    for (let page = 0; next !== undefined; page++) {
      if (page >= mostPages) return { rows, fault: `it has more than ${mostPages} pages` };
      const answer: Answer = await this.answer(next);
      size += answer.size;
      if (size > largestList * megabyte) throw this.tooLarge(largestList, url);
      for (const row of rowsOf(answer.body, key, url, this.access.name)) {
        const id = idOf(row);
        if (seen.has(id)) return { rows, fault: `"${String(id)}" is listed twice` };
        seen.add(id);
        rows.push(row);
      }
      stated = answer.total ?? stated;
      next = answer.next === undefined ? undefined : this.namedOrThrow(answer.next);
    }
    const isShort = stated !== undefined && stated !== rows.length;
    return { rows, fault: isShort ? `it says ${stated} rows and sends ${rows.length}` : undefined };
  }

  private async answer(url: URL, init: RequestInit = {}): Promise<Answer> {
    let last = '';
    for (let attempt = 0; attempt < tries; attempt++) {
      if (attempt > 0) await wait(firstPauseMilliseconds * 2 ** (attempt - 1), undefined, { signal: this.signal });
      const tried = await this.attempt(url, init);
      if (typeof tried !== 'string') return tried;
      last = tried;
    }
    throw new PlatformProblem(`${this.access.name} did not answer ${url.pathname} after ${tries} tries: ${last}.`);
  }

  /** An answer, or in words why there is none and trying again may help. */
  private async attempt(url: URL, init: RequestInit): Promise<Answer | string> {
    this.token ??= await freshToken(this.access, (at, request) => this.fetch(at, request));
    const headers = { ...(init.headers as Record<string, string>), authorization: `Bearer ${this.token}` };
    const response = await this.fetch(url, { ...init, headers });
    if (typeof response === 'string') return response;
    if (response.status === 401) {
      this.token = undefined;
      return 'it no longer knows the token it gave';
    }
    if (response.status === 429 || response.status >= 500) return `it answered ${response.status}`;
    const { name } = this.access;
    if (!response.ok)
      throw new PlatformProblem(`${name} answered ${response.status} at ${url.pathname}. Is the address right?`);
    if (!(response.headers.get('content-type') ?? '').includes('json'))
      throw new PlatformProblem(`${name} sent a page for people, not data, at ${url.pathname}. Is the address right?`);
    return this.read(response, url);
  }

  private async read(response: Response, url: URL): Promise<Answer | string> {
    const text = await readBody(response, largestAnswer * megabyte).catch(() => '');
    this.signal.throwIfAborted();
    if (text === null) throw this.tooLarge(largestAnswer, url);
    const body = jsonOf(text);
    if (body === undefined) return 'the answer broke off';
    const total = response.headers.get('x-total-count');
    const next = /<([^>]+)>\s*;[^,]*rel="?next"?/.exec(response.headers.get('link') ?? '')?.[1];
    return { body, size: text.length, next, total: total === null ? undefined : Number(total) };
  }

  private async fetch(url: URL, init: RequestInit): Promise<Response | string> {
    this.isAllowed ||= await mayBeAsked(url);
    if (!this.isAllowed)
      throw new PlatformProblem(`${this.access.address} is no address at which a learning platform can be.`);
    const signal = AbortSignal.any([this.signal, AbortSignal.timeout(answerMilliseconds)]);
    try {
      return await fetch(url, { ...init, signal, redirect: 'error' });
    } catch (error) {
      this.signal.throwIfAborted();
      return causeOf(error);
    }
  }

  private namedOrThrow(text: string): URL {
    const url = namedBy(this.access.address, text);
    if (url) return url;
    throw new PlatformProblem(`${this.access.name} names "${text.slice(0, 120)}", which is no address.`);
  }

  private tooLarge(megabytes: number, url: URL): PlatformProblem {
    return new PlatformProblem(`${this.access.name} sends more than ${megabytes} MB at ${url.pathname}.`);
  }
}

interface Answer {
  readonly body: unknown;
  /** Characters, which are about its bytes. */
  readonly size: number;
  /** What the platform names as the next page. */
  readonly next: string | undefined;
  readonly total: number | undefined;
}

/** Undefined where the text breaks off. */
function jsonOf(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return undefined;
  }
}

function rowsOf(body: unknown, key: string | null, { pathname }: URL, name: string): Row[] {
  const rows = key === null ? body : (body as Row | null)?.[key];
  if (Array.isArray(rows) && rows.every(isRow)) return rows;
  throw new PlatformProblem(`${name} sends no list${key === null ? '' : ` "${key}"`} of things at ${pathname}.`);
}

const isRow = (value: unknown): value is Row => typeof value === 'object' && value !== null && !Array.isArray(value);

function causeOf(error: unknown): string {
  if (error instanceof Error && error.name === 'TimeoutError') return 'it took longer than 20 seconds';
  const { cause } = error as { cause?: { code?: string } };
  return cause?.code === 'ECONNREFUSED' ? 'nothing listens there' : 'the connection was cut';
}
