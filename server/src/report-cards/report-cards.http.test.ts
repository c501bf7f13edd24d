import { afterAll, beforeAll, describe, expect, it, onTestFinished } from 'vitest';
import type { CardTime, FamilyValueReply, ReportCardReply } from '#contract/report-cards';
import { changeOf, openPeriod, quarterGrade, sheetNamed } from '../../test/sheets.js';
import { demoInstant, signIn, startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());

const section = 'Knots and Rigging 1';
const cardOf = async (client: TestClient, studentId: number, when: CardTime = 'now', period = openPeriod) =>
  client.get<ReportCardReply>(`/report-cards/${studentId}?period=${period}&when=${when}`);
const first = async () => {
  const lists = await registrar.get<{ itemId: number; sheets: { section: string }[] }[]>('/grade-sheets?period=4');
  const name =
    lists.body[0]!.sheets.find((each) => each.section === section)?.section ?? lists.body[0]!.sheets[3]!.section;
  const { path, sheet } = await sheetNamed(registrar, name);
  const row = sheet.rows.find(({ withdrawnOn, mark }) => withdrawnOn === null && mark.label !== null)!;
  return { path, sheet, row };
};
const valueIn = ({ courses }: ReportCardReply, sectionId: number, itemId = quarterGrade): FamilyValueReply =>
  courses.find((each) => each.sectionId === sectionId)!.values.find((each) => each.itemId === itemId)!.value;
const seenBy = (view: string, time: string) =>
  server.database.pool.query('UPDATE report_items SET family_view = $1, family_time = $2 WHERE id = $3', [
    view,
    time,
    quarterGrade,
  ]);

describe('a report card as families see it', () => {
  it('shows nothing before its time, with the minute from which on, and what was posted from then on', async () => {
    const { sheet, row } = await first();
    await seenBy('both', 'closed');
    const now = (await cardOf(registrar, row.studentId)).body;
    expect(valueIn(now, sheet.sectionId)).toEqual({ kind: 'later', from: 'closed', at: '2026-01-23T17:00:00.000Z' });
    const later = (await cardOf(registrar, row.studentId, 'closed')).body;
    expect(valueIn(later, sheet.sectionId)).toMatchObject({
      kind: 'shown',
      label: row.mark.label,
      percent: row.mark.percent,
    });
    server.clock.setTo(new Date('2026-01-23T17:00:01Z'));
    onTestFinished(() => server.clock.setTo(demoInstant));
    const closed = (await cardOf(await signIn(server.address, 'morwenna'), row.studentId)).body;
    expect(closed).toEqual(later);
  });

  it.each([
    ['hidden', { kind: 'never' }],
    ['label', { kind: 'shown', percent: null }],
    ['percent', { kind: 'shown', label: null }],
  ])('by the item: %s', async (view, expected) => {
    const { sheet, row } = await first();
    await seenBy(view, 'posted');
    expect(valueIn((await cardOf(registrar, row.studentId)).body, sheet.sectionId)).toMatchObject(expected);
  });

  it('never shows a comment for the school alone', async () => {
    const { path, sheet, row } = await first();
    await seenBy('label', 'posted');
    const comment = async () => {
      const value = valueIn((await cardOf(registrar, row.studentId)).body, sheet.sectionId);
      return value.kind === 'shown' ? value.comment : null;
    };
    const version = async () =>
      (await sheetNamed(registrar, sheet.section)).sheet.rows.find(
        ({ enrollmentId }) => enrollmentId === row.enrollmentId,
      )!;
    for (const isInternal of [false, true]) {
      const changes = [changeOf(await version(), { comment: 'Ask the nurse.', isInternal })];
      expect((await registrar.send('PUT', path, { changes })).status).toBe(200);
      expect(await comment()).toBe(isInternal ? '' : 'Ask the nurse.');
    }
  });

  it('is for who reads transcripts, of their own school, and each reading is remembered', async () => {
    const { row } = await first();
    expect((await cardOf(await server.as('sunniva'), row.studentId)).status).toBe(200);
    expect((await cardOf(await server.as('harun'), row.studentId)).status).toBe(403);
    expect((await cardOf(registrar, 999_999)).status).toBe(404);
    const { rows } = await server.database.pool.query<{ actor: string }>(
      `SELECT actor FROM change_log WHERE thing = $1 AND action LIKE '%report card of Quarter 2'`,
      [`student ${row.studentId}`],
    );
    expect(rows.map(({ actor }) => actor)).toContain('Sunniva Holloway');
  });
});
