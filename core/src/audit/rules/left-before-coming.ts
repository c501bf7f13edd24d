import { findingOnStudent, type AuditRule } from '../audit-rule.js';

export const leftBeforeComing: AuditRule = {
  id: 'left-before-coming',
  version: 1,
  family: 'dates',
  scope: 'student',
  severity: 'warns',
  summary: 'Left before coming',
  why: 'Days of attendance are counted from one to the other, and this way round there are none.',
  messages: {
    order: 'The student came on {entered} and left on {withdrawn}.',
  },

  *check({ sections }) {
    for (const { students } of sections) {
      for (const { enrollmentId, enteredOn, withdrawnOn } of students) {
        if (enteredOn !== null && withdrawnOn !== null && withdrawnOn < enteredOn)
          yield findingOnStudent(enrollmentId, 'order', { entered: enteredOn, withdrawn: withdrawnOn });
      }
    }
  },
};
