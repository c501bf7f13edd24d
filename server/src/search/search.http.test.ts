import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { SearchHitReply } from '#contract/search';
import type { StudentReply } from '#contract/transcripts';
import { auditNow } from '../../test/audit-now.js';
import { startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
let teacher: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
  teacher = await server.as('harun');
});
afterAll(() => server.stop());

const find = async (client: TestClient, text: string) =>
  (await client.get<SearchHitReply[]>(`/search?text=${encodeURIComponent(text)}`)).body;

describe('searching', () => {
  it('finds sections by title, number and teacher, in any order of the words', async () => {
    const hits = await find(registrar, 'ecology TIDAL 3');
    expect(hits.map(({ kind, title }) => [kind, title])).toEqual([['section', 'Tidal Ecology 3']]);
  });

  it('forgives how a name is spelled, and lists who is spelled so first', async () => {
    const exact = await find(registrar, 'Harun Nance');
    expect(exact[0]).toMatchObject({ kind: 'section', detail: 'Harun Nance' });
    expect(exact.find(({ kind }) => kind === 'staff')).toMatchObject({ title: 'Nance, Harun' });
    const spelled = await find(registrar, 'Nanec, Haurn');
    expect(spelled.map(({ kind, id }) => [kind, id])).toEqual(exact.map(({ kind, id }) => [kind, id]));
    expect(await find(registrar, 'harun.nanec@')).toEqual([]);
  });

  it('finds a renamed person by the new name at once, and by the old one no more', async () => {
    const { rows } = await server.database.pool.query<{ id: number }>(
      `UPDATE people SET family_name = 'Quillfeather' WHERE id = (SELECT max(id) FROM people WHERE kind = 'student') RETURNING id`,
    );
    expect((await find(registrar, 'quilfeather')).map(({ id }) => id)).toEqual([rows[0]!.id]);
    await server.database.pool.query(`UPDATE people SET family_name = 'Thistlewood' WHERE id = $1`, [rows[0]!.id]);
    expect(await find(registrar, 'quillfeather')).toEqual([]);
  });

  it('shows a viewer of one school nobody of another, and no courses to a teacher', async () => {
    const viewer = await server.as('sunniva');
    const [mine, all] = [await find(viewer, 'e'), await find(registrar, 'e')];
    expect(new Set(mine.map(({ schoolId }) => schoolId))).toEqual(new Set([1]));
    // Whose students with findings come first is another question.
    const kinds = (hits: typeof mine) => new Set(hits.map(({ kind }) => kind).filter((kind) => kind !== 'finding'));
    expect(kinds(mine)).toEqual(kinds(all));
    const primary = (await registrar.get<StudentReply[]>('/students?school=2')).body[0]!;
    expect(await find(viewer, primary.name)).not.toContainEqual(expect.objectContaining({ id: primary.id }));
    expect(await find(registrar, primary.name)).toContainEqual(expect.objectContaining({ id: primary.id }));
  });

  it('finds a student by number and by either name', async () => {
    const [student] = (await registrar.get<StudentReply[]>('/students?school=1&text=wick')).body;
    const [family, given] = student!.name.split(', ');
    for (const text of [student!.studentNumber, `${given} ${family}`, student!.name, `${family},`]) {
      expect((await find(registrar, text)).map(({ id, kind }) => `${kind} ${id}`)).toContain(`student ${student!.id}`);
    }
  });

  it('finds a student by the number on the card, by the roster’s own id and by the address', async () => {
    const { rows } = await server.database.pool.query<{ id: number; sourced_id: string; email: string }>(
      `UPDATE people SET number = 'K-4711' WHERE id = (SELECT max(id) FROM people WHERE kind = 'student' AND school_id = 3 AND email <> '') RETURNING *`,
    );
    const { id, sourced_id: sourcedId, email } = rows[0]!;
    for (const text of ['k-4711', sourcedId, email])
      expect(await find(registrar, text)).toMatchObject([{ id, kind: 'student', detail: 'K-4711' }]);
    const { body } = await registrar.get<StudentReply[]>('/students?school=3&text=k-4711');
    expect(body.map((student) => [student.id, student.studentNumber])).toEqual([[id, 'K-4711']]);
  });

  it('finds what the last audit of a period found, by the words of its rule and by the student, for who may read it', async () => {
    await auditNow(registrar, 4);
    const byRule = (await find(registrar, 'missing grade')).filter((hit) => hit.kind === 'finding');
    expect(byRule).toMatchObject([
      { title: 'Grade missing', periodId: 4, schoolId: 1, filter: { rule: 'grade-missing' } },
    ]);
    expect(byRule[0]!.detail).toMatch(/^\d+ findings, Quarter 2$/);
    const { rows } = await server.database.pool.query<{ name: string; key: string; rule: string }>(`
      SELECT p.given_name || ' ' || p.family_name AS name, f.rule_id AS rule, f.rule_id || ':' || f.enrollment_id || ':::' || f.item_id AS key
      FROM audit_findings f JOIN enrollments e ON e.id = f.enrollment_id JOIN people p ON p.id = e.student_id
      WHERE f.rule_id = 'label-not-on-scale' ORDER BY f.id LIMIT 1`);
    const ofStudent = (await find(registrar, rows[0]!.name)).filter((hit) => hit.kind === 'finding');
    expect(ofStudent.map(({ filter }) => filter)).toContainEqual({ finding: rows[0]!.key });
    expect((await find(teacher, 'missing grade')).filter(({ kind }) => kind === 'finding')).toEqual([]);
    expect((await find(await server.as('mirela'), rows[0]!.name)).filter(({ kind }) => kind === 'finding')).toEqual([]);
    expect(
      (await find(await server.as('sunniva'), 'label scale')).filter(({ kind }) => kind === 'finding'),
    ).toHaveLength(1);
  });

  it('shows a teacher their own sections and nobody', async () => {
    const hits = await find(teacher, 'e');
    expect(hits.length).toBeGreaterThan(0);
    expect(hits.every(({ kind, detail }) => kind === 'section' && detail === 'Harun Nance')).toBe(true);
  });

  it.each([
    ['a percent sign', '%'],
    ['an underscore', '_'],
    ['a backslash', '\\'],
    ['a quotation mark', `' OR true --`],
  ])('takes %s for what it is', async (_what, text) => {
    expect(await find(registrar, text)).toEqual([]);
  });

  it('finds nothing for nothing, and refuses NUL', async () => {
    expect(await find(registrar, '  ')).toEqual([]);
    expect((await registrar.get('/search?text=%00')).status).toBe(422);
  });
});

it('students are listed by name, each school its own', async () => {
  const { body: upper } = await registrar.get<StudentReply[]>('/students?school=1');
  const { body: primary } = await registrar.get<StudentReply[]>('/students?school=2');
  expect([upper.length, primary.length]).toEqual([560, 330]);
  expect(upper.map(({ name }) => name)).toEqual(upper.map(({ name }) => name).toSorted());
  expect(upper.some(({ id }) => primary.some((student) => student.id === id))).toBe(false);
});
