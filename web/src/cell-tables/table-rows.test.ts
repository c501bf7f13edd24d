import { describe, expect, it } from 'vitest';
import { courseTable, type CourseField } from '#core/courses';
import type { CourseReply, CourseImportReply } from '#contract/courses';
import { cellsOf, courseOf } from '../../test/courses.fixture';
import { courseLook } from '../courses/course-look';
import * as tables from './table-rows';

const { noChanges: none, rebased, requestOf, staleKeys, withNewRow, withoutRows, withPlan } = tables;
const kept = [courseOf(1, cellsOf('A1')), courseOf(2, cellsOf('A2')), courseOf(3, cellsOf('A3'))];
const rowsOf = (changes: tables.RowChanges<CourseField>, of = kept) =>
  tables.tableRows(courseTable, of, changes, courseLook.shared);
const withEdits = (
  changes: tables.RowChanges<CourseField>,
  edits: readonly tables.CellEdit<CourseField, CourseReply>[],
) => tables.withEdits(courseTable, changes, edits);
const rows = rowsOf(none);

describe('a spreadsheet of rows', () => {
  it('takes texts tidied, each on the version of its course', () => {
    const changes = withEdits(none, [
      [rows[1]!, 'level', 'Honours'],
      [rows[1]!, 'length', 'Semester'],
      [rows[1]!, 'credits', '0,5'],
      [rows[2]!, 'level', 'honours'],
    ]);
    expect(changes.cells['2']).toMatchObject({ level: 'honours', length: 'semester', credits: '0.5' });
    expect(requestOf(changes).changes.map(({ id, revision }) => [id, revision])).toEqual([
      [2, 'r2'],
      [3, 'r3'],
    ]);
  });

  it('a cell changed back is no change', () => {
    const changed = withEdits(none, [[rows[0]!, 'kind', 'academic']]);
    const row = rowsOf(changed)[0]!;
    expect([...row.changed]).toEqual(['kind']);
    expect(withEdits(changed, [[row, 'kind', '']])).toEqual(none);
  });

  it('says of each cell what is wrong, and of two courses that they share a code', () => {
    const faulty = rowsOf(
      withEdits(none, [
        [rows[0]!, 'code', 'a2'],
        [rows[2]!, 'level', 'gifted'],
      ]),
    );
    expect(faulty.map(({ faults }) => faults)).toEqual([
      { code: 'another course has this code too' },
      { code: 'another course has this code too' },
      { level: 'one of regular, honours, college' },
    ]);
  });

  it('a row that is kept with a fault keeps no other from being saved; once it is changed it must be mended', () => {
    const odd = [courseOf(1, cellsOf('A1', { title: '', level: 'gifted' })), courseOf(2, cellsOf('A2'))];
    expect(rowsOf(none, odd).map(({ faults }) => faults)).toEqual([{}, {}]);
    const changed = withEdits(none, [[rowsOf(none, odd)[0]!, 'department', 'Sea']]);
    expect(rowsOf(changed, odd).map(({ faults }) => Object.keys(faults))).toEqual([['title', 'level'], []]);
  });

  it('a new row begins with what it is given, and goes again without a trace', () => {
    const first = withNewRow(courseTable, none, { department: 'Craft' });
    const { changes: added, key } = withNewRow(courseTable, first.changes, { department: 'Craft' });
    expect(key).toBe('new 2');
    expect(Object.entries(added.cells).map(([key, { department, code }]) => [key, department, code])).toEqual([
      ['new 1', 'Craft', ''],
      ['new 2', 'Craft', ''],
    ]);
    const all = rowsOf(added);
    expect(all.at(-1)!.faults).toMatchObject({ code: 'this cannot be empty' });
    const without = withoutRows(added, [all.at(-1)!, all.at(-2)!, all[0]!]);
    expect([without.cells, without.removed, requestOf(without).removed]).toEqual([{}, [1], [1]]);
  });

  it('says what stands behind a fact: why it cannot be taken, else who says what is inherited', () => {
    const [first] = rowsOf(withEdits(none, [[rows[0]!, 'code', '']]));
    const { reasonOf } = courseLook;
    expect([first!.faults.code, reasonOf(rows[0]!, 'title')]).toEqual(['this cannot be empty', undefined]);
    const inherited = { credits: { text: '1', from: 'department' as const } };
    const own = {
      ...rows[0]!,
      reply: { ...rows[0]!.reply!, inherited: { ...rows[0]!.reply!.inherited, ...inherited } },
    };
    const empty = { ...own, cells: { ...own.cells, credits: '' } };
    expect([
      reasonOf(empty, 'credits'),
      reasonOf({ ...empty, cells: { ...empty.cells, credits: '2' } }, 'credits'),
    ]).toEqual(['the department says so', undefined]);
  });
});

it('a file becomes changes that are not saved: new rows, and those that differ, each on the version of its course', () => {
  const row = (outcome: string, id: number | null, own: CourseReply['cells']) => ({ outcome, id, cells: own });
  const plan = {
    fileName: 'next year.csv',
    rows: [
      row('new', null, cellsOf('B1')),
      row('same', 1, cellsOf('A1')),
      row('changed', 2, cellsOf('A2', { department: 'Land' })),
      row('refused', 3, cellsOf('A3', { length: 'decade' as never })),
      row('new', null, cellsOf('B2')),
    ],
  } as unknown as CourseImportReply;
  const changes = withPlan(none, plan, rows);
  expect(
    Object.values(changes.cells)
      .map(({ code }) => code)
      .toSorted(),
  ).toEqual(['A2', 'B1', 'B2']);
  expect([changes.cells['2']?.department, changes.revisions]).toEqual(['Land', { '2': 'r2' }]);
  expect(none.cells).toEqual({});
});

it('two that share what none may share are marked where a change made it so, and not where it always was', () => {
  const twins = [courseOf(1, cellsOf('A1')), courseOf(2, cellsOf('a1')), courseOf(3, cellsOf('A3'))];
  expect(rowsOf(none, twins).map(({ faults }) => faults)).toEqual([{}, {}, {}]);
  const changed = withEdits(none, [[rowsOf(none, twins)[2]!, 'code', 'A1']]);
  expect(rowsOf(changed, twins).map(({ faults }) => faults.code)).toEqual(Array(3).fill(courseLook.shared));
});

it('a draft upon what somebody else saved since is told, and can be put upon what is saved now', () => {
  const changes = withEdits(none, [[rows[0]!, 'title', 'Knots']]);
  const since = [{ ...kept[0]!, revision: 'r9' }, ...kept.slice(1)];
  expect([staleKeys(changes, kept), staleKeys(changes, since), staleKeys(changes, [])]).toEqual([[], ['1'], ['1']]);
  expect(staleKeys(rebased(changes, since), since)).toEqual([]);
});

describe('a draft of rows after a save', () => {
  const edited = withEdits(none, [
    [rows[0]!, 'title', 'One'],
    [rows[1]!, 'title', 'Two'],
  ]);
  const sent = { ...withNewRow(courseTable, edited, { title: 'Three' }).changes, removed: [3] };
  const reply = { saved: [1, 2, 9].map((id) => ({ id, revision: `s${id}` })) };
  const after = (now: tables.RowChanges<CourseField>) => tables.withoutSent(courseTable, now, sent, reply);

  it('is none where nothing was typed meanwhile', () => {
    expect(after(sent)).toEqual(none);
  });

  it.each<[string, tables.RowChanges<CourseField>, unknown]>([
    [
      'a row that was sent, upon what was saved',
      { ...sent, cells: { ...sent.cells, '2': cellsOf('A2', { title: 'Later' }) } },
      { cells: { '2': cellsOf('A2', { title: 'Later' }) }, revisions: { '2': 's2' }, removed: [] },
    ],
    [
      'a row that was new, under the number that it has now',
      { ...sent, cells: { ...sent.cells, 'new 1': cellsOf('A4') } },
      { cells: { '9': cellsOf('A4') }, revisions: { '9': 's9' }, removed: [] },
    ],
    [
      'a row that was not sent, as it was',
      { ...sent, cells: { ...sent.cells, '4': cellsOf('A5') }, revisions: { ...sent.revisions, '4': 'r4' } },
      { cells: { '4': cellsOf('A5') }, revisions: { '4': 'r4' }, removed: [] },
    ],
    [
      'a row that was begun since',
      { ...sent, cells: { ...sent.cells, 'new 2': cellsOf('N2') } },
      { cells: { 'new 2': cellsOf('N2') }, revisions: {}, removed: [] },
    ],
    ['a row that was removed since', { ...sent, removed: [3, 8] }, { cells: {}, revisions: {}, removed: [8] }],
  ])('keeps %s', (_what, now, left) => {
    expect(after(now)).toEqual(left);
  });
});
