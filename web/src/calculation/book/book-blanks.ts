import type { BookReply } from '#contract/calculation';
import type { BookRow } from './book-view';
import { isGiven } from './score-drafts';

/** Which score of a book a key names, for people: "Carrow, Hale, Splice". */
export function placeOf({ students, assignments }: BookReply, key: string): string {
  const [assignmentId, enrollmentId] = key.split('/').map(Number);
  const student = students.find((each) => each.enrollmentId === enrollmentId)?.student;
  return `${student}, ${assignments.find(({ id }) => id === assignmentId)?.name}`;
}

/** Whether a student's grade is blocked, or posted as something else than computed. */
export function hasProblem({ workings, differs }: BookRow): boolean {
  return workings.blockedBy.length > 0 || differs;
}

/** Whether a student who is still there has neither points nor a flag for an assignment. */
export function isBlankIn(row: BookRow, assignmentId: number): boolean {
  const score = row.scores.get(assignmentId);
  return score !== undefined && row.student.withdrawnOn === null && score.points === null && score.flag === null;
}

/** The assignments that somebody lacks a score in, with how many. */
export function blanksOf(book: BookReply, rows: readonly BookRow[]) {
  return book.assignments
    .map((assignment) => ({
      assignment,
      count: rows.filter((row) => isGiven(assignment, row.student.enrollmentId) && isBlankIn(row, assignment.id))
        .length,
    }))
    .filter(({ count }) => count > 0);
}
