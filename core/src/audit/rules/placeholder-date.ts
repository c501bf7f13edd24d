import { isPlaceholderDay } from '#core/calendar';
import { needsLastDate } from '../needs-last-date.js';
import { findingOn, type AuditRule } from '../audit-rule.js';

export const placeholderDate: AuditRule = {
  id: 'placeholder-date',
  version: 1,
  family: 'dates',
  scope: 'grade',
  severity: 'blocks',
  summary: 'Placeholder for a date',
  why: 'What programs write for no date is read as a day by the next program, and as a mistake by everybody else.',
  messages: {
    placeholder: '{date} only means “no date”.',
  },

  *check({ grades, codes }) {
    for (const grade of grades) {
      const { lastDate } = grade.mark;
      if (lastDate === null || !isPlaceholderDay(lastDate)) continue;
      // last-date-needed speaks of grades that need one
      if (!needsLastDate(grade, codes)) yield findingOn(grade, 'placeholder', { date: lastDate });
    }
  },

  fix: {
    says: 'Clear the date',
    mend: ({ mark }) => ({ ...mark, lastDate: null }),
  },
};
