import { findingOnSheet, type AuditRule } from '../audit-rule.js';
import { sheetsOf } from '../sheets-of.js';

export const sectionWithoutScale: AuditRule = {
  id: 'section-without-scale',
  version: 1,
  family: 'set-up',
  scope: 'sheet',
  settledIn: 'scales',
  severity: 'blocks',
  summary: 'No scale in use',
  why: 'Without a scale no label fits, no GPA is made, and nothing can be checked.',
  messages: {
    none: '{section} reports {item}, and no scale is in use for it.',
  },

  *check(snapshot) {
    for (const sheet of sheetsOf(snapshot)) {
      if (sheet.scale !== null) continue;
      yield findingOnSheet(sheet, 'none', { item: sheet.item.name, section: sheet.section.name });
    }
  },
};
