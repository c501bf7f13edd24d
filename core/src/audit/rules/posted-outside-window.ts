import { isBlank } from '#core/posting';
import { findingOn, type AuditRule } from '../audit-rule.js';

export const postedOutsideWindow: AuditRule = {
  id: 'posted-outside-window',
  version: 1,
  family: 'dates',
  scope: 'grade',
  severity: 'warns',
  summary: 'Posted outside the window',
  why: 'A grade that came before the window opened or after it closed was seen by nobody who waited for the window.',
  messages: {
    before: 'Posted on {postedAt}, before the window opened on {opensAt}.',
    after: 'Posted on {postedAt}, after the window closed on {closesAt}.',
  },

  *check({ grades }) {
    for (const grade of grades) {
      const { postedAt, mark, item } = grade;
      if (postedAt === null || item.window === null || isBlank(mark)) continue;
      const { opensAt, closesAt, graceUntil } = item.window;
      const at = Date.parse(postedAt);
      const side = at < Date.parse(opensAt) ? 'before' : at > Date.parse(graceUntil ?? closesAt) ? 'after' : null;
      if (side === null) continue;
      const data = { postedAt: postedAt.slice(0, 10), opensAt: opensAt.slice(0, 10), closesAt: closesAt.slice(0, 10) };
      yield findingOn(grade, side, data);
    }
  },
};
