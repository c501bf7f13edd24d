import { isPlaceholderDay } from '#core/calendar';
import { findingOn, type AuditRule } from '../audit-rule.js';

export const lastDateOutsideEnrollment: AuditRule = {
  id: 'last-date-outside-enrollment',
  version: 1,
  family: 'dates',
  scope: 'grade',
  severity: 'blocks',
  summary: 'Last date outside of the enrollment',
  why: 'Nobody attends a section before coming to it or after leaving it; aid is paid back from this date.',
  messages: {
    before: 'The last date is {date}, but the student came to the section on {enteredOn}.',
    after: 'The last date is {date}, but the student left the section on {withdrawnOn}.',
  },

  *check({ grades, codes }) {
    for (const grade of grades) {
      const { enteredOn, withdrawnOn } = grade;
      const { lastDate, code } = grade.mark;
      if (lastDate === null || isPlaceholderDay(lastDate)) continue;
      // never-attended-not-on-first-day speaks of these
      if (code !== null && codes.get(code)?.needsFirstDay) continue;
      if (enteredOn !== null && lastDate < enteredOn) yield findingOn(grade, 'before', { date: lastDate, enteredOn });
      else if (withdrawnOn !== null && lastDate > withdrawnOn)
        yield findingOn(grade, 'after', { date: lastDate, withdrawnOn });
    }
  },
};
