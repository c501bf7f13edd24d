import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { DecidedReply, MatchDecisionBody, MatchesReply } from '#contract/matching';
import type { PlatformReply } from '#contract/platforms';
import type { ChangeReply, LogReply, UndoReply } from '#contract/changes';
import type { Problem } from '#contract/problems';
import { PlatformsService } from '#server/platforms';
import {
  connectPractice,
  practiceContent,
  startPractice,
  type PlatformContent,
  type PracticePlatform,
} from '../../test/practice-platform.js';
import { startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
let content: PlatformContent;
let platform: PracticePlatform;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
  content = await practiceContent(server);
  platform = await startPractice(content);
});
afterAll(async () => {
  await platform.stop();
  await server.stop();
});
beforeEach(() => platform.faults.clear());

let names = 0;
/** Connects it under a name of its own and waits until it was read, or could not be. */
async function connected(over: object = {}): Promise<PlatformReply> {
  const { id } = await connectPractice(server, platform, { name: `Practice ${names++}`, ...over });
  return platformOf(id);
}
const platformOf = async (id: number) =>
  (await registrar.get<PlatformReply[]>('/platforms?school=1')).body.find((each) => each.id === id)!;
const matchesOf = async ({ id }: { id: number }) =>
  (await registrar.get<MatchesReply>(`/platforms/${id}/matches`)).body;
const decide = <Body = DecidedReply>({ id }: { id: number }, ...decisions: MatchDecisionBody[]) =>
  registrar.send<Body>('POST', `/platforms/${id}/decisions`, { decisions });
const readAgain = async (id: number) => {
  await registrar.send('POST', `/platforms/${id}/read`);
  await server.application.get(PlatformsService, { strict: false }).finished(id);
  return platformOf(id);
};

describe('a platform that is connected', () => {
  it('is read page by page, its students found by number, everything else proposed', async () => {
    const kept = await connected();
    expect(kept).toMatchObject({ state: 'read', classes: 3, problem: null, people: content.people.length });
    const { classes, names, people, peopleFound } = await matchesOf(kept);
    expect(peopleFound).toBe(content.people.length - 1);
    expect(people).toMatchObject([{ state: 'proposed', match: { by: 'nameAndBirthDate' } }]);
    expect(classes.map(({ title, state }) => [title, state])).toEqual([
      ['Boatbuilding (1)', 'conflicting'],
      ['Boats copy', 'conflicting'],
      ['Harbour History (1)', 'proposed'],
    ]);
    expect(names.map(({ name, state, places }) => [name, state, places.length])).toEqual(
      expect.arrayContaining([
        ['HW', 'proposed', 3],
        ['Tests', 'proposed', 3],
        ['Quizzes & Tests', 'conflicting', 3],
        ['Quarter grade', 'proposed', 3],
        ['A', 'proposed', 1],
      ]),
    );
  });

  it('keeps what was decided when it is read again, and what is gone comes back as it was', async () => {
    const kept = await connected();
    const harbour = (await matchesOf(kept)).classes.find(({ title }) => title === 'Harbour History (1)')!;
    const target = String(harbour.best!.sectionId);
    await decide(kept, { kind: 'class', ids: [harbour.id], decision: 'joined', target });
    const whole = content;
    platform.change({
      ...whole,
      classes: whole.classes.slice(0, 1),
      members: whole.members.filter(({ classId }) => classId === whole.classes[0]!.id),
    });
    expect(await readAgain(kept.id)).toMatchObject({ state: 'read', classes: 1 });
    platform.change(whole);
    await readAgain(kept.id);
    expect((await matchesOf(kept)).classes.find(({ id }) => id === harbour.id)).toMatchObject({
      state: 'joined',
      sectionId: Number(target),
    });
  });

  it('is refused twice under one name, and with an address that is none', async () => {
    const { name } = await connected();
    const request = { schoolId: 1, name, address: platform.address, clientId: 'wombat', clientSecret: 'burrow' };
    const twice = await registrar.send<Problem>('POST', '/platforms', request);
    expect([twice.status, twice.body.code]).toEqual([409, 'platform-exists']);
    const odd = await registrar.send<Problem>('POST', '/platforms', { ...request, name: 'Odd', address: 'reed bed' });
    expect([odd.status, odd.body.errors]).toEqual([
      422,
      [{ field: 'address', detail: 'an address such as https://platform.example' }],
    ]);
  });

  it('never tells its secret, and a teacher sees none of it', async () => {
    const kept = await connected();
    expect(JSON.stringify(await matchesOf(kept))).not.toContain('burrow');
    const teacher = await server.as('harun');
    expect((await teacher.get(`/platforms/${kept.id}/matches`)).status).toBe(403);
  });

  it('is forgotten with all its joins when it is disconnected', async () => {
    const { id } = await connected();
    expect((await registrar.send('DELETE', `/platforms/${id}`)).status).toBe(204);
    expect((await registrar.get(`/platforms/${id}/matches`)).status).toBe(404);
  });
});

describe('a platform that fails', () => {
  it.each([
    ['answers slowly', { kind: 'slow', path: '/classes', times: 1 }],
    ['answers 500 twice', { kind: 'error', path: '/lineitems', times: 2 }],
    ['breaks off an answer', { kind: 'cut', path: '/students', times: 2 }],
    ['lets its token run out half way', { kind: 'expiredToken', path: '/categories', times: 1, after: 1 }],
    ['repeats a page once', { kind: 'repeatedPage', path: '/rostering/v1p2/students', times: 1, after: 1 }],
  ] as const)('and %s is read all the same', async (_what, fault) => {
    platform.faults.add(fault);
    const kept = await connected();
    expect(kept).toMatchObject({ state: 'read', problem: null, classes: 3, people: content.people.length });
  });

  it.each([
    ['goes on answering 500', { kind: 'error', path: '/lineitems', times: 99 }, 'after 4 tries: it answered 500.'],
    [
      'goes on repeating a page',
      { kind: 'repeatedPage', path: '/rostering/v1p2/students', times: 99 },
      'is listed twice. Nothing was imported.',
    ],
    [
      'lies about its count',
      { kind: 'wrongTotal', path: '/rostering/v1p2/classes', times: 99 },
      'it says 10 rows and sends 3. Nothing was imported.',
    ],
    ['sends a page for people', { kind: 'page', path: '/classes', times: 1 }, 'sent a page for people, not data, at'],
  ] as const)('and %s changes nothing and says why', async (_what, fault, says) => {
    const kept = await connected();
    const before = await matchesOf(kept);
    platform.faults.add(fault);
    const failed = await readAgain(kept.id);
    expect(failed.state).toBe('failed');
    expect(failed.problem).toContain(says);
    expect((await matchesOf(kept)).classes).toEqual(before.classes);
    platform.faults.clear();
    expect(await readAgain(kept.id)).toMatchObject({ state: 'read', problem: null });
  });

  it('is named when the secret is wrong or nothing listens', async () => {
    expect((await connected({ clientSecret: 'other' })).problem).toContain(
      'does not accept the client id with this secret',
    );
    const nobody = createServer().listen(0);
    const { port } = nobody.address() as AddressInfo;
    await new Promise((resolve) => nobody.close(resolve));
    const gone = await connected({ address: `http://127.0.0.1:${port}` });
    expect(gone.problem).toContain('gives no token at');
  });

  it('is read anew by a server that was stopped half way', async () => {
    const { id } = await connected();
    await server.database.pool.query(`UPDATE learning_platforms SET state = 'reading', read_at = NULL WHERE id = $1`, [
      id,
    ]);
    const platforms = server.application.get(PlatformsService, { strict: false });
    await platforms.onApplicationBootstrap();
    await platforms.finished(id);
    expect((await platformOf(id)).state).toBe('read');
  });
});

describe('a decision', () => {
  it('holds for a name wherever it occurs, makes the next platform’s proposal surer, and can be taken back', async () => {
    const kept = await connected();
    const conflict = (await matchesOf(kept)).names.find(({ name }) => name === 'Quizzes & Tests')!;
    const [quizzes] = conflict.between;
    const ids = conflict.places.map(({ id }) => id);
    const { body, change } = await decide(kept, { kind: 'group', ids, decision: 'joined', target: quizzes!.key });
    expect(body.changed).toBe(3);
    const now = (await matchesOf(kept)).names.find(({ key }) => key === conflict.key);
    expect(now).toMatchObject({ state: 'joined', target: quizzes!.key });
    const next = (await matchesOf(await connected())).names.find(({ key }) => key === conflict.key);
    expect(next).toMatchObject({
      state: 'proposed',
      best: { key: quizzes!.key, confidence: 97, reasons: [{ kind: 'within' }, { kind: 'earlier', times: 3 }] },
    });
    const { body: changes } = await registrar.get<ChangeReply[]>('/changes/mine');
    expect(changes.find(({ id }) => id === change)!.things[0]!.called).toBe('the match of group Quizzes & Tests');
    const undone = await registrar.send<UndoReply>('POST', `/changes/${change}/undo`);
    expect([undone.status, undone.body.action]).toEqual([200, expect.stringMatching(/^undo: decide matches of /)]);
    expect((await matchesOf(kept)).names.find(({ key }) => key === conflict.key)).toMatchObject({
      state: 'conflicting',
    });
  });

  it('to leave a class out takes its names out of what waits', async () => {
    const kept = await connected();
    const copy = (await matchesOf(kept)).classes.find(({ title }) => title === 'Boats copy')!;
    await decide(kept, { kind: 'class', ids: [copy.id], decision: 'ignored', target: null });
    const { names, classes } = await matchesOf(kept);
    expect(names.find(({ name }) => name === 'HW')!.places).toHaveLength(2);
    expect(classes.map(({ state }) => state)).toEqual(['proposed', 'ignored', 'proposed']);
  });

  it('is not taken back over a later one about the same', async () => {
    const kept = await connected();
    const { places, best } = (await matchesOf(kept)).names.find(({ name }) => name === 'HW')!;
    const ids = places.map(({ id }) => id);
    const first = await decide(kept, { kind: 'group', ids, decision: 'joined', target: best!.key });
    await decide(kept, { kind: 'group', ids: [ids[0]!], decision: 'ignored', target: null });
    const undone = await registrar.send<Problem>('POST', `/changes/${first.change}/undo`);
    expect([undone.status, undone.body.code]).toEqual([409, 'moved-on']);
  });

  it('that makes two classes one section is refused as a whole', async () => {
    const kept = await connected();
    const { classes } = await matchesOf(kept);
    const [boats, copy, harbour] = classes as [(typeof classes)[0], (typeof classes)[0], (typeof classes)[0]];
    const target = String(boats.sectionId);
    const answer = await decide<Problem>(
      kept,
      { kind: 'class', ids: [harbour.id], decision: 'joined', target: String(harbour.best!.sectionId) },
      { kind: 'class', ids: [boats.id, copy.id], decision: 'joined', target },
    );
    expect([answer.status, answer.body.detail]).toEqual([
      409,
      'Boatbuilding 1 would be joined to "Boatbuilding (1)" and "Boats copy". Ignore one of them, or join it to another section. Nothing was saved.',
    ]);
    expect((await matchesOf(kept)).classes).toEqual(classes);
  });

  it.each([
    ['a category of another school', { kind: 'group', decision: 'joined', target: '20' }, 'decisions.0.target'],
    ['a label that no scale has', { kind: 'letter', decision: 'joined', target: 'Q' }, 'decisions.0.target'],
    ['things of another kind', { kind: 'total', decision: 'ignored', target: null }, 'decisions.0.ids'],
  ] as const)('about %s is refused by field', async (_what, body, field) => {
    const kept = await connected();
    const kind = body.kind === 'total' ? 'group' : body.kind;
    const ids = (await matchesOf(kept)).names.find((name) => name.kind === kind)!.places.map(({ id }) => id);
    const answer = await decide<Problem>(kept, { ...body, ids });
    expect([answer.status, answer.body.errors.map((error) => error.field)]).toEqual([422, [field]]);
  });

  it('about a student is kept through the next reading', async () => {
    const kept = await connected();
    const [doubtful] = (await matchesOf(kept)).people;
    await decide(kept, {
      kind: 'person',
      ids: [doubtful!.id],
      decision: 'joined',
      target: String(doubtful!.candidates[0]!.id),
    });
    await readAgain(kept.id);
    expect((await matchesOf(kept)).people).toMatchObject([
      { id: doubtful!.id, state: 'joined', target: doubtful!.candidates[0] },
    ]);
    const { status, body } = await registrar.get<LogReply>('/log');
    expect([status, JSON.stringify(body.entries[0])]).toEqual([200, expect.stringContaining(doubtful!.name)]);
  });
});
