import type { CalculationPolicy } from '#core/calculation';
import { formatAtLeast } from '#core/numbers';
import { nowhere, type AuditRule } from '../audit-rule.js';
import type { SectionFact } from '../snapshot.js';

export const sectionsWeightedDifferently: AuditRule = {
  id: 'sections-weighted-differently',
  version: 1,
  family: 'set-up',
  scope: 'course',
  severity: 'warns',
  summary: 'Sections of one course calculated differently',
  why: 'Two students with the same scores would get different grades.',
  messages: {
    differ: 'The {sections} sections of {course} are calculated in {ways} different ways.',
  },

  *check({ sections }) {
    const byCourse = new Map<number, SectionFact[]>();
    for (const section of sections) {
      if (!section.sheets.some(({ item }) => item.isOfBook)) continue;
      byCourse.set(section.course.id, [...(byCourse.get(section.course.id) ?? []), section]);
    }
    for (const [courseId, own] of byCourse) {
      const ways = new Set(own.map(({ policy }) => (policy === null ? '' : wayOf(policy)))).size;
      if (ways < 2) continue;
      const data = { course: own[0]!.course.title, sections: String(own.length), ways: String(ways) };
      yield { ...nowhere, courseId, message: 'differ', data };
    }
  },
};

/** What of a calculation makes another grade of the same scores: method, weights, drops and caps, in any order. */
function wayOf({ method, categories }: CalculationPolicy): string {
  const shares = categories
    .filter(({ weight }) => weight.units > 0n)
    .map(({ categoryId, weight, dropLowest, cap }) =>
      [categoryId, formatAtLeast(weight, 0), dropLowest, cap && formatAtLeast(cap, 0)].join(' '),
    );
  return [method, ...(method === 'totalPoints' ? [] : shares.toSorted())].join('; ');
}
