import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { SheetListReply, SheetReply } from '#contract/posting';
import type { Problem } from '#contract/problems';
import type { ItemBody, ItemEffectReply, ItemReply, ReportItemsReply } from '#contract/report-items';
import { startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());

const [semester1, quarter2] = [2, 4];
const ofSchool = async () => (await registrar.get<ReportItemsReply>('/schools/1/report-items?period=4')).body;
const itemNamed = async (name: string) => (await ofSchool()).items.find((item) => item.name === name)!;
const bodyOf = ({
  id: _id,
  revision: _revision,
  scaleName: _s,
  labels: _l,
  descriptors: _d,
  postedGrades: _p,
  ...body
}: ItemReply) => body;
const preview = <Body = ItemEffectReply>(id: number, body: ItemBody, period = quarter2) =>
  registrar.send<Body>('POST', `/report-items/${id}/preview?period=${period}`, body);

/** The rows of every sixth of an item's sheets in a period, by the student's number and the section. */
async function rowsOf(itemId: number, period: number) {
  const { body } = await registrar.get<SheetListReply[]>(`/grade-sheets?period=${period}`);
  const sheets = body.find((each) => each.itemId === itemId)!.sheets.filter((_each, at) => at % 6 === 0);
  const found = new Map<string, { sheet: SheetReply; row: SheetReply['rows'][number] }>();
  for (const { sectionId } of sheets) {
    const { body: sheet } = await registrar.get<SheetReply>(`/grade-sheets/${sectionId}/${itemId}/${period}`);
    for (const row of sheet.rows) found.set(`${row.studentNumber} ${sheet.section}`, { sheet, row });
  }
  return found;
}

/** Half up to tenths, from hundredths of parts and hundredths of weights; nothing of it is shared with the server. */
const tenths = (values: readonly string[], weights: readonly number[]) => {
  const sum = values.reduce((total, value, at) => total + Math.round(Number(value) * 100) * weights[at]!, 0);
  return Math.floor((sum + 500) / 1000) / 10;
};
const weigh = (body: ItemBody, weights: readonly string[]): ItemBody => ({
  ...body,
  parts: body.parts.map((part, at) => ({ ...part, weight: weights[at]! })),
});

describe('other weights of a composite', () => {
  it('are looked at with what every student would come to, in the nearest period that the item is posted in', async () => {
    const semester = await itemNamed('Semester grade');
    const rows = await rowsOf(semester.id, semester1);
    const { status, body } = await preview(semester.id, weigh(bodyOf(semester), ['20', '20', '60']));
    expect([status, body.periodName]).toEqual([200, 'Semester 1']);
    const own = [...rows].flatMap(([key, { row }]) => {
      if (row.composite?.kind !== 'value') return [];
      const values = row.composite.parts.map(({ value }) => value);
      if (values.length < 3) return [];
      const [before, after] = [tenths(values, [40, 40, 20]), tenths(values, [20, 20, 60])];
      return before === after ? [] : [[key, before.toFixed(1), after.toFixed(1)]];
    });
    expect(own.length).toBeGreaterThan(200);
    const told = new Map(body.students.map((each) => [`${each.studentNumber} ${each.section}`, each]));
    for (const [key, before, after] of own)
      expect([key, told.get(key!)?.before, told.get(key!)?.after]).toEqual([key, before, after]);
    expect(body.rise + body.fall).toBe(body.changed);
  });

  it('leave everything as it is until they are saved, and then every sheet says what was foretold', async () => {
    const semester = await itemNamed('Semester grade');
    const draft = weigh(bodyOf(semester), ['30', '50', '20']);
    const logged = async () => (await server.database.pool.query('SELECT count(*) FROM change_log')).rows[0];
    const [before, entries] = [await rowsOf(semester.id, semester1), await logged()];
    const { body } = await preview(semester.id, draft);
    expect([await itemNamed('Semester grade'), await logged()]).toEqual([semester, entries]);
    expect(await rowsOf(semester.id, semester1)).toEqual(before);
    await registrar.send('PUT', `/report-items/${semester.id}?period=4`, { ...draft, revision: semester.revision });
    const after = await rowsOf(semester.id, semester1);
    const foretold = body.students.filter((each) => after.has(`${each.studentNumber} ${each.section}`));
    expect(foretold.length).toBeGreaterThan(100);
    for (const { studentNumber, section, after: then } of foretold) {
      const { composite } = after.get(`${studentNumber} ${section}`)!.row;
      const shown = composite?.kind === 'value' ? Math.floor(Number(composite.percent) * 10 + 0.5) / 10 : NaN;
      expect([studentNumber, shown.toFixed(1)]).toEqual([studentNumber, Number(then).toFixed(1)]);
    }
  });

  it('are refused as saving them would be', async () => {
    const semester = await itemNamed('Semester grade');
    const { status, body } = await preview<Problem>(semester.id, weigh(bodyOf(semester), ['40', '40', '10']));
    expect([status, body.code, body.errors.map(({ detail }) => detail)]).toEqual([
      422,
      'item-faulty',
      ['The weights add up to 90; they must make exactly 100.'],
    ]);
  });
});

describe('another rounding', () => {
  it('counts the labels that move and the posted grades that would differ from what is computed', async () => {
    const quarter = await itemNamed('Quarter grade');
    const { body } = await preview(quarter.id, { ...bodyOf(quarter), digits: 0 });
    expect(body.periodName).toBe('Quarter 2');
    const moved = body.students.filter(({ from, to }) => from !== to);
    expect([moved.length, moved.length > 0]).toEqual([body.moved, true]);
    const rows = await rowsOf(quarter.id, quarter2);
    const told = body.students.flatMap(({ studentNumber, section, after }) => {
      const computed = rows.get(`${studentNumber} ${section}`)?.row.computed;
      return computed ? [[Number(after), Math.floor(Number(computed.percent) + 0.5)]] : [];
    });
    expect(told.length).toBeGreaterThan(100);
    for (const [after, own] of told) expect(after).toBe(own);
    const { rows: posted } = await server.database.pool.query(
      `SELECT g.label, s.sourced_id || ' ' || c.title || ' ' || n.number AS key FROM grades g
       JOIN enrollments e ON e.id = g.enrollment_id JOIN people s ON s.id = e.student_id
       JOIN sections n ON n.id = e.section_id JOIN courses c ON c.id = n.course_id
       WHERE g.item_id = ${quarter.id} AND g.period_id = ${quarter2}`,
    );
    const labels = new Map(posted.map(({ key, label }) => [key, label]));
    const otherwise = moved.filter(
      ({ studentNumber, section, from }) => labels.get(`${studentNumber} ${section}`) === from,
    );
    expect([body.postedOtherwise, body.postedOtherwise > 0]).toEqual([otherwise.length, true]);
  });

  it('of an item that nothing is computed for changes nothing', async () => {
    const exam = await itemNamed('Exam');
    const { body } = await preview(exam.id, { ...bodyOf(exam), source: 'hand', digits: 0 });
    expect([body.changed, body.students]).toEqual([0, []]);
  });
});

it('is for registrars', async () => {
  const { body } = await registrar.get<ReportItemsReply>('/schools/1/report-items?period=4');
  const teacher = await server.as('harun');
  const { status } = await teacher.send('POST', `/report-items/1/preview?period=4`, bodyOf(body.items[0]!));
  expect(status).toBe(403);
});
