import { formatDecimal, type Decimal } from '#core/numbers';
import { compareText } from '../compare-text.js';
import { findingOnSection, type AuditRule } from '../audit-rule.js';
import type { SectionFact } from '../snapshot.js';

export const assignmentOverHalf: AuditRule = {
  id: 'assignment-over-half',
  version: 1,
  family: 'set-up',
  scope: 'section',
  severity: 'warns',
  summary: 'One assignment over half of the grade',
  why: 'One bad day would decide the grade.',
  messages: {
    share: '{name} is {share} % of the grade of {section}.',
  },

  threshold: { says: 'Largest share of the grade, in percent', usual: 50, least: 10, most: 99 },

  *check({ sections }, mostPercent) {
    for (const section of sections) {
      const shares = sharesOf(section).toSorted((a, b) => b.share - a.share || compareText(a.name, b.name));
      const [first] = shares;
      // Only where there is more to count than one.
      if (!first || shares.length < 2 || first.share * 100 <= mostPercent) continue;
      const share = String(Math.round(first.share * 100));
      yield findingOnSection(section, 'share', { section: section.name, name: first.name, share });
    }
  },
};

const numberOf = (value: Decimal) => Number(formatDecimal(value));

/** The part of the grade that each counted assignment is for whoever has them all: of the weights of categories in use, or of all points. */
function sharesOf({ policy, assignments }: SectionFact): { readonly name: string; readonly share: number }[] {
  const counted = assignments.filter(({ isCounted, isExtra, scored }) => isCounted && !isExtra && scored > 0);
  const weights = new Map((policy?.categories ?? []).map(({ categoryId, weight }) => [categoryId, numberOf(weight)]));
  const used = [...new Set(counted.map(({ categoryId }) => categoryId))];
  const total = used.reduce((sum, id) => sum + (weights.get(id) ?? 0), 0);
  const isOnePot = !policy || policy.method === 'totalPoints';
  return counted.map(({ name, categoryId, possible }) => {
    const beside = isOnePot ? counted : counted.filter((each) => each.categoryId === categoryId);
    const points = beside.reduce((sum, each) => sum + numberOf(each.possible), 0);
    const isByPoints = isOnePot || policy.method === 'categoryPoints';
    const within = isByPoints ? (points === 0 ? 0 : numberOf(possible) / points) : 1 / beside.length;
    return { name, share: isOnePot || total === 0 ? within : (within * (weights.get(categoryId) ?? 0)) / total };
  });
}
