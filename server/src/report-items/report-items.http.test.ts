import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { SheetListReply } from '#contract/posting';
import type { Problem } from '#contract/problems';
import type { ScalesReply } from '#contract/scales';
import type { AssignmentPreviewReply, ItemBody, ReportItemsReply, RuleBody } from '#contract/report-items';
import { startTestServer, type TestClient, type TestServer } from '../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());

const [quarter, exam, semester] = [1, 101, 102];
const ofSchool = async (school = 1) =>
  (await registrar.get<ReportItemsReply>(`/schools/${school}/report-items?period=${[4, 13, 23][school - 1]}`)).body;
const sheetCount = async () => (await registrar.get<SheetListReply[]>('/grade-sheets?period=4')).body[0]!.sheets.length;
const save = <Body>({ revision }: ReportItemsReply, body: object) =>
  registrar.send<Body>('PUT', '/schools/1/report-items/assignment?period=4', { revision, ...body });
const itemNamed = (reply: ReportItemsReply, name: string) => reply.items.find((item) => item.name === name)!;

it('says for each course which rule or exception made it report each item', async () => {
  const { courses, rules, departments, kinds, items } = await ofSchool();
  expect([courses.length, rules.length, departments.length, kinds.length, items.length]).toEqual([48, 4, 7, 4, 4]);
  const by = (title: string, itemId: number) => {
    const cover = courses.find((course) => course.title === title)!.covers.find((each) => each.itemId === itemId);
    return cover && [cover.reports, cover.kind];
  };
  expect([
    by('Tidal Ecology', exam),
    by('Argument and Assembly', exam),
    by('Rescue Swimming', exam),
    by('Knots', exam),
  ]).toEqual([[true, 'rule'], [false, 'exception'], [true, 'exception'], undefined]);
});

describe('a change of rules and exceptions', () => {
  const yearOnly = (rules: readonly RuleBody[]) =>
    rules.map((rule) => (rule.itemId === quarter ? { ...rule, length: 'year' as const } : rule));
  it('is previewed with the courses and the posted grades it concerns, and changes nothing by that', async () => {
    const before = await sheetCount();
    const { rules, exceptions } = await ofSchool();
    const { body } = await registrar.send<AssignmentPreviewReply>('POST', '/schools/1/report-items/preview', {
      rules: yearOnly(rules),
      exceptions,
    });
    const [change] = body.changes;
    expect([body.changes.length, change!.itemId, change!.added.length, change!.removed.length]).toEqual([
      1,
      quarter,
      0,
      12,
    ]);
    expect(change!.removed.every(({ postedGrades }) => postedGrades > 50)).toBe(true);
    expect(await sheetCount()).toBe(before);
  });

  it('takes sheets away and brings them back with everything on them', async () => {
    const before = await sheetCount();
    const reply = await ofSchool();
    const { rules, exceptions } = reply;
    const { body: changed } = await save<ReportItemsReply>(reply, { rules: yearOnly(rules), exceptions });
    expect(await sheetCount()).toBe(before - 12);
    await save(changed, { rules, exceptions });
    expect(await sheetCount()).toBe(before);
  });

  it('made on older rules is refused, and nothing of it is kept', async () => {
    const reply = await ofSchool();
    const stale = { ...reply, revision: '0'.repeat(16) };
    const { status, body } = await save<Problem>(stale, { rules: [], exceptions: [] });
    expect([status, body.code, (await ofSchool()).rules.length]).toEqual([409, 'changed-meanwhile', 4]);
  });

  it.each([
    ['department', { department: 'Astronomy' }, 'a department of this school'],
    ['level', { level: 'grand' }, 'one of regular, honours, college'],
    ['length', { length: 'week' }, 'one of year, semester, term'],
    ['kind', { kind: 'grand' }, 'a kind of course of this school'],
    ['itemId', { itemId: 3 }, 'an item of this school'],
    ['effect', { effect: 'perhaps' }, 'one of reports, omits'],
  ])('with a %s that is none names it', async (field, choice, detail) => {
    const reply = await ofSchool();
    const rules = reply.rules.map((rule, at) => (at === 2 ? { ...rule, ...choice } : rule));
    const { status, body } = await save<Problem>(reply, { rules, exceptions: [] });
    expect([status, body.errors]).toEqual([422, [{ field: `rules.2.${field}`, detail }]]);
  });

  it('with an exception twice names the second', async () => {
    const reply = await ofSchool();
    const { rules, exceptions } = reply;
    const { body } = await save<Problem>(reply, { rules, exceptions: [...exceptions, exceptions[0]!] });
    expect(body.errors).toEqual([{ field: 'exceptions.2', detail: 'one exception for a course and an item' }]);
  });
});

describe('an item', () => {
  const bodyOf = (reply: ReportItemsReply, name: string): ItemBody => {
    const {
      id: _id,
      revision: _revision,
      scaleName: _name,
      labels: _labels,
      descriptors: _words,
      postedGrades: _posted,
      ...body
    } = itemNamed(reply, name);
    return body;
  };
  const added = async (change: Partial<ItemBody>, windowsLike: number | null = null) =>
    registrar.send<ReportItemsReply & Problem>('POST', '/schools/1/report-items?period=4', {
      ...bodyOf(await ofSchool(), 'Quarter grade'),
      ...change,
      windowsLike,
    });

  it('is added, takes over windows where both are posted, is changed, ordered and taken out', async () => {
    const { status, body } = await added({ name: 'Effort', heading: 'Effort', ordinals: [3, 4] }, quarter);
    const { id, revision } = itemNamed(body, 'Effort');
    expect([status, body.items.at(-1)!.name]).toEqual([201, 'Effort']);
    const { rows } = await server.database.pool.query(
      'SELECT period_id FROM posting_windows WHERE item_id = $1 ORDER BY 1',
      [id],
    );
    expect(rows).toEqual([{ period_id: 6 }, { period_id: 7 }]);
    const changed = await registrar.send<ReportItemsReply>('PUT', `/report-items/${id}?period=4`, {
      ...bodyOf(body, 'Effort'),
      heading: 'Eff.',
      revision,
    });
    expect(itemNamed(changed.body, 'Effort')).toMatchObject({ heading: 'Eff.' });
    const stale = await registrar.send<Problem>('PUT', `/report-items/${id}?period=4`, {
      ...bodyOf(body, 'Effort'),
      revision,
    });
    expect(stale.body.code).toBe('changed-meanwhile');
    const order = changed.body.items.map((item) => item.id).toReversed();
    const ordered = await registrar.send<ReportItemsReply>('PUT', '/schools/1/report-items/order?period=4', {
      itemIds: order,
      seen: order.toReversed(),
    });
    expect(ordered.body.items.map((item) => item.id)).toEqual(order);
    await registrar.send('PUT', '/schools/1/report-items/order?period=4', { itemIds: order.toReversed(), seen: order });
    expect((await registrar.send<ReportItemsReply>('DELETE', `/report-items/${id}?period=4`)).body.items).toHaveLength(
      4,
    );
  });

  const part = (itemId: number, ordinal: number, weight: string) => ({ itemId, ordinal, weight });
  it.each<[string, Partial<ItemBody>, string]>([
    [
      'weights of 99.99',
      { parts: [part(quarter, 1, '50'), part(quarter, 2, '49.99')] },
      'The weights add up to 99.99; they must make exactly 100.',
    ],
    [
      'a weight of 0',
      { parts: [part(quarter, 1, '100'), part(quarter, 2, '0')] },
      'A weight is 0; each must be above 0.',
    ],
    [
      'a negative weight',
      { parts: [part(quarter, 1, '120'), part(quarter, 2, '-20')] },
      'A weight is -20; each must be above 0.',
    ],
    [
      'itself as a part',
      { parts: [part(semester, 1, '100')] },
      'Semester grade would be a part of itself: Semester grade → Semester grade.',
    ],
    ['no parts', { parts: [] }, 'Semester grade is made of parts but has none.'],
  ])('made of parts is refused with %s', async (_what, change, detail) => {
    const reply = await ofSchool();
    const { revision } = itemNamed(reply, 'Semester grade');
    const request = { ...bodyOf(reply, 'Semester grade'), ...change, revision };
    const { status, body } = await registrar.send<Problem>('PUT', `/report-items/${semester}?period=4`, request);
    expect([status, body.code, body.detail]).toEqual([422, 'item-faulty', detail]);
  });

  it('cannot make a ring through another composite', async () => {
    const year = {
      name: 'Year grade',
      heading: 'Year',
      periodKind: 'year',
      source: 'composite',
      ordinals: null,
    } as const;
    const { body } = await added({ ...year, parts: [part(semester, 1, '50'), part(semester, 2, '50')] });
    const { id } = itemNamed(body, 'Year grade');
    const request = {
      ...bodyOf(body, 'Semester grade'),
      parts: [part(id, 1, '100')],
      revision: itemNamed(body, 'Semester grade').revision,
    };
    const ring = await registrar.send<Problem>('PUT', `/report-items/${semester}?period=4`, request);
    expect(ring.body.detail).toBe(
      'Semester grade would be a part of itself: Semester grade → Year grade → Semester grade.',
    );
    const used = await registrar.send<Problem>('DELETE', `/report-items/${semester}?period=4`);
    expect(used.body.detail).toContain('Semester grade is used by the composite Year grade.');
    await registrar.send('DELETE', `/report-items/${id}?period=4`);
  });

  it.each([
    [{ name: 'exam' }, 'name', 'a name that no other item of the school has'],
    [{ scaleId: 2 }, 'scaleId', 'a scale of this school'],
    [
      { source: 'gradeBook', categoryId: 9999 },
      'categoryId',
      'a category of this school, or null for the whole grade book',
    ],
    [{ digits: 3 }, 'digits', '0, 1 or 2 decimals'],
    [{ scaleId: 12, commentRule: 'requiredBelow', commentBelow: 'A' }, 'commentBelow', 'a label of Conduct'],
  ])('with %j is refused with the field named', async (change, field, detail) => {
    const { status, body } = await added({ name: 'Effort', heading: 'Effort', ...change } as Partial<ItemBody>);
    expect([status, body.errors]).toEqual([422, [{ field, detail }]]);
  });

  it('taken out comes back with its rules, exceptions and windows where they were', async () => {
    const { body } = await added({ name: 'Effort', heading: 'Effort' }, quarter);
    const { id } = itemNamed(body, 'Effort');
    const rule = { itemId: id, effect: 'reports', department: null, level: null, kind: null, length: null } as const;
    const exception = { itemId: id, courseId: body.courses[0]!.id, effect: 'omits', reason: 'Trial year' } as const;
    const rules = [rule, ...body.rules];
    const { body: saved } = await save<ReportItemsReply>(body, { rules, exceptions: [...body.exceptions, exception] });
    const windows = async () => {
      const text = 'SELECT period_id, opens_at, closes_at FROM posting_windows WHERE item_id = $1 ORDER BY 1';
      return (await server.database.pool.query(text, [id])).rows;
    };
    const had = await windows();
    const { change } = await registrar.send('DELETE', `/report-items/${id}?period=4`);
    expect((await registrar.send('POST', `/changes/${change}/undo`)).status).toBe(200);
    expect(await ofSchool()).toEqual(saved);
    expect([had.length, await windows()]).toEqual([4, had]);
    await registrar.send('DELETE', `/report-items/${id}?period=4`);
  });

  it('is not made undone by an undo once grades hang on it', async () => {
    const { body, change } = await added({ name: 'Effort', heading: 'Effort' }, quarter);
    const { id } = itemNamed(body, 'Effort');
    const { rows } = await server.database.pool.query(
      `INSERT INTO grades (item_id, period_id, enrollment_id, label, scale_version_id, posted_by, posted_at)
       SELECT $1, period_id, enrollment_id, label, scale_version_id, posted_by, posted_at FROM grades
       WHERE period_id = 4 AND label IS NOT NULL LIMIT 1 RETURNING id`,
      [id],
    );
    const { status, body: refused } = await registrar.send<Problem>('POST', `/changes/${change}/undo`);
    expect([status, refused.code]).toEqual([409, 'in-use']);
    await server.database.pool.query('DELETE FROM grades WHERE id = $1', [rows[0].id]);
    expect((await registrar.send('POST', `/changes/${change}/undo`)).status).toBe(200);
    expect((await ofSchool()).items.map(({ name }) => name)).not.toContain('Effort');
  });

  it('ordered while somebody changes one of them loses nothing of either: both are kept, or one is refused', async () => {
    for (let round = 0; round < 6; round++) {
      const before = await ofSchool();
      const order = before.items.map(({ id }) => id).toReversed();
      const { revision } = itemNamed(before, 'Exam');
      const heading = `Exam ${round}`;
      const [ordered, changed] = await Promise.all([
        registrar.send('PUT', '/schools/1/report-items/order?period=4', {
          itemIds: order,
          seen: order.toReversed(),
        }),
        registrar.send('PUT', `/report-items/${exam}?period=4`, { ...bodyOf(before, 'Exam'), heading, revision }),
      ]);
      const after = await ofSchool();
      const kept = after.items.map(({ id }) => id).join() === order.join();
      expect([ordered.status, kept]).toEqual(ordered.status === 200 ? [200, true] : [409, false]);
      expect([changed.status, itemNamed(after, 'Exam').heading === heading]).toEqual(
        changed.status === 200 ? [200, true] : [409, false],
      );
    }
  });

  it('is moved only from the order that was seen, with none that came or went since', async () => {
    const path = '/schools/1/report-items/order?period=4';
    const seen = (await ofSchool()).items.map(({ id }) => id);
    const moved = [...seen.slice(1), seen[0]!];
    const move = (itemIds: readonly number[], from: readonly number[]) =>
      registrar.send<Problem>('PUT', path, { itemIds, seen: from });
    expect((await move(moved, seen)).status).toBe(200);
    const late = await move(seen.toReversed(), seen);
    expect([late.status, late.body.code]).toEqual([409, 'changed-meanwhile']);
    expect(late.body.detail).toContain('Morwenna');
    const gone = [...moved, 999_999];
    expect((await move(gone.toReversed(), gone)).body.code).toBe('changed-meanwhile');
    const fewer = moved.slice(1);
    expect((await move(fewer.toReversed(), fewer)).body.code).toBe('changed-meanwhile');
    expect((await move([...fewer, fewer[0]!], moved)).body.code).toBe('fields-wrong');
    expect((await ofSchool()).items.map(({ id }) => id)).toEqual(moved);
    await move(seen, moved);
  });

  it('does not come back, nor any part of it, where what it hung on is gone meanwhile', async () => {
    const { body: scales } = await registrar.send<ScalesReply>('POST', '/schools/1/scales', {
      name: 'Trial',
      kind: 'choice',
      isDistrictWide: false,
      highestLevel: null,
      tie: null,
      fromPeriodId: 4,
      bands: ['Yes', 'No'].map((label) => ({
        label,
        lowest: null,
        points: null,
        passes: label === 'Yes',
        earnsCredit: label === 'Yes',
        descriptor: label,
        isOff: false,
      })),
    });
    const scale = scales.scales.find(({ name }) => name === 'Trial')!;
    const { body } = await added({ name: 'Effort', heading: 'Effort', scaleId: scale.id }, quarter);
    const { id } = itemNamed(body, 'Effort');
    const { change } = await registrar.send('DELETE', `/report-items/${id}?period=4`);
    expect((await registrar.send('DELETE', `/scales/${scale.id}?period=4`)).status).toBe(200);
    const back = await registrar.send<Problem>('POST', `/changes/${change}/undo`);
    expect([back.status, back.body.code]).toEqual([409, 'cannot-bring-back']);
    expect((await ofSchool()).items.map(({ name }) => name)).not.toContain('Effort');
    const { rows } = await server.database.pool.query('SELECT 1 FROM posting_windows WHERE item_id = $1', [id]);
    expect(rows).toEqual([]);
  });

  it('that grades hang on stays, and says what to do instead', async () => {
    const { status, body } = await registrar.send<Problem>('DELETE', `/report-items/${exam}?period=4`);
    expect([status, body.code]).toEqual([409, 'in-use']);
    expect(body.detail).toMatch(
      /^Exam is used by [\d,]+ posted grades and the composite Semester grade\. Let its rules omit/,
    );
  });
});
