import { isBlank } from '#core/posting';
import { leastStudents } from '../least-students.js';
import { showMark } from '../show-mark.js';
import { findingOnSheet, type AuditRule } from '../audit-rule.js';
import { sheetsOf } from '../sheets-of.js';

export const oneValueForAll: AuditRule = {
  id: 'one-value-for-all',
  version: 1,
  family: 'pattern',
  scope: 'sheet',
  severity: 'informs',
  summary: 'One grade for all',
  why: 'When all grades are one, they were perhaps filled down rather than given.',
  messages: {
    same: 'Is there a reason why all {students} grades of {section} are {mark}?',
  },

  *check(snapshot) {
    for (const sheet of sheetsOf(snapshot)) {
      const posted = sheet.grades
        .filter(({ mark }) => mark.code === null && !isBlank(mark))
        .map(({ mark }) => showMark(mark));
      if (posted.length < leastStudents || new Set(posted).size > 1) continue;
      const data = { section: sheet.section.name, students: String(posted.length), mark: posted[0]! };
      yield findingOnSheet(sheet, 'same', data);
    }
  },
};
