import { isPlaceholderDay } from '#core/calendar';
import { findingOn, type AuditRule } from '../audit-rule.js';

export const lastDateAfterLastPresent: AuditRule = {
  id: 'last-date-after-last-present',
  version: 1,
  family: 'dates',
  scope: 'grade',
  severity: 'warns',
  summary: 'Last date after the last day present',
  why: 'The registers are what an auditor compares the last date of attendance with.',
  messages: {
    absent: 'The last date is {date}, but the registers have the student present last on {lastPresent}.',
    never: 'The last date is {date}, but the registers have the student present on no day.',
  },

  *check({ grades, codes }) {
    for (const grade of grades) {
      const { attendance, mark } = grade;
      if (!attendance || attendance.daysTaken === 0 || mark.lastDate === null || isPlaceholderDay(mark.lastDate))
        continue;
      if (mark.code !== null && codes.get(mark.code)?.needsFirstDay) continue;
      const { lastPresent, lastMissed } = attendance;
      const data = { date: mark.lastDate, lastPresent: lastPresent ?? '' };
      if (lastPresent === null) yield findingOn(grade, 'never', data);
      // Only a register between the two says that the student was gone by then.
      else if (lastMissed !== null && lastPresent < lastMissed && lastMissed <= mark.lastDate)
        yield findingOn(grade, 'absent', data);
    }
  },

  fix: {
    says: 'Set the last day present',
    mend: ({ mark, attendance }) => (attendance?.lastPresent ? { ...mark, lastDate: attendance.lastPresent } : null),
  },
};
