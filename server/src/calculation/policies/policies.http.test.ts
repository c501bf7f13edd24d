import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type {
  BookReply,
  CalculationReply,
  CategoryReply,
  DifferingReply,
  PolicyBody,
  PolicyEffectReply,
  RecalculationReply,
} from '#contract/calculation';
import type { Problem } from '#contract/problems';
import type { ReportItemsReply } from '#contract/report-items';
import type { SetUpReply } from '#contract/set-up';
import { openPeriod, sheetNamed } from '../../../test/sheets.js';
import { startTestServer, type TestClient, type TestServer } from '../../../test/test-server.js';

let server: TestServer;
let registrar: TestClient;
beforeAll(async () => {
  server = await startTestServer();
  registrar = await server.as('morwenna');
});
afterAll(() => server.stop());

const department = { department: 'Numbers and Charts', sectionId: null, periodId: null };
const school = { department: null, sectionId: null, periodId: null };
const calculation = async () => (await registrar.get<CalculationReply>(`/calculation?period=${openPeriod}`)).body;
const ofDepartment = ({ policies }: CalculationReply) =>
  policies.find((policy) => policy.department === department.department)!;
const bookNamed = ({ books }: CalculationReply, name: string) => books.find(({ section }) => section === name)!;
const save = <Body>(place: object, policy: unknown, revision: string) =>
  registrar.send<Body>('PUT', `/schools/1/policies?period=${openPeriod}`, { ...place, policy, revision });
const undo = <Body>(change: number | null) => registrar.send<Body>('POST', `/changes/${change}/undo`);
const withShare = (policy: PolicyBody, at: number, changed: Partial<PolicyBody['categories'][number]>): PolicyBody => ({
  ...policy,
  categories: policy.categories.with(at, { ...policy.categories[at]!, ...changed }),
});

/** Waits until no grade book is stale any more. */
async function untilCalculated(): Promise<void> {
  for (let tries = 0; tries < 200; tries++) {
    const { body } = await registrar.get<RecalculationReply>('/recalculation');
    if (body.remaining === 0 && !body.isRunning) return;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error('the grade books were not calculated in ten seconds');
}

const percentsOf = async (section: string) => {
  const { sheet } = await sheetNamed(registrar, section);
  return sheet.rows.map(({ computed, mark }) => ({ computed: computed?.percent, posted: mark.percent }));
};

describe('the policies of a school', () => {
  it('hold by place, the nearest first, and every section says where its own comes from', async () => {
    const reply = await calculation();
    expect(reply.policies.map(({ department: name, section }) => [name, section])).toEqual([
      [null, null],
      ['Numbers and Charts', null],
      [null, 'Reading the Coast 3'],
    ]);
    expect(bookNamed(reply, 'Shore Life 1').from).toBe('the school');
    expect(bookNamed(reply, 'Number and Measure 6').from).toBe('Numbers and Charts');
    expect(bookNamed(reply, 'Reading the Coast 3').from).toBe('this section');
    expect(reply.categories.map(({ name, sectionId, assignments }) => [name, sectionId, assignments > 0])).toEqual(
      ['Class work', 'Homework', 'Quizzes', 'Tests'].map((name) => [name, null, true]),
    );
    expect(reply.faults).toEqual([]);
  });

  it('a preview says what a change would do, and changes nothing', async () => {
    const before = await percentsOf('Number and Measure 6');
    const policy = withShare(ofDepartment(await calculation()).policy, 3, { dropLowest: 1 });
    const { body } = await registrar.send<PolicyEffectReply>('POST', '/schools/1/policies/preview', {
      ...department,
      policy,
      inPeriodId: openPeriod,
    });
    expect(body.sections).toBe(31);
    expect(body.changed).toBe(body.rise);
    expect(body.fall).toBe(0);
    expect(body.students).toHaveLength(body.changed);
    expect(body.moves.reduce((sum, { grades }) => sum + grades, 0)).toBe(body.grades);
    expect(body.students.filter(({ from, to }) => from !== to)).toHaveLength(body.moved);
    expect(await percentsOf('Number and Measure 6')).toEqual(before);
  });

  it('a preview looks at every item that takes its value from the books, each by its own rounding', async () => {
    const policy = withShare(ofDepartment(await calculation()).policy, 3, { dropLowest: 1 });
    const preview = async () =>
      (
        await registrar.send<PolicyEffectReply>('POST', '/schools/1/policies/preview', {
          ...department,
          policy,
          inPeriodId: openPeriod,
        })
      ).body;
    const alone = await preview();
    const items = () => registrar.get<ReportItemsReply>(`/schools/1/report-items?period=${openPeriod}`);
    const {
      id: _id,
      revision: _r,
      scaleName: _s,
      labels: _l,
      descriptors: _d,
      postedGrades: _p,
      ...like
    } = (await items()).body.items[0]!;
    const { body: added } = await registrar.send<ReportItemsReply>(
      'POST',
      `/schools/1/report-items?period=${openPeriod}`,
      {
        ...like,
        name: 'Progress',
        heading: 'Progress',
        kind: 'progress',
        digits: 0,
        windowsLike: null,
      },
    );
    const itemId = added.items.find(({ name }) => name === 'Progress')!.id;
    const rule = {
      itemId,
      effect: 'reports',
      department: department.department,
      level: null,
      kind: null,
      length: null,
    };
    await registrar.send('PUT', `/schools/1/report-items/assignment?period=${openPeriod}`, {
      rules: [...added.rules, rule],
      exceptions: added.exceptions,
      revision: added.revision,
    });
    const both = await preview();
    const of = (item: string) => both.students.filter((each) => each.item === item);
    expect([both.grades, of('Quarter grade').length]).toEqual([2 * alone.grades, alone.changed]);
    expect(of('Progress').length).toBeGreaterThan(20);
    expect(
      of('Progress').every(({ before, after }) => Number.isInteger(Number(before)) && Number.isInteger(Number(after))),
    ).toBe(true);
    expect(both.moved).toBe(both.students.filter(({ from, to }) => from !== to).length);
    const { body: now } = await items();
    await registrar.send('PUT', `/schools/1/report-items/assignment?period=${openPeriod}`, {
      rules: added.rules,
      exceptions: added.exceptions,
      revision: now.revision,
    });
    await registrar.send('DELETE', `/report-items/${itemId}?period=${openPeriod}`);
  });

  it('a saved policy is calculated through; what is posted stays, and is listed where it differs now', async () => {
    const before = await percentsOf('Number and Measure 6');
    const own = ofDepartment(await calculation());
    const policy = withShare(own.policy, 3, { dropLowest: 1 });
    const { status, body, change } = await save<CalculationReply>(department, policy, own.revision);
    expect([status, ofDepartment(body).policy]).toEqual([200, policy]);
    await untilCalculated();
    const after = await percentsOf('Number and Measure 6');
    expect(after.map(({ posted }) => posted)).toEqual(before.map(({ posted }) => posted));
    expect(after.map(({ computed }) => computed)).not.toEqual(before.map(({ computed }) => computed));
    for (const [at, { computed }] of after.entries())
      expect(Number(computed)).toBeGreaterThanOrEqual(Number(before[at]!.computed));
    const { body: differing } = await registrar.get<DifferingReply[]>(`/calculation/differing?period=${openPeriod}`);
    expect(differing.filter(({ section }) => section === 'Number and Measure 6').length).toBeGreaterThan(0);
    expect((await calculation()).differing).toBe(differing.length);

    expect((await undo(change)).status).toBe(200);
    await untilCalculated();
    expect(await percentsOf('Number and Measure 6')).toEqual(before);
  });

  it('a department or a section may have its own for one period, and inherits again when it is taken away', async () => {
    const { policies } = await calculation();
    const place = {
      department: null,
      sectionId: bookNamed(await calculation(), 'Shore Life 1').sectionId,
      periodId: openPeriod,
    };
    const { body: own } = await save<CalculationReply>(place, { ...policies[0]!.policy, cap: '90' }, '');
    const { revision } = own.policies.find(({ sectionId }) => sectionId === place.sectionId)!;
    expect(bookNamed(own, 'Shore Life 1').from).toBe('this section, for this period');
    const preview = await registrar.send<PolicyEffectReply>('POST', '/schools/1/policies/preview', {
      ...place,
      policy: null,
      inPeriodId: openPeriod,
    });
    expect([preview.body.sections, preview.body.fall]).toEqual([1, 0]);
    const remove = () =>
      registrar.send<CalculationReply & Problem>('POST', `/schools/1/policies/remove?period=${openPeriod}`, {
        ...place,
        revision,
      });
    const removed = await remove();
    expect(bookNamed(removed.body, 'Shore Life 1').from).toBe('the school');
    expect((await remove()).body.code).toBe('changed-meanwhile');
    expect((await undo(removed.change)).status).toBe(200);
    expect(bookNamed(await calculation(), 'Shore Life 1').from).toBe('this section, for this period');
    await remove();
  });

  it('a policy of its own is refused in a sealed period', async () => {
    const { policies } = await calculation();
    const place = { ...school, sectionId: bookNamed(await calculation(), 'Shore Life 1').sectionId, periodId: 3 };
    expect((await save<Problem>(place, policies[0]!.policy, '')).body.code).toBe('period-sealed');
  });

  it('a policy is given to other sections of the course as their own, and that is undone for all of them', async () => {
    const reply = await calculation();
    const [from, to] = ['Reading the Coast 3', 'Reading the Coast 4'].map((name) => bookNamed(reply, name));
    const more = bookNamed(reply, 'Reading the Coast 2');
    const { body, change } = await registrar.send<CalculationReply>(
      'POST',
      `/sections/${from!.sectionId}/policy/copy?period=${openPeriod}`,
      { toIds: [to!.sectionId, more.sectionId], periodId: null },
    );
    const weights = (sectionId: number) =>
      body.policies.find((policy) => policy.sectionId === sectionId)!.policy.categories.map(({ weight }) => weight);
    expect(weights(to!.sectionId)).toEqual(weights(from!.sectionId));
    expect((await undo(change)).status).toBe(200);
    expect((await calculation()).policies).toEqual(reply.policies);
    const unknown = await registrar.send<Problem>(
      'POST',
      `/sections/${from!.sectionId}/policy/copy?period=${openPeriod}`,
      { toIds: [99_999], periodId: null },
    );
    expect([unknown.status, unknown.body.code]).toEqual([404, 'not-found']);
  });
});

describe('a policy that cannot be', () => {
  it.each<[string, (policy: PolicyBody) => PolicyBody, string]>([
    [
      'all weights 0',
      (policy) => ({ ...policy, categories: policy.categories.map((share) => ({ ...share, weight: '0' })) }),
      'No category has a weight, so nothing would count. Give at least one a weight above 0.',
    ],
    [
      'a category of another school',
      (policy) => withShare(policy, 0, { categoryId: 20 }),
      'Category 20 does not exist here.',
    ],
    [
      'a category twice',
      (policy) => ({ ...policy, categories: [...policy.categories, policy.categories[0]!] }),
      'Class work is listed twice here.',
    ],
    [
      'a limit of nothing',
      (policy) => ({ ...policy, cap: '0' }),
      'A limit of 0 % lets nothing through; empty means no limit.',
    ],
    [
      'levels that no level reaches',
      (policy) => ({ ...policy, method: 'mode', levels: { most: '4', meets: '5', exceeds: '6', evidence: 1 } }),
      'To meet at 5 and to exceed at 6 does not fit a highest level of 4.',
    ],
    [
      'a method of levels without levels',
      (policy) => ({ ...policy, method: 'decaying' }),
      'This method reads levels; say which level is the highest.',
    ],
    [
      'a newest score that counts nothing',
      (policy) => ({
        ...policy,
        method: 'decaying',
        newestShare: '0',
        levels: { most: '4', meets: '3', exceeds: '4', evidence: 1 },
      }),
      'The newest score counts 0 %; above 0 and at most 100 would be right.',
    ],
  ])('%s', async (_what, change, says) => {
    const own = ofDepartment(await calculation());
    const { status, body } = await save<Problem>(department, change(own.policy), own.revision);
    expect([status, body.code]).toEqual([422, 'policy-faulty']);
    expect(body.detail).toContain(says);
    expect(ofDepartment(await calculation())).toEqual(own);
  });

  it.each<[string, (policy: PolicyBody) => unknown, string]>([
    ['a negative weight', (policy) => withShare(policy, 0, { weight: '-5' }), 'categories.0.weight'],
    ['a weight in words', (policy) => withShare(policy, 1, { weight: 'ten' }), 'categories.1.weight'],
    ['more dropped than there can be', (policy) => withShare(policy, 0, { dropLowest: 51 }), 'categories.0.dropLowest'],
    ['an unknown method', (policy) => ({ ...policy, method: 'best' }), 'method'],
    ['an unknown effect', (policy) => ({ ...policy, flags: { ...policy.flags, late: 'halves' } }), 'flags.late'],
  ])('%s names the field', async (_what, change, field) => {
    const own = ofDepartment(await calculation());
    const { status, body } = await save<Problem>(department, change(own.policy), own.revision);
    expect([status, body.code]).toEqual([422, 'fields-wrong']);
    expect(body.errors.map((each) => each.field)).toContain(`policy.${field}`);
  });

  it('one that somebody changed first, one at two places at once, one of a section that is not there', async () => {
    const own = ofDepartment(await calculation());
    expect((await save<Problem>(department, own.policy, 'older')).body.code).toBe('changed-meanwhile');
    expect((await save<Problem>(department, own.policy, '')).body.code).toBe('changed-meanwhile');
    expect((await save<Problem>({ ...department, sectionId: 1 }, own.policy, '')).body.code).toBe('policy-faulty');
    expect((await save<Problem>({ ...school, sectionId: 99_999 }, own.policy, '')).status).toBe(404);
    expect((await save<Problem>({ ...school, periodId: 13 }, own.policy, '')).status).toBe(404);
  });

  it('weights that do not make 100 are taken, and counted among the faults of the set-up until they do', async () => {
    const own = ofDepartment(await calculation());
    const { body, change } = await save<CalculationReply>(
      department,
      withShare(own.policy, 0, { weight: '20' }),
      own.revision,
    );
    const says = 'The weights add up to 90, not 100; each counts as its share of 90.';
    expect(body.faults).toMatchObject([{ code: 'weights-not-100', severity: 'warns', says }]);
    const { body: setUp } = await registrar.get<SetUpReply>(`/set-up-check?period=${openPeriod}`);
    expect(setUp.faults).toContainEqual(
      expect.objectContaining({ place: 'calculation', says, search: `?policy=${own.id}` }),
    );
    await undo(change);
    expect((await calculation()).faults).toEqual([]);
    await untilCalculated();
  });
});

describe('categories', () => {
  const list = async () => {
    const { categories, revision } = await calculation();
    const own = categories.filter(({ sectionId }) => sectionId === null);
    return {
      revision,
      own: own.map(({ id, name, tint, isActive }) => ({ id: id as number | null, name, tint, isActive })),
    };
  };
  const put = <Body>(path: string, revision: string, categories: object[]) =>
    registrar.send<Body>('PUT', path, { revision, categories });

  it('one with scores cannot be taken out, but switched off', async () => {
    const { revision, own } = await list();
    const { status, body } = await put<Problem>('/schools/1/categories', revision, own.slice(1));
    expect([status, body.code]).toEqual([409, 'in-use']);
    expect(body.detail).toMatch(
      /^Class work is used by [\d,]+ assignments with [\d,]+ scores\. Switch it off instead: no new assignment can be put in it/,
    );
    const off = own.with(0, { ...own[0]!, isActive: false });
    const { body: after } = await put<CategoryReply[]>('/schools/1/categories', revision, off);
    expect(after[0]).toMatchObject({ name: 'Class work', isActive: false });
    expect((await calculation()).faults.map(({ code }) => code)).toContain('category-inactive');
    await put('/schools/1/categories', (await list()).revision, own);
  });

  it('a new one is added, ordered and taken out again; a name twice, an unknown one and an old list are refused', async () => {
    const { revision, own } = await list();
    const projects = { id: null, name: 'Projects', tint: 5, isActive: true };
    const { body: added } = await put<CategoryReply[]>('/schools/1/categories', revision, [projects, ...own]);
    expect(added.map(({ name }) => name)).toEqual(['Projects', 'Class work', 'Homework', 'Quizzes', 'Tests']);
    expect((await put<Problem>('/schools/1/categories', revision, own)).body.code).toBe('changed-meanwhile');
    const now = await list();
    const twice = await put<Problem>('/schools/1/categories', now.revision, [
      ...now.own,
      { ...projects, name: 'tests' },
    ]);
    expect(twice.body).toMatchObject({ code: 'categories-faulty', errors: [{ field: 'categories.5.name' }] });
    const unknown = await put<Problem>('/schools/1/categories', now.revision, [{ ...projects, id: 20 }]);
    expect(unknown.body.errors[0]?.field).toBe('categories.0.id');
    await put('/schools/1/categories', now.revision, own);
    expect((await list()).own).toEqual(own);
  });

  it('one that a report item takes by itself stays', async () => {
    const { revision, own } = await list();
    const projects = { id: null, name: 'Projects', tint: 5, isActive: true };
    const { body: added } = await put<CategoryReply[]>('/schools/1/categories', revision, [...own, projects]);
    const { id } = added.at(-1)!;
    await server.database.pool.query('UPDATE report_items SET category_id = $1 WHERE id = 1', [id]);
    const { body } = await put<Problem>('/schools/1/categories', (await list()).revision, own);
    expect(body.detail).toBe(
      'Projects is used by report items (Quarter grade). Set those to use the overall grade book or another category first.',
    );
    await server.database.pool.query('UPDATE report_items SET category_id = NULL WHERE id = 1');
    expect((await put('/schools/1/categories', (await list()).revision, own)).status).toBe(200);
  });

  it('a section has its own beside those of the school', async () => {
    const reply = await calculation();
    const { sectionId, revision } = bookNamed(reply, 'Shore Life 1');
    const path = `/schools/1/sections/${sectionId}/categories`;
    const field = { id: null, name: 'Field days', tint: 6, isActive: true };
    const { change } = await put(path, revision, [field]);
    const stranger = await server.as('harun');
    expect((await stranger.send('POST', `/changes/${change}/undo`)).status).toBe(404);
    const { body: book } = await registrar.get<BookReply>(`/grade-books/${sectionId}/${openPeriod}`);
    expect(book.categories.map(({ name }) => name)).toContain('Field days');
    const again = bookNamed(await calculation(), 'Shore Life 1').revision;
    expect((await put<Problem>(path, again, [{ ...field, name: 'Quizzes' }])).body.code).toBe('categories-faulty');
    expect((await put<CategoryReply[]>(path, again, [])).body).toEqual([]);
  });
});

describe('calculating again', () => {
  it('goes on with what a stop left over, and needs nothing to be opened', async () => {
    const own = (await calculation()).policies[0]!;
    await save(school, { ...own.policy, cap: '99' }, own.revision);
    const { body: stopped } = await registrar.send<RecalculationReply>('DELETE', '/recalculation');
    expect(stopped.remaining).toBeGreaterThan(0);
    await registrar.send('POST', '/recalculation');
    await untilCalculated();
    const { rows } = await server.database.pool.query<{ most: string }>(
      `SELECT max(k.percent) AS most FROM calculated_grades k JOIN enrollments e ON e.id = k.enrollment_id
       JOIN sections s ON s.id = e.section_id JOIN courses c ON c.id = s.course_id
       WHERE k.period_id = ${openPeriod} AND c.department = 'Sea and Shore'`,
    );
    expect(Number(rows[0]!.most)).toBe(99);
  });
});
