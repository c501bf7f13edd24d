import { formatDecimal } from '#core/numbers';
import { binomialTail } from '#core/statistics';
import { leastStudents } from '../least-students.js';
import { beyondChance, inThousand, type Candidate } from '../more-than-chance.js';
import { findingOnSheet, type AuditRule } from '../audit-rule.js';
import { judgedTogether } from '../judged-together.js';
import { sheetsOf, type SheetOfSection } from '../sheets-of.js';

export const crowdingAboveCutOff: AuditRule = {
  id: 'crowding-above-cut-off',
  version: 1,
  family: 'pattern',
  scope: 'sheet',
  severity: 'informs',
  summary: 'Many grades just above a cut-off',
  why: 'Grades that were lifted over a cut-off one by one are fair only if everybody just below was looked at.',
  messages: {
    crowded:
      'Is there a reason why {above} grades of {section} lie within a point above a cut-off and only {below} within a point below? By chance alone, so many would be seen in {chance} of 1,000 sections.',
  },

  ...judgedTogether<Candidate>({
    *gather(part) {
      for (const sheet of sheetsOf(part)) {
        const { above, below } = besideCutOffs(sheet);
        if (above + below < leastStudents) continue;
        const chance = binomialTail(above, above + below, 0.5);
        const data = { section: sheet.section.name, above: String(above), below: String(below) };
        yield { chance, finding: findingOnSheet(sheet, 'crowded', { ...data, chance: inThousand(chance) }) };
      }
    },
    conclude: beyondChance,
  }),
};

/** How many percentages lie within one point above a cut-off, and how many within one below. The lowest has nothing below it. */
function besideCutOffs({ scale, grades }: SheetOfSection): { readonly above: number; readonly below: number } {
  const cutOffs = (scale?.kind === 'percent' ? scale.bands : [])
    .filter(({ lowest, isOff }) => !isOff && lowest !== null && lowest.units > 0n)
    .map(({ lowest }) => Number(formatDecimal(lowest!)));
  const counts = { above: 0, below: 0 };
  for (const { mark } of grades) {
    if (mark.percent === null || mark.code !== null) continue;
    const percent = Number(formatDecimal(mark.percent));
    if (cutOffs.some((cutOff) => percent >= cutOff && percent < cutOff + 1)) counts.above++;
    else if (cutOffs.some((cutOff) => percent < cutOff && percent >= cutOff - 1)) counts.below++;
  }
  return counts;
}
