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
      const byStudent = new Map<string, Seat[]>();
      for (const seat of seats) {
        const key = `${seat.studentId}/${seat.courseId}`;
        const own = byStudent.get(key);
        if (own) own.push(seat);
        else byStudent.set(key, [seat]);
      }
      for (const own of byStudent.values()) {
        const ordered = own.toSorted((a, b) => a.enrollmentId - b.enrollmentId);
        // The later seat is the one to look at.
        for (const { enrollmentId } of ordered.slice(1))
          yield findingOnStudent(enrollmentId, 'twice', { section: ordered[0]!.section });
      }
    },
  }),
};

/** Where a student sits and has not left. */
interface Seat {
  readonly studentId: number;
  readonly courseId: number;
  readonly section: string;
  readonly enrollmentId: number;
}
