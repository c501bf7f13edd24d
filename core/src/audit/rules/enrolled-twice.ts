import { findingOnStudent, type AuditRule } from '../audit-rule.js';
import { judgedTogether } from '../judged-together.js';

export const enrolledTwice: AuditRule = {
  id: 'enrolled-twice',
  version: 1,
  family: 'eligibility',
  scope: 'student',
  severity: 'warns',
  summary: 'Enrolled twice in one course',
  why: 'One course would stand on the transcript twice, with its credits counted twice.',
  messages: {
    twice: 'The student also sits in {section} of the same course.',
  },

  ...judgedTogether<Seat>({
    *gather({ sections }) {
      for (const { course, name, students } of sections)
        for (const { studentId, enrollmentId, withdrawnOn } of students)
          if (withdrawnOn === null) yield { studentId, courseId: course.id, section: name, enrollmentId };
    },
    *conclude(seats) {
      for (const own of seatsBeside(seats)) {
        const ordered = own.toSorted((a, b) => a.enrollmentId - b.enrollmentId);
        // The later seat is the one to look at.
        for (const { enrollmentId } of ordered.slice(1))
          yield findingOnStudent(enrollmentId, 'twice', { section: ordered[0]!.section });
      }
    },
  }),
};

/** Of each student who sits more than once in a course, all the seats there; nearly all sit in theirs once. */
function seatsBeside(seats: readonly Seat[]): Iterable<Seat[]> {
  const firstOf = new Map<number, Map<number, Seat>>();
  const beside = new Map<Seat, Seat[]>();
  for (const seat of seats) {
    let ofCourse = firstOf.get(seat.courseId);
    if (!ofCourse) firstOf.set(seat.courseId, (ofCourse = new Map<number, Seat>()));
    const first = ofCourse.get(seat.studentId);
    if (first) beside.set(first, [...(beside.get(first) ?? [first]), seat]);
    else ofCourse.set(seat.studentId, seat);
  }
  return beside.values();
}

/** Where a student sits and has not left. */
interface Seat {
  readonly studentId: number;
  readonly courseId: number;
  readonly section: string;
  readonly enrollmentId: number;
}
