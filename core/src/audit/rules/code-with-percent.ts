import { formatDecimal } from '#core/numbers';
import { findingOn, type AuditRule } from '../audit-rule.js';

export const codeWithPercent: AuditRule = {
  id: 'code-with-percent',
  version: 1,
  family: 'agreement',
  scope: 'grade',
  severity: 'blocks',
  summary: 'Code with a percentage',
  why: 'A code stands in place of a grade; a percentage beside it would still be counted somewhere.',
  messages: {
    both: '{code} ({meaning}) forbids a percentage, but {percent} % is posted beside it.',
    unknown: '{code} is posted, which is no code of this district.',
  },

  *check({ grades, codes }) {
    for (const grade of grades) {
      const { code, percent } = grade.mark;
      if (code === null) continue;
      const known = codes.get(code);
      if (!known) yield findingOn(grade, 'unknown', { code });
      else if (percent !== null && known.forbidsPercent) {
        yield findingOn(grade, 'both', { code, meaning: known.meaning, percent: formatDecimal(percent) });
      }
    }
  },

  fix: {
    says: 'Clear the percentage',
    mend: ({ mark }, { codes }) =>
      mark.code !== null && codes.get(mark.code)?.forbidsPercent ? { ...mark, percent: null } : null,
  },
};
