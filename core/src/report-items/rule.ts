import type { PeriodKind } from '#core/calendar';
import type { Course, CourseLength, CourseLevel } from '#core/courses';

/** A choice inside a rule; null means "any". */
export interface RuleChoices {
  readonly department: string | null;
  readonly level: CourseLevel | null;
  readonly length: CourseLength | null;
}

/** "Every *year-long* course in *Upper School* reports *Quarter grade* in *each quarter*." */
export interface Rule extends RuleChoices {
  readonly id: number;
  readonly schoolId: number;
  readonly itemId: number;
  /** The item is reported in every period of this kind that the course runs in. */
  readonly periodKind: PeriodKind;
  /** Where two rules match, the one with the greater position stands. */
  readonly position: number;
}

/** Whether the rule speaks of this course. */
export function ruleMatches(rule: Rule, course: Course): boolean {
  return (
    rule.schoolId === course.schoolId &&
    (rule.department === null || rule.department === course.department) &&
    (rule.level === null || rule.level === course.level) &&
    (rule.length === null || rule.length === course.length)
  );
}
