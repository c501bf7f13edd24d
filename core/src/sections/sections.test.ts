import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOrThrow } from '#core/calendar';
import { faultsOfRow, planRows } from '#core/cell-tables';
import { nameAs } from '#core/people';
import {
  cellsOfEnrollment,
  cellsOfSection,
  daysOfSection,
  enrollmentOfCells,
  enrollmentTable,
  isOverfull,
  nameBook,
  readSeats,
  sectionOfCells,
  sectionTable,
  type EnrollmentCells,
  type SectionCells,
} from './index.js';

const days = (startsOn: string, endsOn: string) => ({ startsOn: dayOrThrow(startsOn), endsOn: dayOrThrow(endsOn) });
const year = days('2026-09-01', '2027-06-30');

describe('a book of names', () => {
  const book = nameBook([
    { id: 1, names: ['Reed, Tamsin', 'Tamsin Reed'], apart: 'tamsin@school.example' },
    { id: 2, names: ['Hale, Bo', 'Bo Hale'], apart: 'T2' },
    { id: 3, names: ['Hale, Bo', 'Bo Hale'], apart: 'T3' },
    { id: 4, names: ['Kyle, Eve', 'Eve Kyle'], apart: '' },
    { id: 5, names: ['Kyle, Eve', 'Eve Kyle'], apart: '' },
  ]);

  it.each<[string, number | 'several' | undefined]>([
    ['Reed, Tamsin', 1],
    [' tamsin REED ', 1],
    ['Tamsin\n Reed', 1],
    ['TAMSIN@school.example', 1],
    ['Hale, Bo', 'several'],
    ['t3', 3],
    ['Hale, Bo (T2)', 2],
    ['Kyle, Eve', 'several'],
    ['Kyle, Eve (no. 5)', 5],
    ['Reed', undefined],
    ['', undefined],
  ])('reads "%s" as %s', (text, id) => {
    expect(book.read(text)).toBe(id);
  });

  it('calls each by a text that is its alone', () => {
    expect(book.texts).toEqual([
      'Reed, Tamsin',
      'Hale, Bo (T2)',
      'Hale, Bo (T3)',
      'Kyle, Eve (no. 4)',
      'Kyle, Eve (no. 5)',
    ]);
    expect(book.textOf(9)).toBe('');
  });

  it('shows people as the reader likes it, with what tells them apart, and all else as it is', () => {
    const people = nameBook([
      { id: 1, names: ['Carrow, Hale'], apart: 'S1', listed: 'Carrow, Hale “Hal”' },
      { id: 2, names: ['Hale, Bo'], apart: 'T2', listed: 'Hale, Bo' },
      { id: 3, names: ['Hale, Bo'], apart: 'T3', listed: 'Hale, Bo “Bee”' },
    ]);
    const shown = (text: string) =>
      people.shown(text, (listed) => nameAs(listed, { order: 'given', names: 'preferred' }));
    expect([...people.texts, 'Hale', ''].map(shown)).toEqual([
      'Hal Carrow',
      'Bo Hale (T2)',
      'Bee Hale (T3)',
      'Hale',
      '',
    ]);
  });

  it('of whatever names reads each by its own text, and nobody by a name that two have', () => {
    const names = fc.array(
      fc.tuple(fc.constantFrom('A', 'a ', 'C', 'C (x)', 'C (no. 1)'), fc.constantFrom('', 'A', 'x', 'y')),
      {
        maxLength: 8,
      },
    );
    fc.assert(
      fc.property(names, (things) => {
        const some = nameBook(things.map(([name, apart], at) => ({ id: at + 1, names: [name], apart })));
        for (const [at, [name]] of things.entries()) {
          expect(some.read(some.textOf(at + 1))).toBe(at + 1);
          const alike = things.filter(([other]) => other.trim().toLowerCase() === name.trim().toLowerCase());
          expect(alike.length > 1 && some.read(name) === at + 1).toBe(false);
        }
      }),
      { seed: 15 },
    );
  });
});

const directory = {
  courses: nameBook([
    { id: 11, names: ['Weaving'], apart: 'WEA' },
    { id: 12, names: ['Knots'], apart: 'KN1' },
    { id: 13, names: ['Knots'], apart: 'KN2' },
  ]),
  staff: nameBook([
    { id: 7, names: ['Reed, Tamsin', 'Tamsin Reed', 'T7'], apart: 'tamsin@school.example' },
    { id: 9, names: ['Voe, Ina', 'Ina Voe', 'T9'], apart: 'ina@school.example' },
    { id: 8, names: ['Holm, Bo', 'Bo Holm', 'T8'], apart: 'bo@school.example' },
  ]),
  periods: nameBook([
    { id: 1, names: ['2026–27'], apart: '' },
    { id: 2, names: ['Semester 1'], apart: '' },
  ]),
  yearId: 1,
  daysOf: new Map([
    [1, year],
    [2, days('2026-09-01', '2027-01-31')],
  ]),
};
const table = sectionTable(directory);
const cells = (over: Partial<SectionCells> = {}): SectionCells => ({
  course: 'Weaving',
  number: '1',
  teacher: 'Reed, Tamsin',
  coTeachers: '',
  period: '',
  startsOn: '',
  endsOn: '',
  seats: '',
  ...over,
});

it.each([
  [{}, '2026-09-01', '2027-06-30'],
  [{ period: 'semester 1' }, '2026-09-01', '2027-01-31'],
  [{ period: 'Semester 1', startsOn: '5 Oct', endsOn: '2026-12-18' }, '2026-10-05', '2026-12-18'],
  // A day that says none is told of in its cell.
  [{ period: 'Semester 9', endsOn: '3/4' }, '2026-09-01', '2027-06-30'],
] as const)('a section of %j runs from %s to %s', (over, startsOn, endsOn) =>
  expect(daysOfSection(directory, cells(over))).toEqual({ startsOn, endsOn }),
);

it('has room for a number from 1 to 999, and too many students only beyond it', () => {
  expect(['1', ' 030 ', '999', '0', '1000', '-5', '2.5', ''].map(readSeats)).toEqual([
    1,
    30,
    999,
    ...Array<undefined>(5).fill(undefined),
  ]);
  expect([isOverfull(30, 30), isOverfull(31, 30), isOverfull(31, null)]).toEqual([false, true, false]);
});

it('co-teachers are those beside the teacher, each once, and stand again as they were read', () => {
  const section = sectionOfCells(directory, cells({ coTeachers: 'Ina Voe; T8; Tamsin Reed; voe, ina' }));
  expect([section.teacherId, section.coTeacherIds]).toEqual([7, [8, 9]]);
  expect(cellsOfSection(directory, section).coTeachers).toBe('Holm, Bo; Voe, Ina');
  expect(sectionOfCells(directory, cells()).coTeacherIds).toEqual([]);
});

describe('the cells of a section', () => {
  it.each<[keyof SectionCells, string, string]>([
    ['course', 'wea', 'Weaving'],
    ['course', 'kn2', 'Knots (KN2)'],
    ['number', '02', '02'],
    ['number', ' 2 ', '2'],
    ['teacher', 't7', 'Reed, Tamsin'],
    ['teacher', 'tamsin@school.example', 'Reed, Tamsin'],
    ['coTeachers', 't9; bo holm', 'Voe, Ina; Holm, Bo'],
    ['coTeachers', 'Voe, Ina;ina voe', 'Voe, Ina'],
    ['coTeachers', 'Voe, Ina; Nobody', 'Voe, Ina; Nobody'],
    ['period', 'semester 1', 'Semester 1'],
    ['period', '2026–27', ''],
    ['startsOn', '5 oct', '2026-10-05'],
    ['endsOn', '2027-01-15', '2027-01-15'],
    ['endsOn', '3/4', '3/4'],
    ['seats', ' 024', '24'],
    ['seats', 'many', 'many'],
  ])('%s: "%s" stands as "%s"', (field, typed, stands) => {
    expect(table.tidy(field, typed)).toBe(stands);
  });

  it.each<[Partial<SectionCells>, Partial<Record<keyof SectionCells, string>>]>([
    [{}, {}],
    [
      { course: '', number: '', teacher: '' },
      { course: 'cell-needed', number: 'cell-needed', teacher: 'cell-needed' },
    ],
    [
      { course: 'Rowing', teacher: 'Reed' },
      { course: 'course-unknown', teacher: 'teacher-unknown' },
    ],
    [{ course: 'Knots' }, { course: 'name-of-several' }],
    [{ coTeachers: 'Voe, Ina; Nobody' }, { coTeachers: 'teacher-unknown' }],
    [{ coTeachers: 'Voe, Ina; Holm, Bo' }, {}],
    [{ number: '0' }, { number: 'section-number-unreadable' }],
    [{ number: '1.5' }, { number: 'section-number-unreadable' }],
    [{ number: '10000' }, { number: 'section-number-unreadable' }],
    [{ seats: '0' }, { seats: 'seats-unreadable' }],
    [{ seats: '1000' }, { seats: 'seats-unreadable' }],
    [{ seats: '24.5' }, { seats: 'seats-unreadable' }],
    [{ seats: '999' }, {}],
    [{ period: 'Semester 3' }, { period: 'period-unknown' }],
    [{ startsOn: '3/4' }, { startsOn: 'day-unreadable' }],
    [{ startsOn: '2026-08-31' }, { startsOn: 'day-outside-year' }],
    [{ startsOn: '2026-09-01', endsOn: '2027-06-30' }, {}],
    [{ period: 'Semester 1', endsOn: '2027-02-01' }, { endsOn: 'day-outside-period' }],
    [{ startsOn: '2026-10-02', endsOn: '2026-10-01' }, { endsOn: 'day-before-first' }],
    [{ startsOn: '2026-10-02', endsOn: '2026-10-02' }, {}],
  ])('%o: what is wrong is %o', (over, wrong) => {
    const found = faultsOfRow(table, cells(over)).map(({ field, fault }) => [field, fault]);
    expect(Object.fromEntries(found)).toEqual(wrong);
  });

  it('say a section, and a section says them', () => {
    const section = {
      courseId: 12,
      number: 3,
      teacherId: 7,
      coTeacherIds: [9],
      periodId: 2,
      startsOn: dayOrThrow('2026-10-05'),
      endsOn: null,
      seats: 24,
    };
    const said = cells({
      course: 'Knots (KN1)',
      number: '3',
      coTeachers: 'Voe, Ina',
      period: 'Semester 1',
      startsOn: '2026-10-05',
      seats: '24',
    });
    expect(cellsOfSection(directory, section)).toEqual(said);
    expect(sectionOfCells(directory, said)).toEqual(section);
    expect(sectionOfCells(directory, cells()).periodId).toBe(1);
  });

  it('of a file are known again by course, number and period, however the course is named', () => {
    const kept = [
      { id: 31, cells: cells() },
      { id: 32, cells: cells({ period: 'Semester 1' }) },
    ];
    const plan = planRows(
      table,
      [
        ['Course code', 'Section number', 'Taught by', 'Term'],
        ['WEA', '1', 'Tamsin Reed', ''],
        ['weaving', '1', 't7', 'Semester 1'],
        ['WEA', '2', 'T7', ''],
        ['Weaving', '2', 'T7', '2026–27'],
        ['KN9', '1', 'T7', ''],
      ],
      kept,
    );
    expect(plan?.rows.map(({ outcome, id }) => [outcome, id])).toEqual([
      ['same', 31],
      ['same', 32],
      ['new', null],
      ['twice', null],
      ['faulty', null],
    ]);
  });
});

const seats = {
  sections: nameBook([
    { id: 31, names: ['Weaving 1', 'WEA 1'], apart: 'Weaving 1, 2026–27' },
    { id: 32, names: ['Weaving 1', 'WEA 1'], apart: 'Weaving 1, Semester 1' },
  ]),
  students: nameBook([
    { id: 41, names: ['Skerry, Ada', 'Ada Skerry'], apart: 'S1' },
    { id: 42, names: ['Skerry, Ada', 'Ada Skerry'], apart: 'S2' },
    { id: 43, names: ['Rook, Bo', 'Bo Rook'], apart: '' },
  ]),
  daysOf: new Map([
    [31, year],
    [32, days('2026-09-07', '2027-01-31')],
  ]),
  year,
};
const seatTable = enrollmentTable(seats);
const seat = (over: Partial<EnrollmentCells> = {}): EnrollmentCells => ({
  section: 'Weaving 1 (Weaving 1, Semester 1)',
  student: 'Rook, Bo',
  enteredOn: '',
  withdrawnOn: '',
  ...over,
});

describe('the cells of an enrollment', () => {
  it('name a student by number or name, and tell two of one name apart', () => {
    expect(['s2', 'bo rook', 'Ada Skerry'].map((text) => seatTable.tidy('student', text))).toEqual([
      'Skerry, Ada (S2)',
      'Rook, Bo',
      'Ada Skerry',
    ]);
    expect(seatTable.fault('student', 'Ada Skerry')).toBe('name-of-several');
    expect(seatTable.fault('student', 'S9')).toBe('student-unknown');
    expect(seatTable.fault('section', 'Weaving 1')).toBe('name-of-several');
    expect(seatTable.fault('section', 'Weaving 2')).toBe('section-unknown');
  });

  it('without a day of entering begin with the section', () => {
    const said = enrollmentOfCells(seats, seat({ withdrawnOn: '2026-10-01' }));
    expect(said).toEqual({ sectionId: 32, studentId: 43, enteredOn: '2026-09-07', withdrawnOn: '2026-10-01' });
    expect(cellsOfEnrollment(seats, said)).toEqual(seat({ enteredOn: '2026-09-07', withdrawnOn: '2026-10-01' }));
  });

  it.each<[Partial<EnrollmentCells>, Partial<Record<keyof EnrollmentCells, string>>]>([
    [{}, {}],
    [{ enteredOn: '2026-10-01', withdrawnOn: '2026-10-01' }, {}],
    [{ enteredOn: '2026-10-02', withdrawnOn: '2026-10-01' }, { withdrawnOn: 'day-before-first' }],
    [{ withdrawnOn: '2026-09-06' }, { withdrawnOn: 'day-before-first' }],
    [{ withdrawnOn: '1900-01-01' }, { withdrawnOn: 'day-unreadable' }],
    [{ enteredOn: 'soon' }, { enteredOn: 'day-unreadable' }],
  ])('%o: what is wrong is %o', (over, wrong) => {
    const found = faultsOfRow(seatTable, seat(over)).map(({ field, fault }) => [field, fault]);
    expect(Object.fromEntries(found)).toEqual(wrong);
  });

  it('of a file are known again by section and student', () => {
    const full = (section: string) => `Weaving 1 (Weaving 1, ${section})`;
    const plan = planRows(
      seatTable,
      [
        ['Class', 'Student number', 'Left'],
        [full('Semester 1'), 'S1', '2026-11-02'],
        [full('Semester 1'), 'Skerry, Ada (S1)', ''],
        [full('2026–27'), 'S1', ''],
      ],
      [{ id: 51, cells: seat({ student: 'Skerry, Ada (S1)', enteredOn: '2026-09-07' }) }],
    );
    expect(plan?.rows.map(({ outcome, id, changed }) => [outcome, id, changed])).toEqual([
      ['changed', 51, ['withdrawnOn']],
      ['twice', 51, []],
      ['new', null, ['section', 'student']],
    ]);
  });
});
