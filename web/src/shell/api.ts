import { noteReachability } from './reachability';
import { isAttended, noteHeard } from './session-pause';
import { noteSession } from './session-state';
import type { Problem } from '#contract/problems';

/** A refusal by the server, with the fields concerned; shown where it belongs rather than thrown away. */
export class ProblemError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
    this.name = 'ProblemError';
  }

  /** What is wrong with a field, or undefined. */
  fault(field: string): string | undefined {
    return this.problem.errors.find((error) => error.field === field)?.detail;
  }

  /** What is wrong beside the fields that a dialog shows, in sentences. */
  besides(fields: readonly string[]): string {
    const others = this.problem.errors.filter(({ field }) => !fields.includes(field));
    return [...new Set(others.map(({ detail }) => detail))].join(' ');
  }
}

let csrfToken = '';

/** The session's token, sent back with every write. */
export function setCsrfToken(token: string): void {
  csrfToken = token;
}

export const api = {
  get: <Reply>(path: string) => request<Reply>('GET', path),
  post: <Reply>(path: string, body?: object) => request<Reply>('POST', path, body),
  put: <Reply>(path: string, body: object) => request<Reply>('PUT', path, body),
  /** One of at most 60 kB that reaches the server though the tab is closed meanwhile. */
  putThoughLeft: <Reply>(path: string, body: object) => request<Reply>('PUT', path, body, { keepalive: true }),
  remove: <Reply = void>(path: string) => request<Reply>('DELETE', path),
};

const changes = new WeakMap<object, number>();

/** The change that a request made, by its reply; undefined where it made none that can be undone. */
export function changeOf(reply: object): number | undefined {
  return changes.get(reply);
}

/** @throws ProblemError when the server refuses, or cannot be reached */
async function request<Reply>(method: string, path: string, body?: object, more?: RequestInit): Promise<Reply> {
  const isFile = body instanceof FormData;
  const attended = isAttended();
  const response = await fetch(`/api${path}`, {
    method,
    headers: {
      'x-csrf-token': csrfToken,
      ...(body && !isFile ? { 'content-type': 'application/json' } : {}),
      ...(attended ? {} : { 'x-wombat-unattended': '1' }),
    },
    ...(body ? { body: isFile ? body : JSON.stringify(body) } : {}),
    ...more,
  }).catch(() => undefined);
  if (!response) {
    noteReachability(false);
    throw new ProblemError(unreachable);
  }
  noteReachability(true);
  if (attended && response.status !== 401) noteHeard();
  if (response.status === 204) return undefined as Reply;
  // What stands in front of a server that is down answers with a page of its own.
  const reply: unknown = await response.json().catch(() => ({ ...unreachable, status: response.status }));
  if (response.status === 401 && path !== '/session') noteSession('ended');
  if (!response.ok) throw new ProblemError(reply as Problem);
  const change = response.headers.get('x-wombat-change');
  if (change !== null && typeof reply === 'object' && reply !== null) changes.set(reply, Number(change));
  return reply as Reply;
}

const unreachable: Problem = {
  type: 'urn:wombat:problem:unexpected',
  code: 'unexpected',
  title: 'The server does not answer',
  status: 503,
  detail: 'What you typed is kept here. Try again in a moment; what reached the server before shows as saved.',
  errors: [],
};
