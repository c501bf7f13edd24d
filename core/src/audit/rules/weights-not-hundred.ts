import { sumOfCategoryWeights } from '#core/calculation';
import { compareDecimals, decimalOrThrow, formatAtLeast } from '#core/numbers';
import { findingOnSection, type AuditRule } from '../audit-rule.js';

export const weightsNotHundred: AuditRule = {
  id: 'weights-not-hundred',
  version: 1,
  family: 'set-up',
  scope: 'section',
  settledIn: 'calculation',
  severity: 'warns',
  summary: 'Weights do not come to 100',
  why: 'People read weights as percentages of the grade; when they come to something else each counts for more or less than it says.',
  messages: {
    sum: 'The weights of {section} come to {total}, not to 100.',
  },

  *check({ sections }) {
    for (const section of sections) {
      const { policy } = section;
      if (policy === null || policy.method === 'totalPoints') continue;
      const total = sumOfCategoryWeights(policy);
      if (compareDecimals(total, hundred) === 0) continue;
      yield findingOnSection(section, 'sum', { section: section.name, total: formatAtLeast(total, 0) });
    }
  },
};

const hundred = decimalOrThrow('100');
