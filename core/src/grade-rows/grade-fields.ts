import { dayOrThrow, type Day, type Period } from '#core/calendar';
import { decimalOrThrow, type Decimal } from '#core/numbers';
import type { Pronoun } from '#core/people';
import { noMark } from '#core/posting';
import { comesOutOfBook, type BookItem } from '#core/report-items';
import type { Computed, GradeRow, PostedMark, Seat } from './grade-row.js';

/** A whole number, as a row of the database has it or as a text. */
type Whole = number | string;
type Text = string | null;

/** The columns of the answers. */
type SeatFields = readonly [
  enrollmentId: Whole,
  sectionId: Whole,
  studentId: Whole,
  student: string,
  studentNumber: string,
  enteredOn: string,
  withdrawnOn: Text,
  pronoun: string,
  percent: Text,
  level: Text,
  blockedBy: Text,
];
type PostedFields = readonly [
  itemId: Whole,
  enrollmentId: Whole,
  percent: Text,
  label: Text,
  code: Text,
  lastDate: Text,
  hours: Text,
  comment: Text,
  isInternal: Whole,
  overrideReason: string,
  computedThen: Text,
  isOverride: Whole,
  version: Whole,
  carriedVersion: Whole | null,
  scaleVersionId: Whole | null,
  postedBy: Text,
  postedAt: Text,
];
type ComputedFields = readonly [
  itemId: Whole,
  enrollmentId: Whole,
  percent: Text,
  level: Text,
  blockedBy: Text,
  importId: Whole | null,
  importRow: Whole | null,
];

/** A line of an answer: numbers as they are or as texts. */
export type Fields = readonly (number | string | null)[];

/** What was answered to the three questions: who sits there, what is posted, and what is computed otherwise than by the whole book. */
export interface GradeFields {
  readonly seats: readonly Fields[];
  readonly posted: readonly Fields[];
  readonly computed: readonly Fields[];
}

/** Rows of several items, by item; an item without any is not there. */
export type RowsByItem = ReadonlyMap<number, readonly GradeRow[]>;

/** What is computed of a student, or keeps it from being computed. */
type OfBook = Pick<GradeRow, 'computed' | 'blockedBy'>;

/** Every student with every item, in the order of the seats. */
export function gradeRowsOf(items: readonly BookItem[], period: Pick<Period, 'kind'>, fields: GradeFields): RowsByItem {
  if (fields.seats.length === 0) return new Map();
  const seats = (fields.seats as readonly SeatFields[]).map((seat) => ({
    seat: seatOf(seat),
    book: wholeBookOf(seat),
  }));
  const posted = byItem(fields.posted as readonly PostedFields[], postedOf);
  const computed = byItem(filesFirst(fields.computed as readonly ComputedFields[]), computedOf);
  return new Map(
    items.map((item) => {
      const [ownPosted, ownComputed] = [posted.get(item.id), computed.get(item.id)];
      const isOfWhole = item.categoryId === null && comesOutOfBook(item, period);
      return [
        item.id,
        seats.map(({ seat, book }) =>
          gradeRowOf(
            seat,
            ownPosted?.get(seat.enrollmentId) ?? nothingPosted,
            ownComputed?.get(seat.enrollmentId) ?? (isOfWhole ? book : nothingComputed),
          ),
        ),
      ];
    }),
  );
}

/** Property by property: spread into one, three objects take twenty times as long, and there are millions of rows. */
function gradeRowOf(seat: Seat, posted: PostedMark, { computed, blockedBy }: OfBook): GradeRow {
  return {
    enrollmentId: seat.enrollmentId,
    sectionId: seat.sectionId,
    studentId: seat.studentId,
    student: seat.student,
    studentNumber: seat.studentNumber,
    enteredOn: seat.enteredOn,
    withdrawnOn: seat.withdrawnOn,
    pronoun: seat.pronoun,
    mark: posted.mark,
    computedThen: posted.computedThen,
    isOverride: posted.isOverride,
    version: posted.version,
    carriedVersion: posted.carriedVersion,
    scaleVersionId: posted.scaleVersionId,
    postedBy: posted.postedBy,
    postedAt: posted.postedAt,
    computed,
    blockedBy,
  };
}

const nothingPosted: PostedMark = {
  mark: noMark,
  computedThen: null,
  isOverride: false,
  version: 0,
  carriedVersion: null,
  scaleVersionId: null,
  postedBy: null,
  postedAt: null,
};

const nothingComputed: OfBook = { computed: null, blockedBy: [] };

/** What a file says goes before what a grade book comes to. */
function filesFirst(lines: readonly ComputedFields[]): ComputedFields[] {
  return [...lines.filter(isOfFile), ...lines.filter((line) => !isOfFile(line))];
}

function isOfFile([, , , , , importId]: ComputedFields): boolean {
  return importId !== null;
}

/** By item and enrollment; of two lines the first. */
function byItem<Line extends readonly [Whole, Whole, ...unknown[]], Value>(
  lines: readonly Line[],
  valueIn: (line: Line) => Value,
): ReadonlyMap<number, ReadonlyMap<number, Value>> {
  const found = new Map<number, Map<number, Value>>();
  for (const line of lines) {
    const [itemId, enrollmentId] = [Number(line[0]), Number(line[1])];
    const own = found.get(itemId) ?? new Map<number, Value>();
    if (!own.has(enrollmentId)) own.set(enrollmentId, valueIn(line));
    found.set(itemId, own);
  }
  return found;
}

function seatOf(fields: SeatFields): Seat {
  const [enrollmentId, sectionId, studentId, student, studentNumber, enteredOn, withdrawnOn, pronoun] = fields;
  return {
    enrollmentId: Number(enrollmentId),
    sectionId: Number(sectionId),
    studentId: Number(studentId),
    student,
    studentNumber,
    enteredOn: dayOrThrow(enteredOn),
    withdrawnOn: dayOrNull(withdrawnOn),
    pronoun: pronoun as Pronoun,
  };
}

function wholeBookOf([, , , , , , , , percent, level, blockedBy]: SeatFields): OfBook {
  return { computed: computedIn(percent, level, null), blockedBy: idsIn(blockedBy) };
}

function postedOf([, , ...fields]: PostedFields): PostedMark {
  const [percent, label, code, lastDate, hours, comment, isInternal, overrideReason, computedThen, ...rest] = fields;
  const [isOverride, version, carriedVersion, scaleVersionId, postedBy, postedAt] = rest;
  return {
    mark: {
      percent: decimalOrNull(percent),
      label,
      code,
      lastDate: dayOrNull(lastDate),
      hours: decimalOrNull(hours),
      comment: comment ?? '',
      isInternal: Number(isInternal) === 1,
      overrideReason,
    },
    computedThen: decimalOrNull(computedThen),
    isOverride: Number(isOverride) === 1,
    version: Number(version),
    carriedVersion: wholeOrNull(carriedVersion),
    scaleVersionId: wholeOrNull(scaleVersionId),
    postedBy,
    postedAt: postedAt === null ? null : new Date(postedAt),
  };
}

function computedOf([, , percent, level, blockedBy, importId, importRow]: ComputedFields): OfBook {
  const file = importId === null ? null : { importId: Number(importId), importRow: Number(importRow) };
  return { computed: computedIn(percent, level, file), blockedBy: idsIn(blockedBy) };
}

function computedIn(percent: Text, level: Text, file: Computed['file']): Computed | null {
  return percent === null ? null : { percent: decimalOrThrow(percent), level: decimalOrNull(level), file };
}

function idsIn(text: Text): readonly number[] {
  return text === null ? [] : (JSON.parse(text) as number[]);
}

function decimalOrNull(text: Text): Decimal | null {
  return text === null ? null : decimalOrThrow(text);
}

function dayOrNull(text: Text): Day | null {
  return text === null ? null : dayOrThrow(text);
}

function wholeOrNull(value: Whole | null): number | null {
  return value === null ? null : Number(value);
}
