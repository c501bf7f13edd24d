import { compareDecimals, formatAtLeast, sumOfDecimals } from '#core/numbers';
import { findingOnStudent, type AuditRule } from '../audit-rule.js';

export const repeatedPastCredits: AuditRule = {
  id: 'repeated-past-credits',
  version: 1,
  family: 'transcript',
  scope: 'student',
  severity: 'warns',
  summary: 'Repeated past its credits',
  why: 'A course gives its credits as often as it says, and no more.',
  messages: {
    more: 'The student has {before} credits of {course} already; with {credits} more it is above its limit of {most}.',
  },

  *check({ sections }) {
    for (const { course, credits, students } of sections) {
      const most = course.mostCredits;
      if (most === null || credits.units === 0n) continue;
      for (const { enrollmentId, creditsBefore, withdrawnOn } of students) {
        if (withdrawnOn !== null || creditsBefore.units === 0n) continue;
        if (compareDecimals(sumOfDecimals([creditsBefore, credits]), most) <= 0) continue;
        const [before, own, limit] = [creditsBefore, credits, most].map((each) => formatAtLeast(each, 0));
        const data = { before: before!, credits: own!, most: limit!, course: course.title };
        yield findingOnStudent(enrollmentId, 'more', data);
      }
    }
  },
};
