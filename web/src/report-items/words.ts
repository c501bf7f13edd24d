import type { CourseLength, CourseLevel } from '#core/courses';
import type { PeriodKind } from '#core/calendar';

/** The choices of a rule as they read inside its sentence. */
export const levelWords: Record<CourseLevel, string> = {
  regular: 'regular',
  honours: 'honours',
  college: 'college-level',
};
export const lengthWords: Record<CourseLength, string> = { year: 'year-long', semester: 'half-year', term: 'one-term' };
export const eachPeriod: Record<PeriodKind, string> = {
  year: 'the year',
  semester: 'each semester',
  quarter: 'each quarter',
  trimester: 'each trimester',
  term: 'each term',
};
