import { isPlaceholderDay, isWithin } from '#core/calendar';
import { needsLastDate } from '../needs-last-date.js';
import { findingOn, type AuditRule } from '../audit-rule.js';

export const lastDateNeeded: AuditRule = {
  id: 'last-date-needed',
  version: 1,
  family: 'dates',
  scope: 'grade',
  severity: 'blocks',
  summary: 'Last date needed and missing',
  why: 'Student aid is settled from the last date of attendance of whoever failed, left or did not finish.',
  messages: {
    missing: '{mark} needs a last date of attendance.',
    placeholder: '{mark} needs a last date of attendance; {date} is a placeholder that programs write for no date.',
    outside: '{mark} needs a last date of attendance within the period; {date} lies outside {from} to {to}.',
  },

  *check({ grades, codes, periodStartsOn, periodEndsOn }) {
    const period = { startsOn: periodStartsOn, endsOn: periodEndsOn };
    for (const grade of grades) {
      const { label, code, lastDate } = grade.mark;
      if (!needsLastDate(grade, codes)) continue;
      const mark = code ?? label ?? '';
      if (lastDate === null) yield findingOn(grade, 'missing', { mark });
      else if (isPlaceholderDay(lastDate)) yield findingOn(grade, 'placeholder', { mark, date: lastDate });
      else if (!isWithin(lastDate, period)) {
        yield findingOn(grade, 'outside', { mark, date: lastDate, from: periodStartsOn, to: periodEndsOn });
      }
    }
  },

  fix: {
    says: 'Set the last day present',
    mend: ({ mark, attendance }, { codes, periodStartsOn }) => {
      // Who never attended has the first day of the period.
      if (mark.code !== null && codes.get(mark.code)?.needsFirstDay) return { ...mark, lastDate: periodStartsOn };
      return attendance?.lastPresent ? { ...mark, lastDate: attendance.lastPresent } : null;
    },
  },
};
