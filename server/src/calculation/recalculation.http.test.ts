import { afterAll, afterEach, beforeAll, describe, expect, it, vi } from 'vitest';
import type { BookReply, RecalculationReply } from '#contract/calculation';
import type { Problem } from '#contract/problems';
import type { SheetReply } from '#contract/posting';
import { auditNow } from '../../test/audit-now.js';
import { changeOf, openPeriod, quarterGrade, sheetNamed } from '../../test/sheets.js';
import { startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';
import { BookCalculator } from './book-calculator.js';
import { RecalculationService } from './recalculation.service.js';

let server: TestServer;
let registrar: TestClient;
let teacher: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  [registrar, teacher] = [await server.as('morwenna'), await server.as('harun')];
});
afterAll(() => server.stop());
afterEach(() => vi.restoreAllMocks());

const section = 'Number and Measure 6';
const pool = () => server.database.pool;

async function bookOfHarun(): Promise<{ path: string; book: BookReply }> {
  const { sheet } = await sheetNamed(registrar, section);
  const path = `/grade-books/${sheet.sectionId}/${openPeriod}`;
  return { path, book: (await teacher.get<BookReply>(path)).body };
}

/** What the sheet shows as computed, by enrollment. */
async function computed(): Promise<Map<number, string | undefined>> {
  const { sheet } = await sheetNamed(registrar, section);
  return new Map(sheet.rows.map((row) => [row.enrollmentId, row.computed?.percent]));
}

describe('a score saved while its book is calculated', () => {
  it('stays the one that counts: what was read before it is not kept over it', async () => {
    const { path, book } = await bookOfHarun();
    const score = book.scores.find(({ points, flag }) => points !== null && flag === null)!;
    const calculator = server.application.get(BookCalculator, { strict: false });
    const calculate = calculator.calculate.bind(calculator);
    let saved: number | undefined;
    // The worker has read everything and holds its answer while somebody saves another score.
    vi.spyOn(calculator, 'calculate').mockImplementation(async (...task) => {
      const answer = await calculate(...task);
      saved ??= (await teacher.send('PUT', `${path}/scores`, { changes: [{ ...score, points: '0' }] })).status;
      return answer;
    });
    await pool().query(`UPDATE assignments SET is_counted = is_counted WHERE id = $1`, [score.assignmentId]);
    await server.application.get(RecalculationService, { strict: false }).finish();
    expect(saved).toBe(200);
    const shown = (await computed()).get(score.enrollmentId);
    vi.restoreAllMocks();
    await pool().query(`UPDATE assignments SET is_counted = is_counted WHERE id = $1`, [score.assignmentId]);
    expect((await computed()).get(score.enrollmentId)).toBe(shown);
  });
});

describe('a book that cannot be calculated', () => {
  it('is told of, shows nothing as computed, and stops no other', async () => {
    const { sheet } = await sheetNamed(registrar, section);
    const calculator = server.application.get(BookCalculator, { strict: false });
    const calculate = calculator.calculate.bind(calculator);
    vi.spyOn(calculator, 'calculate').mockImplementation((period, policies) => {
      if (policies.policyOf.some(([id]) => id === sheet.sectionId)) throw new Error('a number out of all bounds');
      return calculate(period, policies);
    });
    await pool().query(`UPDATE assignments SET is_counted = is_counted WHERE period_id = $1`, [openPeriod]);
    await server.application.get(RecalculationService, { strict: false }).finish();
    const { body } = await registrar.get<RecalculationReply>('/recalculation');
    expect([body.remaining, body.failed]).toEqual([
      0,
      [{ sectionId: sheet.sectionId, section, problem: 'a number out of all bounds' }],
    ]);
    expect(new Set((await computed()).values())).toEqual(new Set([undefined]));
    expect((await sheetNamed(registrar, 'Shore Life 1')).sheet.rows.some((row) => row.computed)).toBe(true);
    vi.restoreAllMocks();
    await pool().query(`UPDATE assignments SET is_counted = is_counted WHERE section_id = $1`, [sheet.sectionId]);
    expect([...(await computed()).values()].filter((percent) => percent !== undefined).length).toBeGreaterThan(10);
    expect((await registrar.get<RecalculationReply>('/recalculation')).body.failed).toEqual([]);
  });
});

describe('a percentage of a thousand and more', () => {
  it('is held and shown; to post it is refused with what would be right', async () => {
    await pool().query(`UPDATE calculation_policies SET body = jsonb_set(body, '{cap}', 'null')`);
    const { path, book } = await bookOfHarun();
    const [assignment] = book.assignments;
    const [student] = book.students;
    const { categoryId, dueOn, isCounted, isPublished } = assignment!;
    const facts = { categoryId, dueOn, isCounted, isPublished, givenTo: null, alsoIn: [] };
    const body = { ...facts, name: 'Lantern', possible: '0', isExtra: true };
    const added = await teacher.send<BookReply>('POST', `${path}/assignments`, body);
    const lantern = added.body.assignments.find(({ name }) => name === 'Lantern')!;
    const changes = [
      { assignmentId: lantern.id, enrollmentId: student!.enrollmentId, points: '9999', flag: null, version: 0 },
    ];
    expect((await teacher.send('PUT', `${path}/scores`, { changes })).status).toBe(200);
    const { path: sheetPath, sheet } = await sheetNamed(registrar, section);
    const row = sheet.rows.find(({ enrollmentId }) => enrollmentId === student!.enrollmentId)!;
    expect(Number(row.computed!.percent)).toBeGreaterThan(1000);
    const posted = await registrar.send<Problem>('PUT', sheetPath, {
      changes: [changeOf(row, { percent: String(Math.round(Number(row.computed!.percent))), label: 'A' })],
    });
    expect([posted.status, posted.body.errors[0]!.detail]).toEqual([422, expect.stringContaining('percent')]);
    expect((await auditNow(registrar, openPeriod)).status).toBeLessThan(300);
    expect(
      (await registrar.get<SheetReply>(`/grade-sheets/${sheet.sectionId}/${quarterGrade}/${openPeriod}`)).status,
    ).toBe(200);
  });
});
