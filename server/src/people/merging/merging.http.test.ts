import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { ChangeReply } from '#contract/changes';
import type { DuplicateReply, MergePreviewReply, PeopleReply } from '#contract/people';
import type { Problem } from '#contract/problems';
import type { TranscriptReply } from '#contract/transcripts';
import { checkLog } from '../../../test/check-log.js';
import { startTestServer, type TestClient, type TestServer } from '../../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());

const query = async <Row = { id: number }>(text: string, values: readonly unknown[] = []) =>
  (await server.database.pool.query(text, [...values])).rows as Row[];
const duplicates = async (client = registrar) => (await client.get<DuplicateReply[]>('/schools/1/duplicates')).body;
const preview = <Body = MergePreviewReply>(keptId: number, goneId: number, client = registrar) =>
  client.send<Body>('POST', '/schools/1/duplicates/preview', { keptId, goneId });
const merge = <Body = PeopleReply>(keptId: number, goneId: number, previewId: string, client = registrar) =>
  client.send<Body>('POST', '/schools/1/duplicates/merge', { keptId, goneId, previewId });
const transcriptOf = async (id: number) => (await registrar.get<TranscriptReply>(`/students/${id}/transcript`)).body;

/** All that stands of people and of what hangs on them. */
const everything = async () => {
  const tables = [
    'people',
    'enrollments',
    'grades',
    'scores',
    'transcript_entries',
    'platform_people',
    'merged_people',
  ];
  const found = await Promise.all(
    tables.map(async (table) => [
      table,
      await query(`SELECT to_jsonb(t) - 'created_at' AS row FROM ${table} t ORDER BY 1`),
    ]),
  );
  return JSON.stringify(found);
};

/** A student who has grades, and the same one again as somebody typed them in. */
let kept: number;
let gone: number;
let free: number;
beforeAll(async () => {
  const [student] = await query<{ id: number; given_name: string; family_name: string; birth_date: string }>(
    `SELECT p.*, p.birth_date::text AS birth_date FROM people p WHERE kind = 'student' AND school_id = 1
       AND id IN (SELECT student_id FROM transcript_entries) ORDER BY id LIMIT 1`,
  );
  kept = student!.id;
  const [made] = await query(
    `INSERT INTO people (sourced_id, is_made_here, kind, school_id, number, given_name, family_name, email, birth_date, year_group)
     VALUES ('made-here', true, 'student', 1, 'K-7', $1, $2, '', $3, '9') RETURNING id`,
    [`${student!.given_name}e`, student!.family_name, student!.birth_date],
  );
  gone = made!.id;
  const [section] = await query(
    `SELECT s.id FROM sections s JOIN courses c ON c.id = s.course_id WHERE c.school_id = 1
       AND s.id NOT IN (SELECT section_id FROM enrollments WHERE student_id = $1) ORDER BY s.id LIMIT 1`,
    [kept],
  );
  free = section!.id;
});

describe('two records that are of two people', () => {
  const listed = async () =>
    (await duplicates()).some(
      ({ one, other }) => [one.id, other.id].includes(kept) && [one.id, other.id].includes(gone),
    );
  const say = <Body = object>(oneId: number, otherId: number, client = registrar) =>
    client.send<Body>('PUT', '/schools/1/duplicates/different', { oneId, otherId });

  it('are not asked about again, whichever is named first, until that is undone', async () => {
    expect(await listed()).toBe(true);
    const said = await say(gone, kept);
    expect([said.status, await listed()]).toEqual([200, false]);
    const again = await say(kept, gone);
    expect([again.status, again.change]).toEqual([200, null]);
    const thing = encodeURIComponent(`different-people ${Math.min(kept, gone)}-${Math.max(kept, gone)}`);
    const history = await registrar.get<ChangeReply[]>(`/changes?thing=${thing}`);
    expect(history.body.map(({ action }) => action)).toEqual([expect.stringMatching(/are two people$/)]);
    await registrar.send('POST', `/changes/${said.change}/undo`);
    expect(await listed()).toBe(true);
  });

  it('are two: nobody differs from themselves, and of whom there is not nothing is said', async () => {
    expect((await say<Problem>(kept, kept)).body.errors[0]?.field).toBe('otherId');
    expect((await say<Problem>(kept, 999_999)).status).toBe(404);
  });
});

describe('two records of one student', () => {
  beforeEach(async () => {
    const seats = 'SELECT id FROM enrollments WHERE student_id = $1';
    await query(`DELETE FROM calculated_grades WHERE enrollment_id IN (${seats})`, [gone]);
    await query(`DELETE FROM enrollments WHERE id IN (${seats})`, [gone]);
    await query(`INSERT INTO enrollments (section_id, student_id, entered_on) VALUES ($1, $2, '2025-09-01')`, [
      free,
      gone,
    ]);
  });

  it('are found by day of birth and a name that is alike, beside no twins and no strangers', async () => {
    const found = await duplicates();
    expect(found.map(({ one, other, reasons }) => [one.id, other.id, reasons])).toContainEqual([
      kept,
      gone,
      ['same-birth-date'],
    ]);
    const viewer = await server.as('sunniva');
    expect((await duplicates(viewer)).length).toBeLessThanOrEqual(found.length);
    expect((await preview<Problem>(kept, gone, viewer)).status).toBe(403);
  });

  it('become one, with seats, grades and transcript of both, and two again by one step', async () => {
    const [before, transcript] = [await everything(), await transcriptOf(kept)];
    const { body } = await preview(kept, gone);
    expect(body).toMatchObject({ filled: [], moves: { section: 1 }, shared: [], obstacles: [] });
    expect(await everything()).toBe(before);
    const merged = await merge(kept, gone, body.previewId);
    expect(merged.status).toBe(200);
    expect(merged.body.people.some(({ id }) => id === gone)).toBe(false);
    expect(
      await query('SELECT id FROM enrollments WHERE student_id = $1 AND section_id = $2', [kept, free]),
    ).toHaveLength(1);
    expect((await transcriptOf(kept)).periods.length).toBe(transcript.periods.length);
    expect((await registrar.get(`/students/${gone}/transcript`)).status).toBe(404);
    expect((await registrar.send('POST', `/changes/${merged.change}/undo`)).status).toBe(200);
    expect(await everything()).toBe(before);
    expect(await checkLog(registrar)).toMatchObject({ state: 'whole' });
  });

  it('keep the other one where that is chosen, which takes what it lacks', async () => {
    const before = await everything();
    const { body } = await preview(gone, kept);
    expect(body.filled).toEqual(['email', 'pronoun']);
    expect(body.moves).toMatchObject({ section: expect.any(Number) as number });
    const merged = await merge(gone, kept, body.previewId);
    const one = merged.body.people.find(({ id }) => id === gone)!;
    expect([one.cells.number, one.cells.email]).toEqual(['K-7', body.gone.cells.email]);
    expect((await transcriptOf(gone)).periods.some(({ sealedAt }) => sealedAt !== null)).toBe(true);
    await registrar.send('POST', `/changes/${merged.change}/undo`);
    expect(await everything()).toBe(before);
  });

  it('who both sit in a section lose the seat without work; with work in both they stay two', async () => {
    const [own] = await query<{ id: number; section_id: number }>(
      'SELECT e.* FROM enrollments e WHERE student_id = $1 AND id IN (SELECT enrollment_id FROM grades) ORDER BY id LIMIT 1',
      [kept],
    );
    const [seat] = await query(
      `INSERT INTO enrollments (section_id, student_id, entered_on) VALUES ($1, $2, '2025-09-02') RETURNING id`,
      [own!.section_id, gone],
    );
    const before = await everything();
    const { body } = await preview(kept, gone);
    expect([body.shared.length, body.obstacles]).toEqual([1, []]);
    const merged = await merge(kept, gone, body.previewId);
    expect(
      await query('SELECT id FROM enrollments WHERE student_id = $1 AND section_id = $2', [kept, own!.section_id]),
    ).toEqual([{ id: own!.id }]);
    await registrar.send('POST', `/changes/${merged.change}/undo`);
    expect(await everything()).toBe(before);

    await query(
      `INSERT INTO grades (item_id, period_id, enrollment_id, percent, comment, scale_version_id, posted_by, posted_at, version)
       SELECT item_id, period_id, $1, percent, '', scale_version_id, posted_by, posted_at, 1 FROM grades WHERE enrollment_id = $2 LIMIT 1`,
      [seat!.id, own!.id],
    );
    const stuck = await preview(kept, gone);
    expect(stuck.body.obstacles).toEqual([{ code: 'work-in-both', section: stuck.body.shared[0] }]);
    const refused = await merge<Problem>(kept, gone, stuck.body.previewId);
    expect([refused.status, refused.body.code]).toEqual([409, 'cannot-merge']);
    await query('DELETE FROM grades WHERE enrollment_id = $1', [seat!.id]);
  });

  it('are not merged where something moved since it was looked at', async () => {
    const { body } = await preview(kept, gone);
    await query(`UPDATE people SET year_group = '11' WHERE id = $1`, [gone]);
    const refused = await merge<Problem>(kept, gone, body.previewId);
    expect([refused.status, refused.body.code]).toEqual([409, 'preview-changed']);
    expect(await query('SELECT id FROM people WHERE id = $1', [gone])).toHaveLength(1);
  });

  it.each([
    ['with itself', () => [kept, kept], 422],
    ['with nobody', () => [kept, 999_999], 404],
    ['with one of the staff', () => [kept, 1], 200],
  ] as const)('one is not merged %s', async (_what, pair, status) => {
    const [one, other] = pair() as [number, number];
    const answer = await preview<MergePreviewReply & Problem>(one, other);
    expect(answer.status).toBe(status);
    expect(answer.status === 200 ? answer.body.obstacles.length : (answer.body.errors ?? [])).toBeTruthy();
  });

  it('of another school are beyond the registrar of one', async () => {
    const [elsewhere] = await query(
      `SELECT id FROM people WHERE kind = 'student' AND school_id = 2 ORDER BY id LIMIT 1`,
    );
    await query(
      `INSERT INTO account_roles (account_id, role, school_id) SELECT id, 'grading-administrator', 1 FROM accounts WHERE username = 'harun'`,
    );
    const ofOne = await server.as('harun');
    expect((await preview(kept, gone, ofOne)).status).toBe(200);
    expect((await preview<Problem>(kept, elsewhere!.id, ofOne)).status).toBe(404);
    expect((await preview<Problem>(elsewhere!.id, gone, ofOne)).status).toBe(404);
  });
});
