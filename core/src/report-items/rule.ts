import type { Course, CourseLength, CourseLevel } from '#core/courses';

/** A choice inside a rule; null means "any". */
export interface RuleChoices {
  readonly department: string | null;
  readonly level: CourseLevel | null;
  readonly kind: string | null;
  readonly length: CourseLength | null;
}

/** "Every *year-long* course in *Upper School* reports *Quarter grade*", or does not. */
export interface Rule extends RuleChoices {
  readonly id: number;
  readonly schoolId: number;
  readonly itemId: number;
  readonly effect: 'reports' | 'omits';
  /** Where two rules match, the one with the greater position stands. */
  readonly position: number;
}

/** One course that reports an item, or does not, whatever the rules say. */
export interface Exception {
  readonly id: number;
  readonly itemId: number;
  readonly courseId: number;
  readonly effect: 'reports' | 'omits';
  readonly reason: string;
}

/** Whether the rule speaks of this course. */
export function ruleMatches(rule: Rule, course: Course): boolean {
  return (
    rule.schoolId === course.schoolId &&
    (rule.department === null || rule.department === course.department) &&
    (rule.level === null || rule.level === course.level) &&
    (rule.kind === null || rule.kind === course.kind) &&
    (rule.length === null || rule.length === course.length)
  );
}
