import { formatDecimal } from '#core/numbers';
import { binomialTail } from '#core/statistics';
import { leastStudents } from '../least-students.js';
import { beyondChance, inThousand, type Candidate } from '../more-than-chance.js';
import { findingOnSheet, type AuditRule } from '../audit-rule.js';
import { judgedTogether } from '../judged-together.js';
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

  ...judgedTogether<Candidate>({
    *gather(part) {
      for (const sheet of sheetsOf(part)) {
        const percents = sheet.grades.flatMap(({ mark }) =>
          mark.percent !== null && mark.code === null ? [mark.percent] : [],
        );
        if (sheet.scale?.kind !== 'percent' || percents.length < leastStudents) continue;
        const round = percents.filter((percent) => Math.floor(Number(formatDecimal(percent))) % 5 === 0).length;
        const chance = binomialTail(round, percents.length, oneInFive);
        const data = { section: sheet.section.name, round: String(round), students: String(percents.length) };
        yield { chance, finding: findingOnSheet(sheet, 'round', { ...data, chance: inThousand(chance) }) };
      }
    },
    conclude: beyondChance,
  }),
};

/** Of ten whole numbers in a row, two end in 0 or 5. */
const oneInFive = 0.2;
