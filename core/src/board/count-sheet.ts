import { bareGrade, itemFactOf, lastDateNeeded, noSections, runRules, type JudgedItem } from '#core/audit';
import type { Day } from '#core/calendar';
import type { SpecialCode } from '#core/codes';
import { isBlank, type Mark } from '#core/posting';
import { commentFault } from '#core/report-items';
import type { Band } from '#core/scales';
import { noCounts, type SheetCounts } from './sheet-state.js';

/** Students of one sheet who are alike in all that is counted; a million grades are a few thousand of these. */
export interface AlikeGrades {
  readonly students: number;
  /** Of one of them; its percent and comment stand for any. */
  readonly mark: Mark;
  readonly isOverride: boolean;
  /** Of the scale version that they were posted under. */
  readonly bands: readonly Band[];
}

/** What an item asks for beside a grade. */
export type CountedItem = JudgedItem;

/** By what a sheet is counted. */
export interface CountRules {
  readonly item: CountedItem;
  readonly period: { readonly startsOn: Day; readonly endsOn: Day };
  readonly codes: ReadonlyMap<string, SpecialCode>;
}

/**
 * What a sheet has and lacks, by the very rules that its notes and the audit go by. Students who have left are for the caller
 * to leave out.
 */
export function countSheet(groups: readonly AlikeGrades[], rules: CountRules): SheetCounts {
  const counts: Record<keyof SheetCounts, number> = { ...noCounts };
  for (const { students, mark, isOverride, bands } of groups) {
    counts.expected += students;
    if (isBlank(mark)) counts.blanks += students;
    if (mark.code !== null) counts.codes += students;
    if (lacksDate(mark, bands, rules)) counts.missingDates += students;
    if (commentFault(rules.item, mark, bands) === 'comment-needed') counts.missingComments += students;
    if (!isOverride) continue;
    counts.overrides += students;
    if (mark.overrideReason.trim() === '') counts.unexplained += students;
  }
  return counts;
}

/** Whether a last date of attendance is needed, and there is none that will do. */
export function lacksDate(mark: Mark, bands: readonly Band[], { item, period, codes }: CountRules): boolean {
  const scale = { name: '', bands, highestLevel: null };
  const fact = { ...bareGrade, enrollmentId: 0, mark, item: itemFactOf(item, null), scale };
  const { startsOn, endsOn } = period;
  const dates = { periodStartsOn: startsOn, periodEndsOn: endsOn, today: endsOn, now: endsOn };
  const snapshot = { ...noSections, ...dates, codes, grades: [fact] };
  return runRules([lastDateNeeded], snapshot).length > 0;
}
