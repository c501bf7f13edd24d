import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { explainGrade } from '#core/calculation';
import { formatDecimal, roundHalfUp, roundTo } from '#core/numbers';
import {
  bookScore,
  policyOfBody,
  type AssignmentBody,
  type BookReply,
  type ScoreChangeBody,
} from '#contract/calculation';
import type { Problem } from '#contract/problems';
import { openPeriod, sheetNamed } from '../../../test/sheets.js';
import { startTestServer, type TestClient, type TestServer } from '../../../test/test-server.js';

let server: TestServer;
let teacher: TestClient;
let registrar: TestClient;
let book: BookReply;
let path: string;
beforeAll(async () => {
  server = await startTestServer();
  [teacher, registrar] = [await server.as('harun'), await server.as('morwenna')];
  const { sheet } = await sheetNamed(teacher, 'Number and Measure 6');
  path = `/grade-books/${sheet.sectionId}/${openPeriod}`;
});
afterAll(() => server.stop());
beforeEach(async () => {
  book = (await teacher.get<BookReply>(path)).body;
});

const assignmentNamed = (name: string) => book.assignments.find((assignment) => assignment.name === name)!;
const scoreOf = (of: BookReply, assignmentId: number, enrollmentId: number) =>
  of.scores.find((score) => score.assignmentId === assignmentId && score.enrollmentId === enrollmentId);
/** A change of the first student's score in the first test. */
const changeTo = (changed: Partial<ScoreChangeBody>): ScoreChangeBody => {
  const [assignmentId, { enrollmentId }] = [assignmentNamed('Tests 1').id, book.students[0]!];
  const version = scoreOf(book, assignmentId, enrollmentId)?.version ?? 0;
  return { assignmentId, enrollmentId, version, points: '18', flag: null, ...changed };
};
const save = <Body>(client: TestClient, changes: readonly ScoreChangeBody[]) =>
  client.send<Body>('PUT', `${path}/scores`, { changes });
const computedOf = async (enrollmentId: number) => {
  const { sheet } = await sheetNamed(teacher, 'Number and Measure 6');
  return sheet.rows.find((row) => row.enrollmentId === enrollmentId)!;
};
/** What the core makes of the book as the server tells it. */
const calculated = (of: BookReply, enrollmentId: number) => {
  const given = of.assignments.filter(({ givenTo }) => givenTo === null || givenTo.includes(enrollmentId));
  const scores = given.map((assignment) => bookScore(assignment, scoreOf(of, assignment.id, enrollmentId)));
  const { percent } = explainGrade(scores, policyOfBody(of.policy));
  return percent && formatDecimal(roundTo(percent, of.item!.digits, roundHalfUp));
};
const newAssignment = (changed: Partial<AssignmentBody> = {}): AssignmentBody => ({
  name: 'Sextant',
  categoryId: book.categories[3]!.id,
  possible: '20',
  dueOn: '2026-01-12',
  isExtra: false,
  isCounted: true,
  isPublished: true,
  givenTo: null,
  ...changed,
});
const add = <Body = BookReply>(changed: Partial<AssignmentBody> = {}, alsoIn: number[] = []) =>
  teacher.send<Body>('POST', `${path}/assignments`, { ...newAssignment(changed), alsoIn });
const undo = <Body>(client: TestClient, change: number | null) => client.send<Body>('POST', `/changes/${change}/undo`);
const takeOut = <Body>(id: number) => teacher.send<Body>('DELETE', `${path}/assignments/${id}`);

describe('a grade book', () => {
  it('is changed by its teacher alone; a registrar reads it, another teacher does not', async () => {
    expect(book).toMatchObject({ section: 'Number and Measure 6', canEdit: true, policyFrom: 'Numbers and Charts' });
    expect((await registrar.get<BookReply>(path)).body.canEdit).toBe(false);
    const refused = await save<Problem>(registrar, [changeTo({})]);
    expect([refused.status, refused.body.code]).toEqual([403, 'not-allowed']);
    expect((await teacher.get(`/grade-books/1/${openPeriod}`)).status).toBe(404);
    expect((await registrar.get(`/grade-books/99999/${openPeriod}`)).status).toBe(404);
  });

  it('comes to what the core makes of it, and the grade sheet shows the same', async () => {
    for (const { enrollmentId } of book.students.slice(0, 6)) {
      const { computed } = await computedOf(enrollmentId);
      expect(computed && Number(computed.percent).toFixed(1)).toEqual(calculated(book, enrollmentId));
    }
  });

  it('a saved score is calculated at once; what is posted stays', async () => {
    const change = changeTo({ points: '3.5', flag: 'late' });
    const before = await computedOf(change.enrollmentId);
    const { status, body } = await save<BookReply>(teacher, [change]);
    expect(status).toBe(200);
    expect(scoreOf(body, change.assignmentId, change.enrollmentId)).toMatchObject({
      points: '3.5',
      flag: 'late',
      version: change.version + 1,
    });
    const after = await computedOf(change.enrollmentId);
    expect(Number(after.computed!.percent)).toBeLessThan(Number(before.computed!.percent));
    expect(Number(after.computed!.percent).toFixed(1)).toBe(calculated(body, change.enrollmentId));
    expect(after.mark).toEqual(before.mark);
  });

  it('a saved score is undone from any page, by whom may score there; what was scored since stands in the way', async () => {
    const { change } = await save(teacher, [changeTo({ points: '3' })]);
    expect((await undo(registrar, change)).status).toBe(404);
    const undone = await undo(teacher, change);
    expect(undone.status).toBe(200);
    const after = (await teacher.get<BookReply>(path)).body;
    const bare = ({ scores }: BookReply) => scores.map(({ version: _version, ...score }) => score);
    expect(bare(after)).toEqual(bare(book));
    book = after;
    const first = await save(teacher, [changeTo({ points: '4' })]);
    book = (await teacher.get<BookReply>(path)).body;
    const second = await save(teacher, [changeTo({ points: '5' })]);
    expect((await undo<Problem>(teacher, first.change)).body.detail).toBe(
      'the score: Harun Nance did this since: save scores of Number and Measure 6.',
    );
    await undo(teacher, second.change);
    expect((await undo(teacher, first.change)).status).toBe(200);
  });

  it('a first score that is undone leaves none, and what was typed over it does not go unseen', async () => {
    const { body } = await add({ name: 'Star chart' });
    const { id } = body.assignments.find(({ name }) => name === 'Star chart')!;
    const first = {
      assignmentId: id,
      enrollmentId: book.students[0]!.enrollmentId,
      version: 0,
      points: '9',
      flag: null,
    };
    const { change } = await save(teacher, [first]);
    await undo(teacher, change);
    const { body: after } = await teacher.get<BookReply>(path);
    expect(scoreOf(after, id, first.enrollmentId)?.points ?? null).toBeNull();
    const stale = await save<Problem>(teacher, [{ ...first, version: 1, points: '8' }]);
    expect(stale.body.code).toBe('scores-changed');
    expect((await takeOut(id)).status).toBe(200);
  });

  it('an incomplete score blocks the grade, and the sheet says which', async () => {
    const change = changeTo({ points: null, flag: 'incomplete' });
    await save(teacher, [change]);
    expect(await computedOf(change.enrollmentId)).toMatchObject({ computed: null, blockedBy: ['Tests 1'] });
    await save(teacher, [{ ...change, version: change.version + 1, points: '15', flag: null }]);
    expect((await computedOf(change.enrollmentId)).blockedBy).toEqual([]);
  });
});

describe('scores that cannot be', () => {
  it.each<[string, Partial<ScoreChangeBody>, string]>([
    [
      'above the maximum',
      { points: '20.5' },
      'It is out of 20. Points beyond that belong in an assignment that is marked extra.',
    ],
    ['for nobody', { enrollmentId: 1 }, 'a student who was given Tests 1'],
    [
      'in an assignment of another section',
      { assignmentId: 1, version: 0 },
      'an assignment of this section and period',
    ],
  ])('%s', async (_what, changed, detail) => {
    const { status, body } = await save<Problem>(teacher, [changeTo({}), changeTo(changed)]);
    expect([status, body.code]).toEqual([422, 'scores-faulty']);
    expect(body.errors.map((error) => error.detail)).toEqual([detail]);
    expect((await teacher.get<BookReply>(path)).body.scores).toEqual(book.scores);
  });

  it.each([
    ['negative', { points: '-1' }],
    ['text', { points: 'eighteen' }],
    ['with three decimals', { points: '1.125' }],
    ['with an unknown flag', { flag: 'lost' as never }],
  ])('%s', async (_what, changed) => {
    const { status, body } = await save<Problem>(teacher, [changeTo(changed)]);
    expect([status, body.code, body.errors[0]?.field]).toEqual([
      422,
      'fields-wrong',
      `changes.0.${Object.keys(changed)[0]}`,
    ]);
  });

  it('saved over somebody else’s are refused by name, all of them', async () => {
    const [mine, other] = [
      changeTo({ points: '12' }),
      { ...changeTo({}), enrollmentId: book.students[1]!.enrollmentId },
    ];
    await save(teacher, [changeTo({ points: '11' })]);
    const version = scoreOf(book, other.assignmentId, other.enrollmentId)!.version;
    const { status, body } = await save<Problem>(teacher, [mine, { ...other, version }]);
    expect([status, body.code]).toEqual([409, 'scores-changed']);
    expect(body.errors.map(({ detail }) => detail)).toEqual([`${book.students[0]!.student}, Tests 1`]);
  });
});

describe('assignments', () => {
  it('are added for all or some, in several sections of the course that one teaches, and count at once', async () => {
    const some = book.students.slice(0, 2).map(({ enrollmentId }) => enrollmentId);
    const { body } = await add({ givenTo: some });
    const added = body.assignments.find(({ name }) => name === 'Sextant')!;
    expect(added).toMatchObject({ possible: '20', givenTo: some, version: 1 });
    const other = {
      assignmentId: added.id,
      enrollmentId: book.students[2]!.enrollmentId,
      version: 0,
      points: '9',
      flag: null,
    };
    expect((await save<Problem>(teacher, [other])).body.errors[0]?.detail).toBe('a student who was given Sextant');
    await takeOut(added.id);

    const { sheet } = await sheetNamed(teacher, 'Tidal Ecology 2');
    const ecology = `/grade-books/${sheet.sectionId}/${openPeriod}`;
    const { body: open } = await teacher.get<BookReply>(ecology);
    const sister = open.sisters.find(({ isOwn }) => isOwn)!;
    const request = { ...newAssignment({ categoryId: open.categories[0]!.id }), alsoIn: [sister.sectionId] };
    await teacher.send('POST', `${ecology}/assignments`, request);
    const { body: also } = await teacher.get<BookReply>(`/grade-books/${sister.sectionId}/${openPeriod}`);
    expect(also.assignments.map(({ name }) => name)).toContain('Sextant');
    const notOwn = open.sisters.find(({ isOwn }) => !isOwn)!;
    const refused = await teacher.send<Problem>('POST', `${ecology}/assignments`, {
      ...request,
      alsoIn: [notOwn.sectionId],
    });
    expect([refused.status, refused.body.code]).toEqual([403, 'not-allowed']);
  });

  it('added to several sections go from all of them by undo; one that was removed comes back under its number', async () => {
    const { sheet } = await sheetNamed(teacher, 'Tidal Ecology 2');
    const ecology = `/grade-books/${sheet.sectionId}/${openPeriod}`;
    const { body: open } = await teacher.get<BookReply>(ecology);
    const sister = open.sisters.find(({ isOwn }) => isOwn)!;
    const body = newAssignment({ name: 'Tide table', categoryId: open.categories[0]!.id });
    const added = await teacher.send<BookReply>('POST', `${ecology}/assignments`, {
      ...body,
      alsoIn: [sister.sectionId],
    });
    const { id } = added.body.assignments.find(({ name }) => name === 'Tide table')!;
    const removed = await teacher.send('DELETE', `${ecology}/assignments/${id}`);
    expect((await undo<Problem>(registrar, removed.change)).status).toBe(404);
    expect((await undo(teacher, removed.change)).status).toBe(200);
    const { body: back } = await teacher.get<BookReply>(ecology);
    expect(back.assignments.find((each) => each.id === id)).toMatchObject({ name: 'Tide table', possible: '20' });
    expect((await undo(teacher, added.change)).status).toBe(200);
    const { body: other } = await teacher.get<BookReply>(`/grade-books/${sister.sectionId}/${openPeriod}`);
    expect(other.assignments.some(({ name }) => name === 'Tide table')).toBe(false);
  });

  it('out of zero points only add, and one that does not count changes nothing', async () => {
    const { enrollmentId } = book.students[3]!;
    const before = Number(calculated(book, enrollmentId));
    const { body } = await add({ name: 'Knot of the day', possible: '0' });
    const { id } = body.assignments.find(({ name }) => name === 'Knot of the day')!;
    const { body: scored } = await save<BookReply>(teacher, [
      { assignmentId: id, enrollmentId, version: 0, points: '1', flag: null },
    ]);
    expect(Number(calculated(scored, enrollmentId))).toBeGreaterThan(before);
    const { body: quiet } = await teacher.send<BookReply>('PUT', `${path}/assignments/${id}`, {
      ...newAssignment({ name: 'Knot of the day', possible: '0', isCounted: false }),
      version: 1,
    });
    expect(Number(calculated(quiet, enrollmentId))).toBe(before);
    expect(Number((await computedOf(enrollmentId)).computed!.percent).toFixed(1)).toBe(calculated(quiet, enrollmentId));
  });

  it.each<[string, Partial<AssignmentBody>, string]>([
    ['due outside the period', { dueOn: '2026-03-01' }, 'dueOn'],
    ['in a category of another school', { categoryId: 20 }, 'categoryId'],
    ['for somebody who is not in the section', { givenTo: [1] }, 'givenTo'],
  ])('%s is refused', async (_what, changed, field) => {
    const { status, body } = await add<Problem>(changed);
    expect([status, body.code, body.errors.map((error) => error.field)]).toEqual([422, 'assignment-faulty', [field]]);
  });

  it.each<[string, Partial<AssignmentBody>, string]>([
    ['without a name', { name: '' }, 'name'],
    ['out of less than nothing', { possible: '-5' }, 'possible'],
    ['for nobody', { givenTo: [] }, 'givenTo'],
  ])('%s is refused by its field', async (_what, changed, field) => {
    const { status, body } = await add<Problem>(changed);
    expect([status, body.code, body.errors[0]?.field]).toEqual([422, 'fields-wrong', field]);
  });

  it('with scores are neither lowered below them, taken from whom they score, nor removed', async () => {
    const test = assignmentNamed('Tests 1');
    const change = <Body>(changed: Partial<AssignmentBody>, version = test.version) => {
      const { id: _id, ...body } = test;
      return teacher.send<Body>('PUT', `${path}/assignments/${test.id}`, { ...body, ...changed, version });
    };
    expect((await change<Problem>({ possible: '2' })).body.errors[0]?.field).toBe('possible');
    expect((await change<Problem>({ givenTo: [book.students[0]!.enrollmentId] })).body.errors[0]?.field).toBe(
      'givenTo',
    );
    expect((await change<Problem>({}, 99)).body.code).toBe('set-up-changed');
    const removed = await takeOut<Problem>(test.id);
    expect([removed.status, removed.body.code]).toEqual([409, 'in-use']);
    expect(removed.body.detail).toContain('Set it to “not counted” instead, or empty its column first.');
    expect((await takeOut<Problem>(1)).status).toBe(404);
  });
});

it('has categories of its own, kept by its teacher beside those of the school', async () => {
  const put = <Body>(client: TestClient, revision: string, categories: object[]) =>
    client.send<Body>('PUT', `${path}/categories`, { revision, categories });
  const field = { id: null, name: 'Field days', tint: 6, isActive: true };
  const { status, body } = await put<BookReply>(teacher, book.revision, [field]);
  const own = body.categories.filter(({ sectionId }) => sectionId !== null);
  expect([status, own.map(({ name }) => name)]).toEqual([200, ['Field days']]);
  expect((await put<Problem>(teacher, book.revision, [])).body.code).toBe('changed-meanwhile');
  expect((await put<Problem>(teacher, body.revision, [{ ...field, name: 'tests' }])).body.code).toBe(
    'categories-faulty',
  );
  const school = body.categories.find(({ sectionId }) => sectionId === null)!;
  expect((await put<Problem>(teacher, body.revision, [{ ...field, id: school.id }])).body.code).toBe(
    'categories-faulty',
  );
  const viewer = await server.as('sunniva');
  expect((await put<Problem>(viewer, body.revision, [])).status).toBe(403);

  const { body: with1 } = await add({ name: 'Harbour walk', categoryId: own[0]!.id });
  const used = await put<Problem>(teacher, body.revision, []);
  expect([used.status, used.body.code]).toEqual([409, 'in-use']);
  await takeOut(with1.assignments.find(({ name }) => name === 'Harbour walk')!.id);
  expect((await put<BookReply>(teacher, body.revision, [])).body.categories).toEqual(book.categories);
});

it('the book of a sealed period is read, not changed', async () => {
  const sealed = path.replace(/\d+$/, '3');
  const { body } = await teacher.get<BookReply>(sealed);
  expect([body.canEdit, body.sealedAt !== null]).toEqual([false, true]);
  const [assignment, student] = [body.assignments[0]!, body.students[0]!];
  const change = {
    assignmentId: assignment.id,
    enrollmentId: student.enrollmentId,
    version: 1,
    points: '1',
    flag: null,
  };
  const refused = await teacher.send<Problem>('PUT', `${sealed}/scores`, { changes: [change] });
  expect([refused.status, refused.body.code]).toEqual([409, 'period-sealed']);
});
