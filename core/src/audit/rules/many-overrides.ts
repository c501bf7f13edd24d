import { isBlank, isOverride } from '#core/posting';
import { leastStudents } from '../least-students.js';
import { findingOnSheet, type AuditRule } from '../audit-rule.js';
import { sheetsOf } from '../sheets-of.js';

export const manyOverrides: AuditRule = {
  id: 'many-overrides',
  version: 1,
  family: 'pattern',
  scope: 'sheet',
  severity: 'informs',
  summary: 'Many grades posted otherwise than computed',
  why: 'When most of a sheet differs from its grade book, perhaps the calculation is wrong rather than the grades.',
  messages: {
    many: 'Is there a reason why {overrides} of {students} grades of {section} differ from what is computed?',
  },

  threshold: {
    says: 'Share of a sheet that may differ from what is computed, in percent',
    usual: 30,
    least: 1,
    most: 99,
  },

  *check(snapshot, mostPercent) {
    for (const sheet of sheetsOf(snapshot)) {
      const computed = sheet.grades.filter(
        ({ mark, proposal }) => proposal !== null && mark.code === null && !isBlank(mark),
      );
      if (computed.length < leastStudents) continue;
      const overrides = computed.filter(({ mark, proposal }) => isOverride(mark, proposal)).length;
      if (overrides * 100 <= computed.length * mostPercent) continue;
      const data = { section: sheet.section.name, overrides: String(overrides), students: String(computed.length) };
      yield findingOnSheet(sheet, 'many', data);
    }
  },
};
