import { needsLastDate } from '../needs-last-date.js';
import { showMark } from '../show-mark.js';
import { findingOn, type AuditRule } from '../audit-rule.js';

export const hoursMissing: AuditRule = {
  id: 'hours-missing',
  version: 1,
  family: 'dates',
  scope: 'grade',
  severity: 'warns',
  summary: 'Hours attended are missing',
  why: 'Where an item asks for hours, aid is settled by them together with the last date.',
  messages: {
    missing: '{mark} needs a last date of attendance, and {item} asks for the hours up to it.',
  },

  *check({ grades, codes }) {
    for (const grade of grades) {
      const { mark, item } = grade;
      if (item.asksHours && mark.hours === null && needsLastDate(grade, codes))
        yield findingOn(grade, 'missing', { mark: showMark(mark), item: item.name });
    }
  },
};
