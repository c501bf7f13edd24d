import { formatDecimal } from '#core/numbers';
import { binomialTail } from '#core/statistics';
import { leastStudents } from '../least-students.js';
import { inThousand, moreThanChance } from '../more-than-chance.js';
import { findingOnSheet, type AuditRule } from '../audit-rule.js';
import { sheetsOf } from '../sheets-of.js';

export const roundNumbers: AuditRule = {
  id: 'round-numbers',
  version: 1,
  family: 'pattern',
  scope: 'sheet',
  severity: 'informs',
  summary: 'Many round numbers',
  why: 'Computed percentages seldom end in 0 or 5; those that somebody judged do.',
  messages: {
    round:
      'Is there a reason why {round} of {students} percentages of {section} end in 0 or 5? By chance alone, so many would be seen in {chance} of 1,000 sections.',
  },

  *check(snapshot) {
    const looked = sheetsOf(snapshot).flatMap((sheet) => {
      const percents = sheet.grades.flatMap(({ mark }) =>
        mark.percent !== null && mark.code === null ? [mark.percent] : [],
      );
      const isLevel = sheet.scale?.kind !== 'percent';
      if (isLevel || percents.length < leastStudents) return [];
      const round = percents.filter((percent) => Math.floor(Number(formatDecimal(percent))) % 5 === 0).length;
      return [{ sheet, round, students: percents.length, chance: binomialTail(round, percents.length, oneInFive) }];
    });
    for (const { sheet, round, students, chance } of moreThanChance(looked)) {
      const counts = { round: String(round), students: String(students), chance: inThousand(chance) };
      yield findingOnSheet(sheet, 'round', { section: sheet.section.name, ...counts });
    }
  },
};

/** Of ten whole numbers in a row, two end in 0 or 5. */
const oneInFive = 0.2;
