import { orderBands } from '#core/scales';
import { compareCounts } from '#core/statistics';
import { leastStudents } from '../least-students.js';
import { inThousand, moreThanChance } from '../more-than-chance.js';
import { findingOnSheet, type AuditRule } from '../audit-rule.js';
import { judgedTogether } from '../judged-together.js';
import { sheetsOf } from '../sheets-of.js';
import type { GradeFact } from '../snapshot.js';

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

  ...judgedTogether<Counted>({
    *gather(part) {
      for (const { section, item, scale, grades } of sheetsOf(part)) {
        if (!scale) continue;
        const { id, name, course } = section;
        const labels = orderBands(scale.bands).map(({ label }) => label);
        const sisters = `${course.id}/${item.id}/${scale.name}`;
        yield { sisters, sheet: { section: { id, name }, item: { id: item.id } }, labels, posted: postedOf(grades) };
      }
    },
    *conclude(counted, leastEffect) {
      const looked = [...sistersOf(counted).values()].flatMap((sisters) => {
        const all = together(sisters);
        return sisters.flatMap(({ sheet, labels, posted }) => {
          const own = labels.map((label) => posted.get(label) ?? 0);
          const others = labels.map((label, at) => (all.get(label) ?? 0) - own[at]!);
          if (total(own) < leastStudents || total(others) < leastStudents) return [];
          const compared = compareCounts(own, others);
          return compared ? [{ sheet, own, others, ...compared }] : [];
        });
      });
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
  }),
};

/** How often each label is posted on a sheet. */
interface Counted {
  /** The same for sheets of one item, course and scale: only these can be compared label by label. */
  readonly sisters: string;
  readonly sheet: {
    readonly section: { readonly id: number; readonly name: string };
    readonly item: { readonly id: number };
  };
  /** Of its scale, best first. */
  readonly labels: readonly string[];
  readonly posted: ReadonlyMap<string, number>;
}

function sistersOf(sheets: readonly Counted[]): ReadonlyMap<string, Counted[]> {
  const found = new Map<string, Counted[]>();
  for (const sheet of sheets) {
    const own = found.get(sheet.sisters);
    if (own) own.push(sheet);
    else found.set(sheet.sisters, [sheet]);
  }
  return found;
}

function postedOf(grades: readonly GradeFact[]): ReadonlyMap<string, number> {
  const counts = new Map<string, number>();
  for (const { mark } of grades)
    if (mark.label !== null && mark.code === null) counts.set(mark.label, (counts.get(mark.label) ?? 0) + 1);
  return counts;
}

/** How often each label is posted on all of some sheets. */
function together(sheets: readonly Counted[]): ReadonlyMap<string, number> {
  const counts = new Map<string, number>();
  for (const { posted } of sheets)
    for (const [label, count] of posted) counts.set(label, (counts.get(label) ?? 0) + count);
  return counts;
}

const total = (counts: readonly number[]) => counts.reduce((sum, count) => sum + count, 0);
