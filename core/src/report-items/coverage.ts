import type { Course } from '#core/courses';
import { ruleMatches, type Exception, type Rule } from './rule.js';

/** Whether a course reports an item, and what says so: the last rule that matches, or an exception on top of it. */
export interface Cover {
  readonly itemId: number;
  readonly reports: boolean;
  readonly by: { readonly kind: 'rule' | 'exception'; readonly id: number };
}

export interface CourseCoverage {
  readonly course: Course;
  /** One for each item that a rule or an exception speaks of for this course. */
  readonly covers: readonly Cover[];
}

/** All that says which course reports what. */
export interface Assignment {
  readonly rules: readonly Rule[];
  readonly exceptions: readonly Exception[];
}

/** Which items each course reports. For each item the last rule that matches wins, and an exception wins over rules. */
export function coverage(courses: readonly Course[], { rules, exceptions }: Assignment): CourseCoverage[] {
  const inOrder = rules.toSorted((a, b) => a.position - b.position);
  return courses.map((course) => {
    const byItem = new Map<number, Cover>();
    for (const rule of inOrder) {
      if (!ruleMatches(rule, course)) continue;
      const { itemId, id, effect } = rule;
      byItem.set(itemId, { itemId, reports: effect === 'reports', by: { kind: 'rule', id } });
    }
    for (const { itemId, id, effect } of exceptions.filter(({ courseId }) => courseId === course.id)) {
      byItem.set(itemId, { itemId, reports: effect === 'reports', by: { kind: 'exception', id } });
    }
    return { course, covers: [...byItem.values()] };
  });
}

/** Whether a course reports an item. */
export function reportsItem({ covers }: CourseCoverage, itemId: number): boolean {
  return covers.some((cover) => cover.itemId === itemId && cover.reports);
}

export interface CoverageChange {
  readonly itemId: number;
  readonly added: readonly Course[];
  readonly removed: readonly Course[];
}

/** For each item the courses that would report it, and those that would no longer; items without change left out. */
export function coverageChange(
  courses: readonly Course[],
  before: Assignment,
  after: Assignment,
  itemIds: readonly number[],
): CoverageChange[] {
  const [was, will] = [coverage(courses, before), coverage(courses, after)];
  return itemIds.flatMap((itemId) => {
    const differs = (from: readonly CourseCoverage[], to: readonly CourseCoverage[]) =>
      courses.filter((_course, at) => reportsItem(to[at]!, itemId) && !reportsItem(from[at]!, itemId));
    const [added, removed] = [differs(was, will), differs(will, was)];
    return added.length + removed.length > 0 ? [{ itemId, added, removed }] : [];
  });
}
