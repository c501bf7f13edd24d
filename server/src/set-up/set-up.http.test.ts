import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { CopySetUpReply, CoursesReply } from '#contract/courses';
import type { ReportItemsReply } from '#contract/report-items';
import type { FirstStepsReply, SetUpReply } from '#contract/set-up';
import { startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());

const check = async (period = 4) => (await registrar.get<SetUpReply>(`/set-up-check?period=${period}`)).body;
const courses = async () => (await registrar.get<CoursesReply>('/schools/1/courses?period=4')).body;
const idOf = ({ courses: all }: CoursesReply, title: string) => all.find(({ cells }) => cells.title === title)!.id;

describe('the first steps of a school', () => {
  it('are counted in the year that the period lies in', async () => {
    const { body } = await registrar.get<FirstStepsReply>('/schools/1/first-steps?period=4');
    const { rows } = await server.database.pool.query<{ sections: number; enrollments: number }>(`
      SELECT count(DISTINCT s.id)::int AS sections, count(*)::int AS enrollments FROM enrollments e
      JOIN sections s ON s.id = e.section_id JOIN periods p ON p.id = s.period_id WHERE p.school_id = 1`);
    expect(body).toMatchObject({ ...rows[0], students: 560, courses: 48, items: 4, rules: 4, grades: 1 });
    expect((await registrar.get('/schools/2/first-steps?period=4')).status).toBe(404);
  });
});

describe('the check of the set-up', () => {
  it('lists every fault with the way to it, and says what it looked at', async () => {
    const { faults, checked } = await check();
    expect(checked).toEqual({ scales: 3, periods: 7, items: 4, courses: 48, policies: 3 });
    expect(faults.map(({ place, code, says }) => [place, code, says])).toEqual([
      [
        'report-items',
        'part-not-reported',
        'Semester grade of Argument and Assembly needs Exam, which the course does not report.',
      ],
    ]);
    expect((await check(13)).faults).toEqual([]);
    expect((await check(23)).faults).toEqual([]);
  });

  it('finds a course without credits as soon as it has none, and forgets it when it has', async () => {
    const all = await courses();
    const knots = all.courses.find(({ cells }) => cells.title === 'Knots')!;
    const save = async (credits: string) => {
      const { revision } = (await courses()).courses.find(({ id }) => id === knots.id)!;
      return registrar.send('PUT', '/schools/1/courses?period=4', {
        changes: [{ id: knots.id, revision, cells: { ...knots.cells, credits } }],
        removed: [],
      });
    };
    await save('0');
    expect((await check()).faults.find(({ code }) => code === 'course-without-credits')).toMatchObject({
      place: 'courses',
      search: `?course=${knots.id}`,
    });
    await save('');
    expect((await check()).faults).toHaveLength(1);
  });
});

describe('copying a set-up', () => {
  it('tells first what would change and what to know, then does it', async () => {
    const all = await courses();
    const [from, honours, knots] = ['Argument and Assembly', 'Argument and Assembly, honours', 'Knots'].map((title) =>
      idOf(all, title),
    );
    const request = { toIds: [honours, knots], fromPeriodId: 4, parts: ['items', 'scale', 'facts'] };
    const { body: preview } = await registrar.send<CopySetUpReply>('POST', `/courses/${from}/copy/preview`, request);
    expect(
      preview.courses.map(({ title, changes, warnings }) => [
        title,
        changes,
        warnings.map((each) => each.replace(/^\d+/, 'n')),
      ]),
    ).toEqual([
      [
        'Knots',
        ['Exam is omitted'],
        ['n grades are posted in it', 'it runs for a semester, Argument and Assembly for a year'],
      ],
      ['Argument and Assembly, honours', ['Exam is omitted'], ['n grades are posted in it']],
    ]);
    const covers = async () => {
      const { body } = await registrar.get<ReportItemsReply>('/schools/1/report-items?period=4');
      return body.courses.find(({ id }) => id === honours)!.covers.find(({ itemId }) => itemId === 101);
    };
    expect(await covers()).toMatchObject({ reports: true, kind: 'rule' });
    const { change } = await registrar.send('POST', `/courses/${from}/copy`, { ...request, parts: ['items', 'facts'] });
    expect(await covers()).toMatchObject({ reports: false, kind: 'exception' });
    expect((await registrar.send('POST', `/changes/${change}/undo`)).status).toBe(200);
    expect([await covers(), await courses()]).toEqual([expect.objectContaining({ kind: 'rule' }), all]);
  });
});
