import { findingOnStudent, type AuditRule } from '../audit-rule.js';

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

  *check({ sections }) {
    const seats = new Map<string, { readonly section: string; readonly enrollmentId: number }[]>();
    for (const { course, name, students } of sections) {
      for (const { studentId, enrollmentId, withdrawnOn } of students) {
        if (withdrawnOn !== null) continue;
        const key = `${studentId}/${course.id}`;
        seats.set(key, [...(seats.get(key) ?? []), { section: name, enrollmentId }]);
      }
    }
    for (const own of seats.values()) {
      const ordered = own.toSorted((a, b) => a.enrollmentId - b.enrollmentId);
      // The later seat is the one to look at.
      for (const { enrollmentId } of ordered.slice(1))
        yield findingOnStudent(enrollmentId, 'twice', { section: ordered[0]!.section });
    }
  },
};
