import { isBlank } from '#core/posting';
import { findingOnSheet, type AuditRule } from '../audit-rule.js';
import { sheetsOf } from '../sheets-of.js';

export const signedOffWithBlanks: AuditRule = {
  id: 'signed-off-with-blanks',
  version: 1,
  family: 'completeness',
  scope: 'sheet',
  severity: 'warns',
  summary: 'Signed off with blanks',
  why: 'A sign-off says that the sheet is done, and a blank says that it is not.',
  messages: {
    blanks: '{section} is signed off with {blanks} of {students} grades blank.',
  },

  *check(snapshot) {
    for (const sheet of sheetsOf(snapshot)) {
      const blanks = sheet.grades.filter(({ mark }) => isBlank(mark)).length;
      if (!sheet.isSignedOff || blanks === 0) continue;
      const data = { section: sheet.section.name, blanks: String(blanks), students: String(sheet.grades.length) };
      yield findingOnSheet(sheet, 'blanks', data);
    }
  },
};
