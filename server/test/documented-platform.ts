import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';

/*
 * A learning platform as somebody writes it who has read docs/formats.md and nothing else: it lies beneath a path, takes id and
 * secret in the header alone, names the next page by a path, and its columns by paths with a query.
 */

export interface DocumentedContent {
  readonly students: readonly { sourcedId: string; identifier: string; givenName: string; familyName: string }[];
  /** Of the one column of work; as raw JSON, so that it may hold what no number is. */
  readonly results: readonly {
    readonly userId: string;
    readonly resultScore: string;
    readonly resultMaximum: number;
  }[];
}

const clientId = 'reader';
const clientSecret = 'of the document';

export interface DocumentedPlatform {
  readonly address: string;
  readonly clientId: string;
  readonly clientSecret: string;
  stop(): Promise<void>;
}

export async function startDocumentedPlatform(content: DocumentedContent): Promise<DocumentedPlatform> {
  const server = createServer((request, response) => answer(content, request, response));
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as AddressInfo;
  return {
    address: `http://127.0.0.1:${port}/school/lms`,
    clientId,
    clientSecret,
    stop: () => new Promise((resolve) => server.close(() => resolve())),
  };
}

function answer(content: DocumentedContent, request: IncomingMessage, response: ServerResponse): void {
  const { pathname, searchParams } = new URL(request.url!, 'http://here');
  const path = pathname.replace('/school/lms', '');
  const say = (status: number, json: string, headers: Record<string, string> = {}) =>
    response.writeHead(status, { 'content-type': 'application/json', ...headers }).end(json);
  if (path === '/token') {
    const [, given = ''] = request.headers.authorization?.split('Basic ') ?? [];
    // Each is written as in a form (RFC 6749, 2.3.1).
    const [id, secret] = atob(given)
      .split(':')
      .map((each) => new URLSearchParams(`x=${each}`).get('x'));
    const isRight = id === clientId && secret === clientSecret;
    return void (isRight ? say(200, '{"access_token":"t1","token_type":"Bearer","expires_in":60}') : say(401, '{}'));
  }
  if (request.headers.authorization !== 'Bearer t1') return void say(401, '{}');
  const page = Number(searchParams.get('page') ?? 1);
  const listed = (name: string, rows: readonly object[], size = 7) => {
    const next = page * size < rows.length ? { link: `<${pathname}?page=${page + 1}>; rel="next"` } : {};
    say(200, JSON.stringify({ [name]: rows.slice((page - 1) * size, page * size) }), next as Record<string, string>);
  };
  const students = content.students.map((student) => ({ ...student, status: 'active', role: 'student' }));
  switch (path) {
    case '/ims/oneroster/rostering/v1p2/students':
    case '/ims/oneroster/rostering/v1p2/classes/1/students':
      return listed('users', students);
    case '/ims/oneroster/rostering/v1p2/demographics':
      return listed('demographics', []);
    case '/ims/oneroster/rostering/v1p2/classes':
      return listed('classes', [{ sourcedId: '1', title: 'Tidal Ecology (1)', terms: [{ sourcedId: 'q2' }] }]);
    case '/ims/oneroster/gradebook/v1p2/classes/1/categories':
      return listed('categories', [{ sourcedId: 'g1', title: 'Homework' }]);
    case '/ims/oneroster/gradebook/v1p2/scoreScales':
      return listed('scoreScales', []);
    case '/ags/classes/1/lineitems':
      return void say(
        200,
        JSON.stringify([
          {
            id: '/columns/7?of=1',
            label: 'Reading log',
            scoreMaximum: 10,
            endDateTime: '2026-01-10T22:30:00Z',
            tag: 'g1',
          },
        ]),
      );
    case '/columns/7/results': {
      if (searchParams.get('of') !== '1') return void say(404, '{}');
      const rows = content.results.map(
        ({ userId, resultScore, resultMaximum }, at) =>
          `{"id":"r${at}","userId":"${userId}","resultScore":${resultScore},"resultMaximum":${resultMaximum}}`,
      );
      return void say(200, `[${rows.join(',')}]`);
    }
    default:
      return void say(404, '{}');
  }
}
