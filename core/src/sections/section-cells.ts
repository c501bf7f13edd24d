import { isWithin, readTypedDay, type Day } from '#core/calendar';
import { foldCell, type CellFault, type Cells, type CellTable } from '#core/cell-tables';
import { faultOfName, type NameBook } from './name-book.js';

/** The facts of a section that a spreadsheet may hold, in the order of its columns. */
export const sectionFields = [
  'course',
  'number',
  'teacher',
  'period',
  'startsOn',
  'endsOn',
  'seats',
  'coTeachers',
] as const;
export type SectionField = (typeof sectionFields)[number];
export type SectionCells = Cells<SectionField>;

export const sectionHeadings: Readonly<Record<SectionField, string>> = {
  course: 'Course',
  number: 'Section',
  teacher: 'Teacher',
  coTeachers: 'Co-teachers',
  period: 'Runs in',
  startsOn: 'First day',
  endsOn: 'Last day',
  seats: 'Seats',
};

/** A section as a school keeps it: a group of students who take a course together. */
export interface OwnSection {
  readonly courseId: number;
  /** From 1 to 9999; no other section of the course has it in the same period. */
  readonly number: number;
  readonly teacherId: number;
  /** Who teach it too, with all that its teacher may do there; by their numbers, none of them the teacher. */
  readonly coTeacherIds: readonly number[];
  /** It runs through this period, but for its own days. */
  readonly periodId: number;
  /** Where it begins later or ends earlier than its period. */
  readonly startsOn: Day | null;
  readonly endsOn: Day | null;
  /** How many students there is room for, from 1 to 999; null where nobody said. */
  readonly seats: number | null;
}

interface Stretch {
  readonly startsOn: Day;
  readonly endsOn: Day;
}

/** What the cells of sections name: the courses, the staff, and the periods of one year. */
export interface SectionDirectory {
  readonly courses: NameBook;
  readonly staff: NameBook;
  readonly periods: NameBook;
  /** The year itself, which an empty cell means. */
  readonly yearId: number;
  readonly daysOf: ReadonlyMap<number, Stretch>;
}

export function cellsOfSection(directory: SectionDirectory, section: OwnSection): SectionCells {
  const { courses, staff, periods, yearId } = directory;
  return {
    course: courses.textOf(section.courseId),
    number: String(section.number),
    teacher: staff.textOf(section.teacherId),
    coTeachers: section.coTeacherIds.map(staff.textOf).join('; '),
    period: section.periodId === yearId ? '' : periods.textOf(section.periodId),
    startsOn: section.startsOn ?? '',
    endsOn: section.endsOn ?? '',
    seats: section.seats === null ? '' : String(section.seats),
  };
}

/** The section that the cells say. Call it only where no cell has a fault. */
export function sectionOfCells(directory: SectionDirectory, cells: SectionCells): OwnSection {
  const year = directory.daysOf.get(directory.yearId)!;
  return {
    courseId: directory.courses.read(cells.course) as number,
    number: Number(cells.number),
    teacherId: directory.staff.read(cells.teacher) as number,
    coTeacherIds: coTeachersOf(directory, cells),
    periodId: periodOf(directory, cells),
    startsOn: dayIn(year, cells.startsOn),
    endsOn: dayIn(year, cells.endsOn),
    seats: readSeats(cells.seats) ?? null,
  };
}

/** How many students the typed text has room for, from 1 to 999; undefined where it says no such number. */
export function readSeats(text: string): number | undefined {
  return /^0*[1-9]\d{0,2}$/.test(text.trim()) ? Number(text) : undefined;
}

/** Whether more students stay in a section than there is room for. @param seats null where nobody said */
export function isOverfull(staying: number, seats: number | null): boolean {
  return seats !== null && staying > seats;
}

/** The first and the last day of the period that the cells of a section name; of the year where they name none. */
export function daysOfPeriod(directory: SectionDirectory, cells: Pick<SectionCells, 'period'>): Stretch {
  return directory.daysOf.get(periodOf(directory, cells)) ?? directory.daysOf.get(directory.yearId)!;
}

/** The first and the last day on which a section runs, as its cells say: its own, else those of its period. */
export function daysOfSection(directory: SectionDirectory, cells: SectionCells): Stretch {
  const year = directory.daysOf.get(directory.yearId)!;
  const days = daysOfPeriod(directory, cells);
  return {
    startsOn: dayIn(year, cells.startsOn) ?? days.startsOn,
    endsOn: dayIn(year, cells.endsOn) ?? days.endsOn,
  };
}

/** Sections as a spreadsheet has them, known again by course, number and period. */
export function sectionTable(directory: SectionDirectory): CellTable<SectionField> {
  const year = directory.daysOf.get(directory.yearId)!;
  const bookOf = { course: directory.courses, teacher: directory.staff, period: directory.periods };
  const mayBeEmpty: readonly SectionField[] = ['coTeachers', 'period', 'startsOn', 'endsOn', 'seats'];
  const fault = (field: SectionField, text: string): CellFault | undefined => {
    const typed = text.trim();
    if (typed === '') return mayBeEmpty.includes(field) ? undefined : 'cell-needed';
    if (field === 'coTeachers') return namesIn(typed).flatMap((name) => fault('teacher', name) ?? [])[0];
    if (field === 'seats') return readSeats(typed) === undefined ? 'seats-unreadable' : undefined;
    if (field === 'number') return /^[1-9]\d{0,3}$/.test(typed) ? undefined : 'section-number-unreadable';
    if (field === 'startsOn' || field === 'endsOn') {
      const day = dayIn(year, typed);
      return day === null ? 'day-unreadable' : isWithin(day, year) ? undefined : 'day-outside-year';
    }
    return faultOfName(bookOf[field], typed, unknown[field]);
  };
  const keyOf = (cells: SectionCells) =>
    fault('course', cells.course) || fault('number', cells.number) || fault('period', cells.period)
      ? ''
      : `${directory.courses.read(cells.course)} ${Number(cells.number)} ${periodOf(directory, cells)}`;
  return {
    fields: sectionFields,
    headings: sectionHeadings,
    otherHeadings: {
      course: ['Course code', 'Course title', 'Course name', 'Subject', 'Class'],
      number: ['Section number', 'Number', 'Section no', 'Group'],
      teacher: ['Taught by', 'Teacher name', 'Teacher number', 'Teacher e-mail', 'Staff'],
      coTeachers: ['Co-teacher', 'Second teacher', 'Other teachers', 'Assistant teacher'],
      period: ['Period', 'Term', 'Session', 'Semester'],
      startsOn: ['Start', 'Starts', 'Start date', 'From', 'Begins'],
      endsOn: ['End', 'Ends', 'End date', 'To', 'Until'],
      seats: ['Capacity', 'Room for', 'Places', 'Maximum students', 'Size'],
    },
    neededColumns: ['course', 'number'],
    unique: { field: 'number', keyOf },
    fault,
    together(cells) {
      const days = daysOfPeriod(directory, cells);
      const [startsOn, endsOn] = [dayIn(year, cells.startsOn), dayIn(year, cells.endsOn)];
      const from = startsOn ?? days.startsOn;
      if (startsOn !== null && !isWithin(startsOn, days)) return { startsOn: 'day-outside-period' };
      if (endsOn !== null && !isWithin(endsOn, days)) return { endsOn: 'day-outside-period' };
      return endsOn !== null && endsOn < from ? { endsOn: 'day-before-first' } : {};
    },
    tidy(field, text) {
      const typed = text.trim();
      if (typed === '' || fault(field, typed)) return typed;
      if (field === 'number' || field === 'seats') return String(Number(typed));
      if (field === 'startsOn' || field === 'endsOn') return dayIn(year, typed)!;
      if (field === 'coTeachers')
        return [...new Set(namesIn(typed).map((name) => directory.staff.read(name) as number))]
          .map(directory.staff.textOf)
          .join('; ');
      const id = bookOf[field].read(typed) as number;
      return field === 'period' && id === directory.yearId ? '' : bookOf[field].textOf(id);
    },
    identities: (cells) => (keyOf(cells) === '' ? [] : [keyOf(cells)]),
    isOther: () => false,
  };
}

const unknown = { course: 'course-unknown', teacher: 'teacher-unknown', period: 'period-unknown' } as const;

/** Names in one cell; a comma stands within a name. */
function namesIn(text: string): string[] {
  return text
    .split(/[;\n]/)
    .map((name) => name.trim())
    .filter(Boolean);
}

function coTeachersOf({ staff }: SectionDirectory, { teacher, coTeachers }: SectionCells): number[] {
  const ids = namesIn(coTeachers).map((name) => staff.read(name) as number);
  return [...new Set(ids)].filter((id) => id !== staff.read(teacher)).toSorted((a, b) => a - b);
}

function periodOf({ periods, yearId }: SectionDirectory, { period }: Pick<SectionCells, 'period'>): number {
  const named = period.trim() === '' ? yearId : periods.read(period);
  return typeof named === 'number' ? named : yearId;
}

/** A day as it is typed, near a year; null where it says none, or two. */
export function dayIn(near: Stretch, text: string): Day | null {
  const read = readTypedDay(foldCell(text), near.startsOn, 'dayFirst');
  return read.kind === 'day' && read.otherwise === null ? read.day : null;
}
