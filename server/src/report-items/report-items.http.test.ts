import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { SheetListReply } from '#contract/posting';
import type { Problem } from '#contract/problems';
import type { ReportItemsReply, RulePreviewReply } from '#contract/report-items';
import { startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());

const every = { department: null, level: null, length: null };
const ofSchool = async (school = 1) => (await registrar.get<ReportItemsReply>(`/schools/${school}/report-items`)).body;
const sheetCount = async () => (await registrar.get<SheetListReply[]>('/grade-sheets?period=4')).body[0]!.sheets.length;

it('says for each course which rule made it report the item', async () => {
  const { courses, rules, departments } = await ofSchool();
  expect([courses.length, rules.length, departments.length]).toEqual([48, 1, 7]);
  expect(new Set(courses.flatMap(({ covers }) => covers.map(({ ruleId }) => ruleId)))).toEqual(new Set([rules[0]!.id]));
});

describe('a change of a rule', () => {
  it('is previewed with the courses and the posted grades it concerns, and changes nothing by that', async () => {
    const { body } = await registrar.send<RulePreviewReply>('POST', '/report-item-rules/1/preview', {
      ...every,
      length: 'year',
    });
    expect([body.added.length, body.removed.length]).toEqual([0, 12]);
    expect(body.removed.every(({ length, postedGrades }) => length === 'semester' && postedGrades > 50)).toBe(true);
    expect((await ofSchool()).courses.every(({ covers }) => covers.length === 1)).toBe(true);
  });

  it('takes sheets away and brings them back with everything on them', async () => {
    const before = await sheetCount();
    const { rules } = await ofSchool();
    const changed = await registrar.send<{ version: number }>('PUT', '/report-item-rules/1', {
      ...every,
      length: 'year',
      version: rules[0]!.version,
    });
    expect([changed.status, changed.body.version, await sheetCount()]).toEqual([200, 2, before - 12]);
    await registrar.send('PUT', '/report-item-rules/1', { ...every, version: 2 });
    expect(await sheetCount()).toBe(before);
  });

  it('made on an older rule is refused', async () => {
    const { status, body } = await registrar.send<Problem>('PUT', '/report-item-rules/1', { ...every, version: 1 });
    expect([status, body.code]).toEqual([409, 'rule-changed']);
  });

  it.each([
    [{ ...every, department: 'Astronomy' }, 'department', 'a department of this school'],
    [{ ...every, level: 'grand' }, 'level', 'one of regular, honours, college'],
    [{ ...every, length: 'week' }, 'length', 'one of year, semester, term'],
  ])('to %j names the choice that is none', async (choices, field, detail) => {
    const { status, body } = await registrar.send<Problem>('PUT', '/report-item-rules/1', { ...choices, version: 3 });
    expect([status, body.errors]).toEqual([422, [{ field, detail }]]);
  });
});
