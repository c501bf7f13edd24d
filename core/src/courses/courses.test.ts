import { describe, expect, it } from 'vitest';
import { decimalOrThrow, formatDecimal } from '#core/numbers';
import { planRows } from '#core/cell-tables';
import {
  cellFault,
  cellsOfCourse,
  courseFields,
  courseHeadings,
  courseOfCells,
  factSource,
  courseTable,
  sectionName,
  tidyCell,
  withInheritedFacts,
  type CourseDefaults,
  type CourseField,
  type OwnCourse,
} from './index.js';

const course: OwnCourse = {
  id: 1,
  schoolId: 1,
  code: 'PEU101',
  title: 'Tidal Ecology',
  department: 'Sea',
  kind: 'academic',
  level: 'regular',
  length: 'year',
  credits: null,
  mostCredits: null,
  onTranscript: null,
  countsInGpa: false,
  allowsExempt: null,
};
const defaults = (department: string | null, more: Partial<CourseDefaults>): CourseDefaults => ({
  department,
  credits: null,
  mostCredits: null,
  onTranscript: null,
  countsInGpa: null,
  allowsExempt: null,
  ...more,
});

it('a fact comes from the course, else its department, else the school, else the last resort', () => {
  const all = [
    defaults(null, { credits: decimalOrThrow('1'), onTranscript: false, countsInGpa: true }),
    defaults('Sea', { credits: decimalOrThrow('0.5') }),
    defaults('Letters', { onTranscript: true }),
  ];
  const resolved = withInheritedFacts(course, all);
  expect([formatDecimal(resolved.credits), resolved.onTranscript, resolved.countsInGpa, resolved.mostCredits]).toEqual([
    '0.5',
    false,
    false,
    null,
  ]);
  expect(
    (['credits', 'onTranscript', 'countsInGpa', 'mostCredits'] as const).map((fact) => factSource(course, all, fact)),
  ).toEqual(['department', 'school', 'course', 'nowhere']);
  expect(withInheritedFacts(course, [])).toMatchObject({ onTranscript: true, countsInGpa: false });
});

describe('the cells of a course', () => {
  it('say what the course says, and the course what they say', () => {
    const full = { ...course, credits: decimalOrThrow('0.5000'), onTranscript: true };
    const { id: _id, schoolId: _schoolId, ...facts } = full;
    expect(cellsOfCourse(full)).toMatchObject({
      credits: '0.5',
      mostCredits: '',
      onTranscript: 'yes',
      countsInGpa: 'no',
      allowsExempt: '',
    });
    expect(courseOfCells(cellsOfCourse(full))).toEqual({ ...facts, credits: decimalOrThrow('0.5') });
  });

  it.each<[CourseField, string, string | undefined]>([
    ['code', '', 'cell-needed'],
    ['code', 'x'.repeat(21), 'cell-too-long'],
    ['kind', '', undefined],
    ['level', 'Honours', undefined],
    ['level', 'gifted', 'level-unknown'],
    ['length', 'quarter', 'length-unknown'],
    ['credits', '0,5', undefined],
    ['credits', '-1', 'credits-unreadable'],
    ['credits', '0.33333', 'credits-unreadable'],
    ['credits', '100', 'credits-unreadable'],
    ['onTranscript', 'X', undefined],
    ['countsInGpa', 'perhaps', 'yes-or-no'],
  ])('%s "%s": %s', (field, text, expected) => expect(cellFault(field, text)).toBe(expected));

  it.each<[CourseField, string, string]>([
    ['level', ' HONOURS ', 'honours'],
    ['credits', '0,50', '0.5'],
    ['countsInGpa', 'Y', 'yes'],
    ['allowsExempt', 'N', 'no'],
    ['onTranscript', '0', 'no'],
    ['credits', 'half', 'half'],
  ])('%s "%s" is tidied to "%s"', (field, text, expected) => expect(tidyCell(field, text)).toBe(expected));
});

describe('planning an import of courses', () => {
  const existing = [{ id: 1, cells: cellsOfCourse(course) }];
  const plan = (...rows: string[]) =>
    planRows(
      courseTable,
      rows.map((row) => row.split(';')),
      existing,
    );

  it('reads back what it writes as the same', () => {
    const cells = cellsOfCourse(course);
    const rows = plan(
      courseFields.map((field) => courseHeadings[field]).join(';'),
      courseFields.map((field) => cells[field]).join(';'),
    )!.rows;
    expect(rows.map(({ outcome }) => outcome)).toEqual(['same']);
  });

  it('finds the heading below a title, and tells new, changed, twice and faulty rows', () => {
    const found = plan(
      'Courses of the school',
      'Course code;Name;Subject;Level;Length;Credit',
      'peu101;Tidal Ecology;Sea;regular;year;1',
      'PEU102;Knots;Sea;regular;semester;0.5',
      'PEU101;Again;Sea;regular;year;1',
      'PEU103;Ropes;Sea;gifted;year;1',
      '',
    )!;
    expect([found.headerRow, found.rows.map(({ row, outcome, changed }) => [row, outcome, changed.join()])]).toEqual([
      2,
      [
        [3, 'changed', 'code,credits'],
        [4, 'new', 'code,title,department,level,length,credits'],
        [5, 'twice', 'title,credits'],
        [6, 'faulty', 'code,title,department,level,length,credits'],
      ],
    ]);
    expect(found.rows[3]!.faults).toEqual([{ field: 'level', fault: 'level-unknown' }]);
  });

  it('takes no code for another that differs by a hyphen', () => {
    const hyphened = [{ id: 1, cells: { ...cellsOfCourse(course), code: 'PEU-101' } }];
    const file = [
      ['Code', 'Title', 'Department', 'Level', 'Length'],
      ['PEU 101', 'Other', 'Sea', 'regular', 'year'],
    ];
    const { rows } = planRows(courseTable, file, hyphened)!;
    expect(rows.map(({ id, outcome }) => [id, outcome])).toEqual([[null, 'new']]);
  });

  it('is nothing where no row names a code', () => expect(plan('a;b', '1;2')).toBeUndefined());
});

it.each([
  ['Boatbuilding', 2, 'Boatbuilding 2'],
  ['Making, year 1', 2, 'Making, year 1 · section 2'],
  ['Year 1 Making', 3, 'Year 1 Making 3'],
])('section %s %s is called %s', (title, number, name) => {
  expect(sectionName(title, number)).toBe(name);
});
