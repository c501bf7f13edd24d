import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { decimalOrThrow, formatDecimal, fromDecimal, roundHalfUp, roundTo } from '#core/numbers';
import type { SheetListReply, SheetReply } from '#contract/posting';
import type { Problem } from '#contract/problems';
import { changeOf } from '../../test/sheets.js';
import { startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());

const [quarterGrade, exam, semesterGrade] = [1, 101, 102];
const [semester1, quarter1, quarter2] = [2, 3, 4];
const sectionNamed = async (name: string) => {
  const { body } = await registrar.get<SheetListReply[]>(`/grade-sheets?period=${semester1}`);
  expect(body.map(({ itemId, itemName }) => [itemId, itemName])).toEqual([[semesterGrade, 'Semester grade']]);
  return body[0]!.sheets.find(({ section }) => section === name)!.sectionId;
};
const sheet = async (section: number, item: number, period: number) =>
  (await registrar.get<SheetReply>(`/grade-sheets/${section}/${item}/${period}`)).body;
const post = (section: number, item: number, changes: object[], period = quarter2) =>
  registrar.send('PUT', `/grade-sheets/${section}/${item}/${period}`, { changes });

describe('a semester’s sheet', () => {
  it('computes each student’s grade from what is posted for the two quarters and the exam, at 40 / 40 / 20', async () => {
    const section = await sectionNamed('Shore Life 1');
    const parts = await Promise.all([
      sheet(section, quarterGrade, quarter1),
      sheet(section, quarterGrade, quarter2),
      sheet(section, exam, quarter2),
    ]);
    const { rows } = await sheet(section, semesterGrade, semester1);
    const computed = rows.flatMap(({ enrollmentId, composite }) =>
      composite?.kind === 'value' ? [{ enrollmentId, percent: composite.percent! }] : [],
    );
    expect(computed.length).toBeGreaterThan(10);
    for (const { enrollmentId, percent } of computed) {
      const [first, second, third] = parts.map(({ rows: own }) =>
        Math.round(Number(own.find((row) => row.enrollmentId === enrollmentId)!.mark.percent) * 100),
      );
      expect(Math.round(Number(percent) * 10_000)).toBe(40 * first! + 40 * second! + 20 * third!);
    }
  });

  it('names the part that is missing, leaves out an exempt one, and is incomplete with an incomplete one', async () => {
    const section = await sectionNamed('Shore Life 1');
    const now = async (enrollmentId: number) => {
      const { rows } = await sheet(section, semesterGrade, semester1);
      return rows.find((row) => row.enrollmentId === enrollmentId)!.composite;
    };
    const exams = await sheet(section, exam, quarter2);
    const [first, second, third] = exams.rows.filter(
      ({ withdrawnOn, mark }) => withdrawnOn === null && mark.percent !== null,
    );
    const blank = { percent: null, label: null, code: null };
    await post(section, exam, [
      changeOf(first!, { ...blank, code: 'EXM' }),
      changeOf(second!, { ...blank, code: 'INC', lastDate: '2026-01-16' }),
      changeOf(third!, blank),
    ]);
    const quarters = await sheet(section, quarterGrade, quarter2);
    const q1 = await sheet(section, quarterGrade, quarter1);
    const percentOf = ({ rows }: SheetReply) =>
      Number(rows.find((row) => row.enrollmentId === first!.enrollmentId)!.mark.percent);
    const mean = roundTo(
      fromDecimal(decimalOrThrow(((percentOf(q1) + percentOf(quarters)) / 2).toFixed(4))),
      4,
      roundHalfUp,
    );
    const exempt = await now(first!.enrollmentId);
    expect(exempt).toMatchObject({ kind: 'value', leftOut: [{ name: 'Exam, Quarter 2', code: 'EXM' }] });
    expect(exempt?.kind === 'value' && [Number(exempt.percent), exempt.parts.map(({ share }) => share)]).toEqual([
      Number(formatDecimal(mean)),
      ['50.00', '50.00'],
    ]);
    expect(await now(second!.enrollmentId)).toEqual({ kind: 'blocked', code: 'INC', by: 'Exam, Quarter 2' });
    expect(await now(third!.enrollmentId)).toEqual({ kind: 'missing', parts: ['Exam, Quarter 2'] });
  });

  it('counts a code that counts as a percentage', async () => {
    const section = await sectionNamed('Shore Life 1');
    const exams = await sheet(section, exam, quarter2);
    const row = exams.rows.findLast(({ withdrawnOn, mark }) => withdrawnOn === null && mark.percent !== null)!;
    await post(section, exam, [changeOf(row, { percent: null, label: null, code: 'NVA', lastDate: '2025-11-10' })]);
    const { rows } = await sheet(section, semesterGrade, semester1);
    const composite = rows.find(({ enrollmentId }) => enrollmentId === row.enrollmentId)!.composite;
    expect(composite?.kind === 'value' && composite.parts.map(({ value }) => Number(value)).at(-1)).toBe(0);
  });
});

describe('a composite by points', () => {
  it('has the label with the most points not above the mean as the item rounds it, and not above it before', async () => {
    await server.database.pool.query(
      `UPDATE report_items SET count_by = 'points', digits = 1 WHERE id = ${semesterGrade}`,
    );
    const lists = await registrar.get<SheetListReply[]>(`/grade-sheets?period=${semester1}`);
    const seen = { all: 0, roundedUpToLabel: 0 };
    for (const { sectionId } of lists.body[0]!.sheets.slice(0, 25)) {
      const { rows, scales, scaleVersion } = await sheet(sectionId, semesterGrade, semester1);
      const bands = scales.find(({ version }) => version === scaleVersion)!.bands;
      const labelFor = (points: number) =>
        bands
          .filter((band) => !band.isOff && band.points !== null && Number(band.points) <= points + 1e-9)
          .toSorted((a, b) => Number(b.points) - Number(a.points))[0]?.label;
      for (const { composite } of rows) {
        if (composite?.kind !== 'value') continue;
        const rounded = Math.floor(Math.round(Number(composite.points) * 1e6) / 1e5 + 0.5) / 10;
        expect([Number(composite.rounded), composite.label]).toEqual([rounded, labelFor(rounded)]);
        seen.all++;
        if (labelFor(rounded) !== labelFor(Number(composite.points))) seen.roundedUpToLabel++;
      }
    }
    expect([seen.all > 200, seen.roundedUpToLabel > 0]).toEqual([true, true]);
    await server.database.pool.query(`UPDATE report_items SET count_by = 'percent' WHERE id = ${semesterGrade}`);
  });
});

describe('what an item takes beside the grade', () => {
  const refused = async (change: object, item: object) => {
    const columns = Object.keys(item).map((key, at) => `${key} = $${at + 1}`);
    await server.database.pool.query(
      `UPDATE report_items SET ${columns.join(', ')} WHERE id = ${exam}`,
      Object.values(item),
    );
    const section = await sectionNamed('Shore Life 1');
    const row = (await sheet(section, exam, quarter2)).rows.find(({ withdrawnOn }) => withdrawnOn === null)!;
    const { status, body } = await registrar.send<Problem>('PUT', `/grade-sheets/${section}/${exam}/${quarter2}`, {
      changes: [changeOf(row, change)],
    });
    return [status, body.errors];
  };

  it.each([
    [{ comment: 'x'.repeat(31) }, { comment_length: 30 }, 'comment', 'at most 30 characters'],
    [{ comment: 'Good.' }, { comment_rule: 'none' }, 'comment', 'nothing, as Exam takes no comment'],
    [{ comment: '', hours: '42.5' }, { asks_hours: false }, 'hours', 'nothing, as Exam asks for no hours'],
    [{ comment: '', hours: '-1' }, { asks_hours: true }, 'hours', 'hours attended such as 42.5, or empty'],
  ])('refuses %j where the item says %j', async (change, item, field, detail) => {
    expect(await refused(change, item)).toEqual([422, [{ field: `changes.0.${field}`, detail }]]);
  });

  it('keeps the hours where the item asks for them', async () => {
    const section = await sectionNamed('Shore Life 1');
    const before = (await sheet(section, exam, quarter2)).rows.find(({ withdrawnOn }) => withdrawnOn === null)!;
    await post(section, exam, [changeOf(before, { comment: '', hours: '42.50' })]);
    const { rows } = await sheet(section, exam, quarter2);
    expect(rows.find(({ enrollmentId }) => enrollmentId === before.enrollmentId)!.mark.hours).toBe('42.5');
  });
});
