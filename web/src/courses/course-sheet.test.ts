import { describe, expect, it } from 'vitest';
import { courseFields, type CourseCells } from '#core/courses';
import type { CourseReply } from '#contract/courses';
import {
  blockOfText,
  courseRows,
  editsOfBlock,
  editsOfFillDown,
  requestOf,
  textOfRange,
  undoOf,
  withEdits,
  withNewRow,
  withoutRows,
  type CellRange,
} from './course-sheet';

const cells = (code: string, more: Partial<CourseCells> = {}): CourseCells => ({
  code,
  title: `Course ${code}`,
  department: 'Sea',
  kind: '',
  level: 'regular',
  length: 'year',
  credits: '',
  mostCredits: '',
  onTranscript: '',
  countsInGpa: '',
  ...more,
});
const inherited = { text: '1', from: 'school' } as const;
const course = (id: number, own: CourseCells): CourseReply => ({
  id,
  version: 3,
  cells: own,
  scale: null,
  sections: 0,
  grades: 0,
  inherited: {
    credits: inherited,
    mostCredits: inherited,
    onTranscript: inherited,
    countsInGpa: inherited,
  },
});
const reply = { courses: [course(1, cells('A1')), course(2, cells('A2')), course(3, cells('A3'))], defaults: [] };
const none = { cells: {}, versions: {}, removed: [] };
const rows = courseRows(reply, none);
const at = (field: (typeof courseFields)[number]) => courseFields.indexOf(field);
const range = (fromRow: number, toRow: number, from: (typeof courseFields)[number], to = from): CellRange => ({
  fromRow,
  toRow,
  fromField: at(from),
  toField: at(to),
});

describe('the spreadsheet of courses', () => {
  it('takes a block from a spreadsheet, tidied, and leaves out what reaches beyond it', () => {
    const edits = editsOfBlock(
      rows,
      range(1, 1, 'level'),
      blockOfText('Honours\tSemester\t0,5\r\nregular\tyear\t1\r\nx\ty\tz\r\n'),
    );
    const changes = withEdits(none, edits);
    expect(Object.keys(changes.cells)).toEqual(['2', '3']);
    expect(changes.cells['2']).toMatchObject({ level: 'honours', length: 'semester', credits: '0.5' });
    expect(requestOf(changes).changes.map(({ id, version }) => [id, version])).toEqual([
      [2, 3],
      [3, 3],
    ]);
  });

  it('fills a whole range with one value, and down from its first row', () => {
    const one = withEdits(none, editsOfBlock(rows, range(0, 2, 'credits', 'mostCredits'), [['2']]));
    expect(Object.values(one.cells).map(({ credits, mostCredits }) => [credits, mostCredits])).toEqual([
      ['2', '2'],
      ['2', '2'],
      ['2', '2'],
    ]);
    const changed = courseRows(reply, withEdits(none, [[rows[0]!, 'department', 'Letters']]));
    const filled = withEdits(none, editsOfFillDown(changed, range(0, 2, 'department')));
    expect(Object.entries(filled.cells).map(([key, { department }]) => [key, department])).toEqual([
      ['2', 'Letters'],
      ['3', 'Letters'],
    ]);
  });

  it('a cell changed back is no change, and text goes out as it came in', () => {
    const changed = withEdits(none, [[rows[0]!, 'kind', 'academic']]);
    const row = courseRows(reply, changed)[0]!;
    expect([...row.changed]).toEqual(['kind']);
    expect(withEdits(changed, [[row, 'kind', '']])).toEqual(none);
    expect(blockOfText(textOfRange(rows, range(0, 1, 'code', 'title')))).toEqual([
      ['A1', 'Course A1'],
      ['A2', 'Course A2'],
    ]);
  });

  it('says of each cell what is wrong, and of two courses that they share a code', () => {
    const faulty = courseRows(
      reply,
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

  it('a save is undone: cells as they were, new courses out again, those taken out made anew', () => {
    const changes = withoutRows(withNewRow(withEdits(none, [[rows[0]!, 'kind', 'academic']]), rows[0]), [rows[1]!]);
    const after = {
      ...reply,
      courses: [{ ...reply.courses[0]!, version: 4 }, reply.courses[2]!, course(9, cells('N1'))],
    };
    expect(undoOf(changes, reply, after)).toEqual({
      changes: [
        { id: 1, version: 4, cells: cells('A1') },
        { id: null, version: 0, cells: cells('A2') },
      ],
      removed: [9],
    });
  });

  it('a new course begins in the department of the one beside it, and goes again without a trace', () => {
    const added = withNewRow(withNewRow(none, rows[0]), rows[0]);
    expect(Object.entries(added.cells).map(([key, { department, code }]) => [key, department, code])).toEqual([
      ['new 1', 'Sea', ''],
      ['new 2', 'Sea', ''],
    ]);
    const all = courseRows(reply, added);
    expect(all.at(-1)!.faults).toMatchObject({ code: 'this cannot be empty' });
    const without = withoutRows(added, [all.at(-1)!, all.at(-2)!, all[0]!]);
    expect([without.cells, without.removed, requestOf(without).removed]).toEqual([{}, [1], [1]]);
  });
});
