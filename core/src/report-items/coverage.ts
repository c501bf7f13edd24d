import type { Course } from '#core/courses';
import { ruleMatches, type Rule } from './rule.js';

/** Why a course reports an item: the rule that put it there. */
export interface Cover {
  readonly itemId: number;
  readonly ruleId: number;
}

export interface CourseCoverage {
  readonly course: Course;
  /** At most one for each item. */
  readonly covers: readonly Cover[];
}

/** Which items each course reports. For each item the last rule that matches wins. */
export function coverage(courses: readonly Course[], rules: readonly Rule[]): CourseCoverage[] {
  const inOrder = rules.toSorted((a, b) => a.position - b.position);
  return courses.map((course) => {
    const byItem = new Map<number, Cover>();
    for (const rule of inOrder) {
      if (ruleMatches(rule, course)) byItem.set(rule.itemId, { itemId: rule.itemId, ruleId: rule.id });
    }
    return { course, covers: [...byItem.values()] };
  });
}

export interface CoverageChange {
  readonly added: readonly Course[];
  readonly removed: readonly Course[];
}

/** The courses that would come to report the item, and those that would no longer, when the rules change. */
export function coverageChange(
  courses: readonly Course[],
  before: readonly Rule[],
  after: readonly Rule[],
  itemId: number,
): CoverageChange {
  const covered = (rules: readonly Rule[]) =>
    new Set(
      coverage(courses, rules)
        .filter(({ covers }) => covers.some((cover) => cover.itemId === itemId))
        .map(({ course }) => course.id),
    );
  const [was, will] = [covered(before), covered(after)];
  return {
    added: courses.filter(({ id }) => will.has(id) && !was.has(id)),
    removed: courses.filter(({ id }) => was.has(id) && !will.has(id)),
  };
}
