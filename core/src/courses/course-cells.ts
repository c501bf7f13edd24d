import { foldCell, type CellFault, type Cells, type CellTable } from '#core/cell-tables';
import { formatDecimal, parseDecimal, type Decimal } from '#core/numbers';
import { courseLengths, courseLevels } from './course.js';
import { inheritableFacts, type OwnCourse } from './inherited-facts.js';

/** The facts of a course that a spreadsheet may hold, in the order of its columns. */
export const courseFields = [
  'code',
  'title',
  'department',
  'kind',
  'level',
  'length',
  'credits',
  'mostCredits',
  'onTranscript',
  'countsInGpa',
  'allowsExempt',
] as const;
export type CourseField = (typeof courseFields)[number];

/** What a spreadsheet calls each column; what is written here is read back. */
export const courseHeadings: Readonly<Record<CourseField, string>> = {
  code: 'Code',
  title: 'Title',
  department: 'Department',
  kind: 'Kind',
  level: 'Level',
  length: 'Length',
  credits: 'Credits',
  mostCredits: 'Maximum credits',
  onTranscript: 'On transcript',
  countsInGpa: 'In GPA',
  allowsExempt: 'Exempt allowed',
};

/** The facts that may be left empty, as they are inherited. */
const mayBeEmpty: ReadonlySet<CourseField> = new Set<CourseField>([...inheritableFacts, 'kind']);
const yesOrNoFields: ReadonlySet<CourseField> = new Set(['onTranscript', 'countsInGpa', 'allowsExempt']);

/** A course's facts as text, as in the cells of a spreadsheet. An empty text means "inherited". */
export type CourseCells = Cells<CourseField>;

export function cellsOfCourse(course: OwnCourse): CourseCells {
  const decimal = (value: Decimal | null) => (value === null ? '' : formatDecimal(trimmed(value)));
  const yesOrNo = (value: boolean | null) => (value === null ? '' : value ? 'yes' : 'no');
  return {
    code: course.code,
    title: course.title,
    department: course.department,
    kind: course.kind,
    level: course.level,
    length: course.length,
    credits: decimal(course.credits),
    mostCredits: decimal(course.mostCredits),
    onTranscript: yesOrNo(course.onTranscript),
    countsInGpa: yesOrNo(course.countsInGpa),
    allowsExempt: yesOrNo(course.allowsExempt),
  };
}

const longest: Readonly<Partial<Record<CourseField, number>>> = { code: 20, title: 120, department: 60, kind: 40 };

/** What is wrong with the text of a cell, or undefined when it can be taken. */
export function cellFault(field: CourseField, text: string): CellFault | undefined {
  const typed = text.trim();
  if (typed === '') return mayBeEmpty.has(field) ? undefined : 'cell-needed';
  if (typed.length > (longest[field] ?? Infinity)) return 'cell-too-long';
  if (field === 'level') return oneOf(courseLevels, typed) ? undefined : 'level-unknown';
  if (field === 'length') return oneOf(courseLengths, typed) ? undefined : 'length-unknown';
  if (field === 'credits' || field === 'mostCredits') return creditsOf(typed) ? undefined : 'credits-unreadable';
  if (yesOrNoFields.has(field)) return yesNo(typed) === undefined ? 'yes-or-no' : undefined;
  return undefined;
}

/** The facts that the cells say. Call it only where no cell has a fault. */
export function courseOfCells(cells: CourseCells): Omit<OwnCourse, 'id' | 'schoolId'> {
  return {
    code: cells.code.trim(),
    title: cells.title.trim(),
    department: cells.department.trim(),
    kind: cells.kind.trim(),
    level: oneOf(courseLevels, cells.level)!,
    length: oneOf(courseLengths, cells.length)!,
    credits: creditsOf(cells.credits) ?? null,
    mostCredits: creditsOf(cells.mostCredits) ?? null,
    onTranscript: yesNo(cells.onTranscript) ?? null,
    countsInGpa: yesNo(cells.countsInGpa) ?? null,
    allowsExempt: yesNo(cells.allowsExempt) ?? null,
  };
}

/** The text as it will stand once taken: "Honours" becomes "honours", "0,50" becomes "0.5", "Y" becomes "yes". */
export function tidyCell(field: CourseField, text: string): string {
  const typed = text.trim();
  if (typed === '' || cellFault(field, typed)) return typed;
  if (field === 'level') return oneOf(courseLevels, typed)!;
  if (field === 'length') return oneOf(courseLengths, typed)!;
  if (field === 'credits' || field === 'mostCredits') return formatDecimal(trimmed(creditsOf(typed)!));
  if (yesOrNoFields.has(field)) return yesNo(typed) ? 'yes' : 'no';
  return typed;
}

function oneOf<Value extends string>(values: readonly Value[], text: string): Value | undefined {
  return values.find((value) => value === text.trim().toLowerCase());
}

/** Credits from 0 to 99 with at most four decimals, a point or a comma between. */
function creditsOf(text: string): Decimal | undefined {
  const value = parseDecimal(text.trim().replace(/^(\d+),(\d+)$/, '$1.$2'));
  return value && value.units >= 0n && value.digits <= 4 && value.units < 100n * 10n ** BigInt(value.digits)
    ? value
    : undefined;
}

const yesWords = new Set(['yes', 'y', 'true', '1', 'x']);
const noWords = new Set(['no', 'n', 'false', '0', '-']);

function yesNo(text: string): boolean | undefined {
  const typed = text.trim().toLowerCase();
  return yesWords.has(typed) ? true : noWords.has(typed) ? false : undefined;
}

function trimmed({ units, digits }: Decimal): Decimal {
  return digits > 0 && units % 10n === 0n ? trimmed({ units: units / 10n, digits: digits - 1 }) : { units, digits };
}

/** Courses as a spreadsheet has them, known again by their codes. */
export const courseTable: CellTable<CourseField> = {
  fields: courseFields,
  headings: courseHeadings,
  otherHeadings: {
    code: ['Course code', 'Course number', 'Course'],
    title: ['Course title', 'Name', 'Course name'],
    department: ['Subject', 'Dept'],
    kind: ['Course kind', 'Type'],
    credits: ['Credit', 'Credit value'],
    mostCredits: ['Most credits', 'Most credits when repeated'],
    onTranscript: ['Transcript'],
    countsInGpa: ['GPA', 'Counts in GPA'],
    allowsExempt: ['Allows exempt', 'May be exempt'],
  },
  neededColumns: ['code'],
  unique: { field: 'code', keyOf: ({ code }) => code },
  fault: cellFault,
  together: () => ({}),
  tidy: tidyCell,
  identities: ({ code }) => (code.trim() === '' ? [] : [foldCell(code)]),
  isOther: () => false,
};
