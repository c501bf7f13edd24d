import type { Day } from '#core/calendar';
import type { CellFault, Cells, CellTable } from '#core/cell-tables';
import { faultOfName, type NameBook } from './name-book.js';
import { dayIn } from './section-cells.js';

/** The facts of an enrollment that a spreadsheet may hold, in the order of its columns. */
export const enrollmentFields = ['section', 'student', 'enteredOn', 'withdrawnOn'] as const;
export type EnrollmentField = (typeof enrollmentFields)[number];
export type EnrollmentCells = Cells<EnrollmentField>;

export const enrollmentHeadings: Readonly<Record<EnrollmentField, string>> = {
  section: 'Section',
  student: 'Student',
  enteredOn: 'Entered',
  withdrawnOn: 'Withdrawn',
};

/** What else spreadsheets call the columns of a section and of a student in it. */
export const seatHeadings = {
  section: ['Class', 'Section name', 'Class name', 'Group'],
  student: ['Student number', 'Student no', 'Pupil', 'Pupil number', 'Student name', 'Number', 'Name', 'Id', 'E-mail'],
} as const;

/** A student's seat in a section. */
export interface OwnEnrollment {
  readonly sectionId: number;
  readonly studentId: number;
  readonly enteredOn: Day;
  /** Null while the student sits in it. */
  readonly withdrawnOn: Day | null;
}

interface Stretch {
  readonly startsOn: Day;
  readonly endsOn: Day;
}

/** What the cells of enrollments name: the sections of a year with the days they run, and the students of a school. */
export interface EnrollmentDirectory {
  readonly sections: NameBook;
  readonly students: NameBook;
  readonly daysOf: ReadonlyMap<number, Stretch>;
  readonly year: Stretch;
}

export function cellsOfEnrollment(directory: EnrollmentDirectory, enrollment: OwnEnrollment): EnrollmentCells {
  return {
    section: directory.sections.textOf(enrollment.sectionId),
    student: directory.students.textOf(enrollment.studentId),
    enteredOn: enrollment.enteredOn,
    withdrawnOn: enrollment.withdrawnOn ?? '',
  };
}

/** The enrollment that the cells say; who has no day of entering enters with the section. Call it only where no cell has a fault. */
export function enrollmentOfCells(directory: EnrollmentDirectory, cells: EnrollmentCells): OwnEnrollment {
  const sectionId = directory.sections.read(cells.section) as number;
  return {
    sectionId,
    studentId: directory.students.read(cells.student) as number,
    enteredOn: dayIn(directory.year, cells.enteredOn) ?? directory.daysOf.get(sectionId)!.startsOn,
    withdrawnOn: dayIn(directory.year, cells.withdrawnOn),
  };
}

/** Enrollments as a spreadsheet has them, known again by section and student. */
export function enrollmentTable(directory: EnrollmentDirectory): CellTable<EnrollmentField> {
  const bookOf = { section: directory.sections, student: directory.students };
  const fault = (field: EnrollmentField, text: string): CellFault | undefined => {
    const typed = text.trim();
    const isDay = field === 'enteredOn' || field === 'withdrawnOn';
    if (typed === '') return isDay ? undefined : 'cell-needed';
    if (isDay) return dayIn(directory.year, typed) === null ? 'day-unreadable' : undefined;
    return faultOfName(bookOf[field], typed, unknown[field]);
  };
  const keyOf = (cells: EnrollmentCells) =>
    fault('section', cells.section) || fault('student', cells.student)
      ? ''
      : `${directory.sections.read(cells.section)} ${directory.students.read(cells.student)}`;
  return {
    fields: enrollmentFields,
    headings: enrollmentHeadings,
    otherHeadings: {
      ...seatHeadings,
      enteredOn: ['From', 'Entry', 'Entry date', 'Start', 'Start date', 'Enrolled', 'Begin date'],
      withdrawnOn: ['To', 'Until', 'Left', 'Exit', 'Exit date', 'Withdrawal', 'End', 'End date'],
    },
    neededColumns: ['section', 'student'],
    unique: { field: 'student', keyOf },
    fault,
    together(cells) {
      const withdrawnOn = dayIn(directory.year, cells.withdrawnOn);
      const sectionId = directory.sections.read(cells.section);
      const begins = typeof sectionId === 'number' ? directory.daysOf.get(sectionId)?.startsOn : undefined;
      const enteredOn = dayIn(directory.year, cells.enteredOn) ?? begins;
      return withdrawnOn !== null && enteredOn !== undefined && withdrawnOn < enteredOn
        ? { withdrawnOn: 'day-before-first' }
        : {};
    },
    tidy(field, text) {
      const typed = text.trim();
      if (typed === '' || fault(field, typed)) return typed;
      if (field === 'enteredOn' || field === 'withdrawnOn') return dayIn(directory.year, typed)!;
      return bookOf[field].textOf(bookOf[field].read(typed) as number);
    },
    identities: (cells) => (keyOf(cells) === '' ? [] : [keyOf(cells)]),
    isOther: () => false,
  };
}

const unknown = { section: 'section-unknown', student: 'student-unknown' } as const;
