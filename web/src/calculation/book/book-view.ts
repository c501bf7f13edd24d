import {
  explainGrade,
  type BookScore,
  type CalculationPolicy,
  type CategoryWorkings,
  type GradeWorkings,
  type ScoreWorkings,
} from '#core/calculation';
import { decimalOrThrow, fromDecimal, roundings, roundTo, type Percent } from '#core/numbers';
import { findBand, type Band } from '#core/scales';
import {
  bookScore,
  scoreKey,
  type AssignmentReply,
  type BookReply,
  type BookStudentReply,
  type ScoreReply,
} from '#contract/calculation';
import { bandOfBody } from '#contract/scales';

/** What a score is in a grade book: points, a flag, or both. */
export type ScoreFacts = Pick<ScoreReply, 'points' | 'flag'>;

/** A student of a grade book with what their scores come to. */
export interface BookRow {
  readonly student: BookStudentReply;
  /** By assignment; one that was not given to the student is not there. */
  readonly scores: ReadonlyMap<number, ScoreWorkings & ScoreFacts>;
  readonly workings: GradeWorkings;
  /** By category. */
  readonly categories: ReadonlyMap<number, CategoryWorkings>;
  /** Rounded as the item says; null without evidence and while something blocks it. */
  readonly rounded: Percent | null;
  readonly label: string | null;
  /** What is posted is no longer what the book comes to. */
  readonly differs: boolean;
}

/** The bands by which percents of the book get labels; empty where no scale is in force. */
export function bandsOfBook({ item }: Pick<BookReply, 'item'>): readonly Band[] {
  return item?.bands?.map(bandOfBody) ?? [];
}

/** How the book's percents are rounded; two digits half up where no report item takes them. */
export function precisionOfBook({ item }: Pick<BookReply, 'item'>) {
  return { digits: item?.digits ?? 2, rounding: roundings[item?.rounding ?? 'halfUp'] };
}

/** The scores as the calculation reads them: of the assignments that were given to the student. */
export function givenScores(
  assignments: readonly AssignmentReply[],
  enrollmentId: number,
  scoreOf: (key: string) => ScoreFacts | undefined,
): BookScore[] {
  return assignments
    .filter(({ givenTo }) => givenTo === null || givenTo.includes(enrollmentId))
    .map((assignment) => bookScore(assignment, scoreOf(scoreKey({ assignmentId: assignment.id, enrollmentId }))));
}

/**
 * The rows of a book under a policy, with drafted scores laid over the saved ones. Asked again with other drafts, it works out
 * only the students for whom something else is typed; the rows of the others are the very same.
 */
export function createBookRows(book: BookReply, policy: CalculationPolicy) {
  const saved = new Map(book.scores.map((score) => [scoreKey(score), score]));
  const [bands, precision] = [bandsOfBook(book), precisionOfBook(book)];
  const known = new Map<number, { readonly typed: string; readonly row: BookRow }>();
  const rowOf = (student: BookStudentReply, drafts: Readonly<Record<string, ScoreFacts>>): BookRow => {
    const scoreOf = (key: string) => drafts[key] ?? saved.get(key);
    const workings = explainGrade(givenScores(book.assignments, student.enrollmentId, scoreOf), policy);
    const rounded = workings.percent && roundTo(workings.percent, precision.digits, precision.rounding);
    return {
      student,
      scores: new Map(
        workings.scores.map((score) => {
          const facts = scoreOf(scoreKey({ assignmentId: score.assignmentId, enrollmentId: student.enrollmentId }));
          return [score.assignmentId, { ...score, points: facts?.points ?? null, flag: facts?.flag ?? null }];
        }),
      ),
      workings,
      categories: new Map(workings.categories.map((category) => [category.categoryId, category])),
      rounded,
      label: rounded ? (findBand(bands, rounded, precision).band?.label ?? null) : null,
      differs: differsFromPosted(student, rounded, precision),
    };
  };
  return (drafts: Readonly<Record<string, ScoreFacts>>): BookRow[] => {
    const typedFor = new Map<number, string>();
    for (const [key, { points, flag }] of Object.entries(drafts)) {
      const enrollmentId = Number(key.split('/')[1]);
      typedFor.set(enrollmentId, `${typedFor.get(enrollmentId) ?? ''}${key}=${points} ${flag};`);
    }
    return book.students.map((student) => {
      const typed = typedFor.get(student.enrollmentId) ?? '';
      const before = known.get(student.enrollmentId);
      if (before?.typed === typed) return before.row;
      const row = rowOf(student, drafts);
      known.set(student.enrollmentId, { typed, row });
      return row;
    });
  };
}

/** The rows of a book under a policy, once. */
export function bookRows(
  book: BookReply,
  policy: CalculationPolicy,
  drafts: Readonly<Record<string, ScoreFacts>> = {},
): BookRow[] {
  return createBookRows(book, policy)(drafts);
}

function differsFromPosted(
  { posted }: BookStudentReply,
  rounded: Percent | null,
  { digits, rounding }: ReturnType<typeof precisionOfBook>,
): boolean {
  if (!posted || posted.percent === null || rounded === null) return false;
  return roundTo(fromDecimal(decimalOrThrow(posted.percent)), digits, rounding).units !== rounded.units;
}
