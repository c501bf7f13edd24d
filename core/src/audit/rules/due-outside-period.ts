import { isWithin } from '#core/calendar';
import { compareText } from '../compare-text.js';
import { findingOnSection, type AuditRule } from '../audit-rule.js';

export const dueOutsidePeriod: AuditRule = {
  id: 'due-outside-period',
  version: 1,
  family: 'set-up',
  scope: 'section',
  severity: 'warns',
  summary: 'Assignments due outside the period',
  why: 'Work of another period counts in this one, or the date is wrong.',
  messages: {
    outside: 'Assignments of {section} due outside the period: {count} of {all}, such as {name} on {day}.',
  },

  *check({ sections, periodStartsOn, periodEndsOn }) {
    const period = { startsOn: periodStartsOn, endsOn: periodEndsOn };
    for (const section of sections) {
      const { assignments, name } = section;
      const outside = assignments
        .filter(({ dueOn, isCounted }) => isCounted && !isWithin(dueOn, period))
        .toSorted((a, b) => compareText(a.dueOn, b.dueOn) || compareText(a.name, b.name));
      const [first] = outside;
      if (!first) continue;
      const counts = { count: String(outside.length), all: String(assignments.length) };
      yield findingOnSection(section, 'outside', { ...counts, section: name, name: first.name, day: first.dueOn });
    }
  },
};
