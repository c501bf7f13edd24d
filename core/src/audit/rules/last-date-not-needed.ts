import { isPlaceholderDay } from '#core/calendar';
import { isBlank } from '#core/posting';
import { needsLastDate } from '../needs-last-date.js';
import { showMark } from '../show-mark.js';
import { findingOn, type AuditRule } from '../audit-rule.js';

export const lastDateNotNeeded: AuditRule = {
  id: 'last-date-not-needed',
  version: 1,
  family: 'dates',
  scope: 'grade',
  severity: 'informs',
  summary: 'Last date where none is needed',
  why: 'A last date beside a passing grade says that somebody stopped coming who did not, or that the grade is not the one meant.',
  messages: {
    unneeded: '{mark} needs no last date of attendance; {date} is posted.',
  },

  *check({ grades, codes }) {
    for (const grade of grades) {
      const { mark, withdrawnOn } = grade;
      if (mark.lastDate === null || withdrawnOn !== null || isPlaceholderDay(mark.lastDate)) continue;
      if (isBlank(mark) || needsLastDate(grade, codes)) continue;
      yield findingOn(grade, 'unneeded', { mark: showMark(mark), date: mark.lastDate });
    }
  },

  fix: {
    says: 'Clear the date',
    mend: ({ mark }) => ({ ...mark, lastDate: null }),
  },
};
