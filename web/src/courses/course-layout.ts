import { courseFields, type CourseField } from '#core/courses';

/** Widths of the columns of Courses, in pixels. */
export const fieldWidths: Readonly<Record<CourseField, number>> = {
  code: 78,
  title: 186,
  department: 140,
  kind: 78,
  level: 72,
  length: 78,
  credits: 62,
  mostCredits: 78,
  onTranscript: 80,
  countsInGpa: 52,
};
export const markWidth = 34;
export const scaleWidth = 112;
export const totalWidth = markWidth + scaleWidth + courseFields.reduce((sum, field) => sum + fieldWidths[field], 0);
/** Where what says which course it is stays while the rest scrolls sideways. */
export const staysAt: Partial<Record<CourseField, number>> = { code: markWidth, title: markWidth + fieldWidths.code };
