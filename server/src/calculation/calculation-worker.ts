import {
  calculateExact,
  calculateGrades,
  noSlot,
  preparePolicy,
  slotOf,
  type BookColumns,
  type CalculationPolicy,
  type CalculatedColumns,
  type ExactGrade,
  type GradePrecision,
  type PreparedPolicy,
} from '#core/calculation';
import { readIntegers, roundings, roundTo } from '#core/numbers';
import { keptGrades, type KeptGrade } from './books/kept-grades.js';

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

/** Runs in a worker thread: what every student of the books comes to, for keeping. */
export function calculateBooks(task: BookTexts & BookPolicies): KeptGrade[] {
  const books = readBooks(task);
  const { columns, prepared, policyOf } = booksUnder(books, task);
  return keptGrades(columns, prepared, policyOf, books);
}

/** What a report item takes from the books: the whole or one category, as a percentage or a level, rounded as it says. */
export interface ComparedValue {
  readonly categoryId: number | null;
  readonly isLevel: boolean;
  readonly precision: GradePrecision;
}

export interface ComparedBooks {
  readonly enrollmentIds: Int32Array;
  readonly sectionIds: Int32Array;
  /** One for each value asked for: in units of its last digit, -1 for none. */
  readonly values: readonly {
    readonly before: Pick<CalculatedColumns, 'percent'>;
    readonly after: Pick<CalculatedColumns, 'percent'>;
  }[];
}

/** Runs in a worker thread: the rounded values under the policies as they are and as they would be. */
export function compareBooks(
  task: BookTexts & {
    readonly before: BookPolicies;
    readonly after: BookPolicies;
    readonly values: readonly ComparedValue[];
  },
): ComparedBooks {
  const books = readBooks(task);
  const before = task.values.map(valuesUnder(books, task.before));
  const after = task.values.map(valuesUnder(books, task.after));
  const { enrollmentIds, sectionIds } = books;
  return { enrollmentIds, sectionIds, values: before.map((each, at) => ({ before: each, after: after[at]! })) };
}

/** The whole as a percent comes from the quick calculation, all else from the exact one, worked out once. */
function valuesUnder(books: ReadBooks, policies: BookPolicies) {
  const { columns, prepared, policyOf } = booksUnder(books, policies);
  let exact: ExactGrade[] | undefined;
  return ({ categoryId, isLevel, precision }: ComparedValue): Pick<CalculatedColumns, 'percent'> => {
    if (categoryId === null && !isLevel) return calculateGrades(columns, prepared, policyOf, precision);
    exact ??= calculateExact(columns, prepared, policyOf);
    const percent = Float64Array.from(exact, (grade, student) => {
      const slot = prepared[policyOf[student]!]!.policy.categories.findIndex((each) => each.categoryId === categoryId);
      const found = categoryId === null ? grade : grade.categories[slot];
      const value = isLevel ? found?.level : found?.percent;
      return value ? Number(roundTo(value, precision.digits, roundings[precision.rounding]).units) : -1;
    });
    return { percent };
  };
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
