import type { Day } from '#core/calendar';
import type { Decimal, Percent } from '#core/numbers';
import type { Pronoun } from '#core/people';
import type { Mark } from '#core/posting';
import type { ScaleKind } from '#core/scales';

/** A student's seat in a section, as it counts in a period. */
export interface Seat {
  readonly enrollmentId: number;
  readonly sectionId: number;
  readonly studentId: number;
  /** Family name first. */
  readonly student: string;
  readonly studentNumber: string;
  readonly enteredOn: Day;
  /** Set when the student left no later than the end of the period. */
  readonly withdrawnOn: Day | null;
  /** How the student is spoken of. */
  readonly pronoun: Pronoun;
}

/** What is posted for an item. */
export interface PostedMark {
  readonly mark: Mark;
  /** What was computed when the grade was posted, in the unit of the scale; null where nothing was. */
  readonly computedThen: Decimal | null;
  /** It said otherwise than what was computed then. */
  readonly isOverride: boolean;
  /** 0 when nothing was ever saved. */
  readonly version: number;
  /** The version that a run wrote last; null if none did. */
  readonly carriedVersion: number | null;
  readonly scaleVersionId: number | null;
  readonly postedBy: string | null;
  readonly postedAt: Date | null;
}

/** A student of a section as a report item sees them in one period: what is computed and what is posted. */
export interface GradeRow extends Seat, PostedMark {
  readonly computed: Computed | null;
  /** Assignments of Wombat's own grade book that keep the student from having a computed percentage. */
  readonly blockedBy: readonly number[];
}

export interface Computed {
  /** A percentage, or a level where the file or the item has levels. */
  readonly percent: Percent;
  /** The same as a level; null where the grade book reads none. */
  readonly level: Decimal | null;
  /** The row of the file that says it; null where the section's own grade book comes to it. */
  readonly file: { readonly importId: number; readonly importRow: number } | null;
}

/** What is computed in the unit of the scale: a level where it has levels, else a percentage; null where there is none. */
export function computedValue({ computed }: GradeRow, { kind }: { readonly kind: ScaleKind }): Decimal | null {
  return (kind === 'level' ? computed?.level : computed?.percent) ?? null;
}
