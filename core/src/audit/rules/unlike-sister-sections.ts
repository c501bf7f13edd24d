import { orderBands } from '#core/scales';
import { compareCounts } from '#core/statistics';
import { leastStudents } from '../least-students.js';
import { inThousand, moreThanChance } from '../more-than-chance.js';
import { findingOnSheet, type AuditRule } from '../audit-rule.js';
import { sheetsOf, type SheetOfSection } from '../sheets-of.js';

export const unlikeSisterSections: AuditRule = {
  id: 'unlike-sister-sections',
  version: 1,
  family: 'pattern',
  scope: 'sheet',
  severity: 'informs',
  summary: 'Unlike the course’s other sections',
  why: 'Students of one course should not depend on which section they sit in; sometimes the sections differ, and sometimes the grading does.',
  messages: {
    unlike:
      'Is there a reason why the {students} grades of {section} lie otherwise than the {others} of its sister sections (χ² {square}, effect {effect})? By chance alone, so much would be seen in {chance} of 1,000 sections.',
  },

  // Smaller differences are no matter, however sure.
  threshold: { says: 'Smallest effect, as Cramér’s V from 0 to 1', usual: 0.25, least: 0.05, most: 1 },

  *check(snapshot, leastEffect) {
    const looked = [...sistersOf(sheetsOf(snapshot)).values()].flatMap((sisters) =>
      sisters.flatMap((sheet) => {
        const labels = orderBands(sheet.scale!.bands).map(({ label }) => label);
        const own = countsOf([sheet], labels);
        const others = countsOf(
          sisters.filter((each) => each !== sheet),
          labels,
        );
        if (total(own) < leastStudents || total(others) < leastStudents) return [];
        const compared = compareCounts(own, others);
        return compared ? [{ sheet, own, others, ...compared }] : [];
      }),
    );
    for (const { sheet, own, others, chiSquare, effect, chance } of moreThanChance(looked)) {
      if (effect < leastEffect) continue;
      yield findingOnSheet(sheet, 'unlike', {
        section: sheet.section.name,
        students: String(total(own)),
        others: String(total(others)),
        square: chiSquare.toFixed(1),
        effect: effect.toFixed(2),
        chance: inThousand(chance),
      });
    }
  },
};

/** Sheets of one item, course and scale: only these can be compared label by label. */
function sistersOf(sheets: readonly SheetOfSection[]): ReadonlyMap<string, SheetOfSection[]> {
  const found = new Map<string, SheetOfSection[]>();
  for (const sheet of sheets) {
    if (!sheet.scale) continue;
    const key = `${sheet.section.course.id}/${sheet.item.id}/${sheet.scale.name}`;
    const own = found.get(key);
    if (own) own.push(sheet);
    else found.set(key, [sheet]);
  }
  return found;
}

function countsOf(sheets: readonly SheetOfSection[], labels: readonly string[]): number[] {
  const counts = labels.map(() => 0);
  for (const { grades } of sheets) {
    for (const { mark } of grades) {
      const at = mark.label === null || mark.code !== null ? -1 : labels.indexOf(mark.label);
      if (at !== -1) counts[at]!++;
    }
  }
  return counts;
}

const total = (counts: readonly number[]) => counts.reduce((sum, count) => sum + count, 0);
