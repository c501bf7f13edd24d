import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { PlatformContent } from './platform-content.js';
import { startPracticePlatform, type PracticePlatform } from './start-practice-platform.js';

const content: PlatformContent = {
  classes: [{ id: 'c1', title: 'Knots', code: 'K-1', term: 'T1' }],
  people: ['Wren', 'Iolo', 'Sana'].map((givenName, at) => ({
    id: `p${at}`,
    identifier: null,
    email: null,
    givenName,
    familyName: 'Fathom',
    birthDate: at === 0 ? '2010-02-03' : null,
  })),
  members: [{ classId: 'c1', personId: 'p1' }],
  groups: [{ id: 'g1', classId: 'c1', title: 'Splices', weight: 60 }],
  lineItems: [
    {
      id: 'a1',
      classId: 'c1',
      label: 'Eye splice',
      scoreMaximum: 20,
      groupId: 'g1',
      dueOn: '2026-01-09',
      isTotal: false,
    },
    { id: 't1', classId: 'c1', label: 'Overall', scoreMaximum: 100, groupId: null, dueOn: null, isTotal: true },
  ],
  results: [
    { lineItemId: 'a1', personId: 'p1', score: 17.5 },
    { lineItemId: 'a1', personId: 'p2', score: null },
  ],
  letters: [],
};

let platform: PracticePlatform;
let token: string;
beforeAll(async () => {
  const habits = {
    name: 'Practice',
    clientId: 'us',
    clientSecret: 'it',
    pageSize: 2,
    tellsTotal: true,
    tokenSeconds: 60,
  };
  platform = await startPracticePlatform(habits, () => Promise.resolve(content));
});
afterAll(() => platform.stop());
beforeEach(async () => {
  platform.faults.clear();
  token = await tokenFor('it');
});

async function tokenFor(secret: string): Promise<string> {
  const body = new URLSearchParams({ grant_type: 'client_credentials', client_id: 'us', client_secret: secret });
  const response = await fetch(`${platform.address}/token`, { method: 'POST', body });
  return ((await response.json()) as { access_token?: string }).access_token ?? '';
}
async function get(path: string) {
  const response = await fetch(platform.address + path, { headers: { authorization: `Bearer ${token}` } });
  return { status: response.status, headers: response.headers, body: (await response.json()) as never };
}

describe('a practice platform', () => {
  // 1EdTech LTI Assignment and Grade Services 2.0: media types and fields; from memory.
  it('tells line items and results in the form of Assignment and Grade Services', async () => {
    const items = await get('/ags/classes/c1/lineitems');
    expect(items.headers.get('content-type')).toBe('application/vnd.ims.lis.v2.lineitemcontainer+json');
    expect(items.body).toEqual([
      {
        id: '/ags/lineitems/a1',
        label: 'Eye splice',
        scoreMaximum: 20,
        tag: 'g1',
        endDateTime: '2026-01-09T23:59:00Z',
      },
      { id: '/ags/lineitems/t1', label: 'Overall', scoreMaximum: 100, tag: 'total' },
    ]);
    const results = await get('/ags/lineitems/a1/results');
    expect(results.headers.get('content-type')).toBe('application/vnd.ims.lis.v2.resultcontainer+json');
    expect(results.body).toMatchObject([
      { scoreOf: '/ags/lineitems/a1', userId: 'p1', resultScore: 17.5, resultMaximum: 20 },
      { userId: 'p2' },
    ]);
  });

  // 1EdTech OneRoster 1.2, rostering and gradebook over REST; RFC 8288 for the link; from memory.
  it('tells rosters page by page under the names of OneRoster', async () => {
    const first = await get('/ims/oneroster/rostering/v1p2/students');
    expect(first.body).toMatchObject({ users: [{ sourcedId: 'p0', givenName: 'Wren' }, { sourcedId: 'p1' }] });
    expect(first.headers.get('x-total-count')).toBe('3');
    const next = /<([^>]+)>; rel="next"/.exec(first.headers.get('link') ?? '')![1]!;
    const second = await get(next);
    expect(second.body).toMatchObject({ users: [{ sourcedId: 'p2' }] });
    expect(second.headers.get('link')).toBeNull();
    expect((await get('/ims/oneroster/gradebook/v1p2/classes/c1/categories')).body).toEqual({
      categories: [{ sourcedId: 'g1', status: 'active', title: 'Splices', weight: 60 }],
    });
  });

  it('gives no token for another secret and answers nobody without one', async () => {
    expect(await tokenFor('other')).toBe('');
    token = 'made up';
    expect((await get('/ims/oneroster/rostering/v1p2/classes')).status).toBe(401);
  });

  it('asked to be stale tells what it held before its last change', async () => {
    platform.change({ ...content, classes: [] });
    platform.faults.add({ kind: 'staleAnswer', path: '/classes', times: 1 });
    const path = '/ims/oneroster/rostering/v1p2/classes';
    expect((await get(path)).body).toMatchObject({ classes: [{ title: 'Knots' }] });
    expect((await get(path)).body).toEqual({ classes: [] });
    platform.change(content);
  });

  it('takes orders to fail over HTTP, so many times, after so many answers', async () => {
    const order = { kind: 'error', path: '/classes', times: 1, after: 1 };
    const response = await fetch(`${platform.address}/practice/faults`, {
      method: 'POST',
      body: JSON.stringify(order),
    });
    expect(response.status).toBe(202);
    const path = '/ims/oneroster/rostering/v1p2/classes';
    const statuses = [];
    for (let time = 0; time < 3; time++) statuses.push((await get(path)).status);
    expect(statuses).toEqual([200, 500, 200]);
  });
});
