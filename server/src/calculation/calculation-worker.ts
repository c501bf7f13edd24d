import {
  calculateExact,
  calculateGrades,
  noSlot,
  preparePolicy,
  slotOf,
  type BookColumns,
  type CalculationPolicy,
  type CalculatedColumns,
  type GradePrecision,
  type PreparedPolicy,
} from '#core/calculation';
import { formatDecimal, readIntegers, roundSticky, roundTo } from '#core/numbers';

/** Grade books as PostgreSQL's text format has them; nothing but whole numbers. */
export interface BookTexts {
  /** Enrollment and section, by enrollment. */
  readonly enrollments: Uint8Array;
  /** Assignment, section, category, hundredths of points possible, bits. */
  readonly assignments: Uint8Array;
  /** Enrollment, assignment, hundredths of points or -1, number of the flag; by enrollment and due date. */
  readonly scores: Uint8Array;
}

export interface BookPolicies {
  readonly policies: readonly CalculationPolicy[];
  /** For each section the position of its policy. */
  readonly policyOf: readonly (readonly [sectionId: number, policy: number])[];
}

export interface StoredGrade {
  readonly enrollmentId: number;
  readonly sectionId: number;
  readonly percent: string | null;
  readonly blockedBy: readonly number[];
}

/** Digits of a percent that is kept. */
const keptDigits = 10;

/** Runs in a worker thread: what every student of the books comes to, for keeping. */
export function calculateBooks(task: BookTexts & BookPolicies): StoredGrade[] {
  const books = readBooks(task);
  const { columns, prepared, policyOf } = booksUnder(books, task);
  return calculateExact(columns, prepared, policyOf).map(({ percent, blockedBy }, student) => ({
    enrollmentId: books.enrollmentIds[student]!,
    sectionId: books.sectionIds[student]!,
    percent: percent && formatDecimal(roundTo(percent, keptDigits, roundSticky)),
    blockedBy: blockedBy.map((at) => books.assignmentIds[at]!),
  }));
}

export interface ComparedBooks {
  readonly enrollmentIds: Int32Array;
  readonly sectionIds: Int32Array;
  readonly before: CalculatedColumns;
  readonly after: CalculatedColumns;
}

/** Runs in a worker thread: the rounded percents under the policies as they are and as they would be. */
export function compareBooks(
  task: BookTexts & { readonly before: BookPolicies; readonly after: BookPolicies; readonly precision: GradePrecision },
): ComparedBooks {
  const books = readBooks(task);
  const under = (policies: BookPolicies) => {
    const { columns, prepared, policyOf } = booksUnder(books, policies);
    return calculateGrades(columns, prepared, policyOf, task.precision);
  };
  const { enrollmentIds, sectionIds } = books;
  return { enrollmentIds, sectionIds, before: under(task.before), after: under(task.after) };
}

interface ReadBooks {
  readonly enrollmentIds: Int32Array;
  readonly sectionIds: Int32Array;
  readonly assignmentIds: Int32Array;
  readonly assignmentSections: Int32Array;
  readonly categoryIds: Int32Array;
  readonly columns: Omit<BookColumns, 'slot'>;
}

function readBooks(texts: BookTexts): ReadBooks {
  const [enrollmentIds, sectionIds] = readIntegers(texts.enrollments, 2) as [Int32Array, Int32Array];
  const [assignmentIds, assignmentSections, categoryIds, possible, bits] = readIntegers(texts.assignments, 5) as [
    Int32Array,
    Int32Array,
    Int32Array,
    Int32Array,
    Int32Array,
  ];
  const [scoreEnrollments, scoreAssignments, points, flags] = readIntegers(texts.scores, 4) as [
    Int32Array,
    Int32Array,
    Int32Array,
    Int32Array,
  ];
  const places = new Map(Array.from(assignmentIds, (id, at) => [id, at]));
  return {
    enrollmentIds,
    sectionIds,
    assignmentIds,
    assignmentSections,
    categoryIds,
    columns: {
      starts: startsOf(enrollmentIds, scoreEnrollments),
      assignment: scoreAssignments.map((id) => places.get(id)!),
      points,
      flag: Uint8Array.from(flags),
      possible,
      bits: Uint8Array.from(bits),
    },
  };
}

/** Where the scores of each enrollment begin; both lists are in the order of the enrollments. */
function startsOf(enrollmentIds: Int32Array, scoreEnrollments: Int32Array): Int32Array {
  const starts = new Int32Array(enrollmentIds.length + 1);
  let at = 0;
  for (const [student, id] of enrollmentIds.entries()) {
    starts[student] = at;
    while (scoreEnrollments[at] === id) at++;
  }
  starts[enrollmentIds.length] = at;
  return starts;
}

/** The columns with the categories placed as the policies have them. */
function booksUnder(
  { columns, sectionIds, assignmentSections, categoryIds }: ReadBooks,
  { policies, policyOf }: BookPolicies,
): { columns: BookColumns; prepared: PreparedPolicy[]; policyOf: Int32Array } {
  const bySection = new Map(policyOf);
  const slot = Uint8Array.from(categoryIds, (categoryId, at) => {
    const policy = policies[bySection.get(assignmentSections[at]!)!];
    return policy ? slotOf(policy, categoryId) : noSlot;
  });
  return {
    columns: { ...columns, slot },
    prepared: policies.map(preparePolicy),
    policyOf: sectionIds.map((sectionId) => bySection.get(sectionId)!),
  };
}
