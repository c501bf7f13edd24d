import { isWithin } from '#core/calendar';
import { formatDecimal } from '#core/numbers';
import { findingOn, type AuditRule } from '../audit-rule.js';

export const neverAttendedNotOnFirstDay: AuditRule = {
  id: 'never-attended-not-on-first-day',
  version: 1,
  family: 'dates',
  scope: 'grade',
  severity: 'blocks',
  summary: 'Never attended, but not on the first day',
  why: 'Who never attended has the first day of the period as the last date and no hours; aid is returned in full.',
  messages: {
    date: '{code} goes with the first day of the period, {from}; {date} is posted.',
    hours: '{code} goes with no hours; {hours} are posted.',
  },

  *check({ grades, codes, periodStartsOn, periodEndsOn }) {
    for (const grade of grades) {
      const { code, lastDate, hours } = grade.mark;
      if (code === null || !codes.get(code)?.needsFirstDay) continue;
      // last-date-needed speaks of dates outside the period, and of none
      const isInPeriod = lastDate !== null && isWithin(lastDate, { startsOn: periodStartsOn, endsOn: periodEndsOn });
      if (isInPeriod && lastDate !== periodStartsOn)
        yield findingOn(grade, 'date', { code, from: periodStartsOn, date: lastDate });
      else if (hours !== null && hours.units !== 0n)
        yield findingOn(grade, 'hours', { code, hours: formatDecimal(hours) });
    }
  },

  fix: {
    says: 'Set the first day of the period and no hours',
    mend: ({ mark, item }, { periodStartsOn }) => ({
      ...mark,
      lastDate: periodStartsOn,
      hours: item.asksHours ? { units: 0n, digits: 0 } : null,
    }),
  },
};
