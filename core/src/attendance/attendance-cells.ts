import type { Day } from '#core/calendar';
import { foldCell, type CellFault, type Cells, type CellTable } from '#core/cell-tables';
import { dayIn, faultOfName, seatHeadings, type NameBook } from '#core/sections';
import { attendanceLetters, readAttendance } from './absence.js';

/** One student's day in one section, as a spreadsheet has it. */
export const attendanceFields = ['section', 'student', 'day', 'status'] as const;
export type AttendanceField = (typeof attendanceFields)[number];
export type AttendanceCells = Cells<AttendanceField>;

export const attendanceHeadings: Readonly<Record<AttendanceField, string>> = {
  section: 'Section',
  student: 'Student',
  day: 'Day',
  status: 'Attendance',
};

/** What the cells name, and the days that may be told of. */
export interface AttendanceDirectory {
  readonly sections: NameBook;
  readonly students: NameBook;
  readonly year: { readonly startsOn: Day; readonly endsOn: Day };
  readonly today: Day;
  /** From when to when a student sits in a section, by `seatKey`; both days included. */
  readonly seats: ReadonlyMap<string, { readonly startsOn: Day; readonly endsOn: Day }>;
  readonly isSchoolDay: (day: Day) => boolean;
}

export const seatKey = (sectionId: number, studentId: number) => `${sectionId}/${studentId}`;

/** What a row without a fault says. */
export interface AttendanceEntry {
  readonly sectionId: number;
  readonly studentId: number;
  readonly day: Day;
  readonly mark: ReturnType<typeof readAttendance> & string;
}

export function entryOfCells(directory: AttendanceDirectory, cells: AttendanceCells): AttendanceEntry {
  return {
    sectionId: directory.sections.read(cells.section) as number,
    studentId: directory.students.read(cells.student) as number,
    day: dayIn(directory.year, cells.day)!,
    mark: readAttendance(cells.status)!,
  };
}

/** Attendance as a spreadsheet has it, known again by section, student and day. */
export function attendanceTable(directory: AttendanceDirectory): CellTable<AttendanceField> {
  const bookOf = { section: directory.sections, student: directory.students };
  const fault = (field: AttendanceField, text: string): CellFault | undefined => {
    const typed = text.trim();
    if (typed === '') return 'cell-needed';
    if (field === 'status') return readAttendance(typed) === undefined ? 'status-unknown' : undefined;
    if (field !== 'day') {
      return faultOfName(bookOf[field], typed, unknown[field]);
    }
    const day = dayIn(directory.year, typed);
    if (day === null) return 'day-unreadable';
    if (day > directory.today) return 'day-ahead';
    return directory.isSchoolDay(day) ? undefined : 'day-without-classes';
  };
  const isRead = (cells: AttendanceCells) => attendanceFields.every((field) => !fault(field, cells[field]));
  const keyOf = (cells: AttendanceCells) => {
    if (!isRead(cells)) return '';
    const { sectionId, studentId, day } = entryOfCells(directory, cells);
    return `${seatKey(sectionId, studentId)} ${day}`;
  };
  return {
    fields: attendanceFields,
    headings: attendanceHeadings,
    otherHeadings: {
      ...seatHeadings,
      day: ['Date', 'Attendance date', 'On'],
      status: ['Status', 'Mark', 'Code', 'Absence', 'Presence'],
    },
    neededColumns: ['section', 'student', 'day', 'status'],
    unique: { field: 'day', keyOf },
    fault,
    together(cells) {
      const { sectionId, studentId, day } = entryOfCells(directory, cells);
      const seat = directory.seats.get(seatKey(sectionId, studentId));
      if (!seat) return { student: 'student-not-in-section' };
      return day < seat.startsOn || day > seat.endsOn ? { day: 'day-outside-seat' } : {};
    },
    tidy(field, text) {
      const typed = text.trim();
      if (fault(field, typed)) return typed;
      if (field === 'status') return attendanceLetters[readAttendance(typed)!];
      if (field === 'day') return dayIn(directory.year, typed)!;
      return bookOf[field].textOf(bookOf[field].read(typed) as number);
    },
    identities: (cells) => (keyOf(cells) === '' ? [] : [foldCell(keyOf(cells))]),
    isOther: () => false,
  };
}

const unknown = { section: 'section-unknown', student: 'student-unknown' } as const;
