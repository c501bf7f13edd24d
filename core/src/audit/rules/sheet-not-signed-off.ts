import { windowState } from '#core/calendar';
import { findingOnSheet, type AuditRule } from '../audit-rule.js';
import { sheetsOf } from '../sheets-of.js';

export const sheetNotSignedOff: AuditRule = {
  id: 'sheet-not-signed-off',
  version: 1,
  family: 'completeness',
  scope: 'sheet',
  severity: 'warns',
  summary: 'Sheet not signed off',
  why: 'Only the teacher can say that a sheet is done; until then a grade in it may still be a draft.',
  messages: {
    open: 'The window of {item} has closed, and the sheet of {section} is not signed off.',
  },

  *check(snapshot) {
    for (const sheet of sheetsOf(snapshot)) {
      const { item, section, isSignedOff, grades } = sheet;
      if (isSignedOff || grades.length === 0 || !item.window) continue;
      if (windowState(item.window, snapshot.now) !== 'closed') continue;
      yield findingOnSheet(sheet, 'open', { item: item.name, section: section.name });
    }
  },
};
