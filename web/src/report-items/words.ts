import type { PeriodKind } from '#core/calendar';
import type { CourseLength, CourseLevel } from '#core/courses';
import type { CommentRule, FamilyTime, FamilyView, ItemKind, ItemSource, PartUnit } from '#core/report-items';
import type { ItemBody, ReportItemsReply } from '#contract/report-items';
import { listed } from '#contract/messages';

/** The choices of rules and items as they read inside their sentences. */
export const levelWords: Record<CourseLevel, string> = {
  regular: 'regular',
  honours: 'honours',
  college: 'college-level',
};
export const lengthWords: Record<CourseLength, string> = {
  year: 'year-long',
  semester: 'one-semester',
  term: 'one-term',
};
export const eachPeriod: Record<PeriodKind, string> = {
  year: 'the year',
  semester: 'each semester',
  quarter: 'each quarter',
  trimester: 'each trimester',
  term: 'each term',
};
export const kindWords: Record<ItemKind, string> = {
  progress: 'progress along the way',
  period: 'grade of a period',
  exam: 'exam inside a period',
  final: 'final grade',
  standard: 'standard',
  conduct: 'conduct',
};
export const sourceWords: Record<ItemSource, string> = {
  gradeBook: 'from the grade book',
  hand: 'by hand',
  composite: 'made of other items',
};
export const unitWords: Record<PartUnit, string> = { percent: 'posted percentage', points: 'grade points' };
export const commentWords: Record<CommentRule, string> = {
  none: 'has no comment',
  optional: 'may carry a comment',
  requiredBelow: 'needs a comment below',
};
export const viewWords: Record<FamilyView, string> = {
  label: 'the label',
  percent: 'the percentage',
  both: 'percent and label',
  descriptor: 'the descriptor in words',
  hidden: 'nothing',
};
export const timeWords: Record<FamilyTime, string> = {
  posted: 'as soon as it is posted',
  closed: 'once the window has closed',
  sealed: 'once the period is sealed',
};

/** "each quarter", "Quarter 2 and Quarter 4". */
export function postedInWords(
  { periodKind, ordinals }: Pick<ItemBody, 'periodKind' | 'ordinals'>,
  periods: ReportItemsReply['periods'],
): string {
  if (ordinals === null) return eachPeriod[periodKind];
  const names = periods.find(({ kind }) => kind === periodKind)?.names ?? [];
  return listed(ordinals.map((ordinal) => names[ordinal - 1] ?? `${periodKind} ${ordinal}`));
}
