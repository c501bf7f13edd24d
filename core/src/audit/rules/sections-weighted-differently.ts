import type { CalculationPolicy } from '#core/calculation';
import { formatAtLeast } from '#core/numbers';
import { nowhere, type AuditRule } from '../audit-rule.js';
import { judgedTogether } from '../judged-together.js';

export const sectionsWeightedDifferently: AuditRule = {
  id: 'sections-weighted-differently',
  version: 1,
  family: 'set-up',
  scope: 'course',
  settledIn: 'calculation',
  severity: 'warns',
  summary: 'Sections of one course calculated differently',
  why: 'Two students with the same scores would get different grades.',
  messages: {
    differ: 'The {sections} sections of {course} are calculated in {ways} different ways.',
  },

  ...judgedTogether<Weighted>({
    *gather({ sections }) {
      for (const { course, sheets, policy } of sections)
        if (sheets.some(({ item }) => item.isOfBook))
          yield { courseId: course.id, course: course.title, way: policy === null ? '' : wayOf(policy) };
    },
    *conclude(weighted) {
      const byCourse = new Map<number, Weighted[]>();
      for (const each of weighted) byCourse.set(each.courseId, [...(byCourse.get(each.courseId) ?? []), each]);
      for (const [courseId, own] of byCourse) {
        const ways = new Set(own.map(({ way }) => way)).size;
        if (ways < 2) continue;
        const data = { course: own[0]!.course, sections: String(own.length), ways: String(ways) };
        yield { ...nowhere, courseId, message: 'differ', data };
      }
    },
  }),
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

/** How a section of a course is calculated. */
interface Weighted {
  readonly courseId: number;
  readonly course: string;
  readonly way: string;
}
