import type { AttendanceSummary } from '#core/attendance';
import type { Day, PostingWindow } from '#core/calendar';
import type { SpecialCode } from '#core/codes';
import type { Decimal, Percent } from '#core/numbers';
import type { Mark, NamedStudent } from '#core/posting';
import type { CommentRule } from '#core/report-items';
import type { Band, Precision } from '#core/scales';

/** One grade that is expected or posted, with what the rules need to judge it. */
export interface GradeFact {
  readonly enrollmentId: number;
  readonly mark: Mark;
  /** When the student came to the section; null where that is not known. */
  readonly enteredOn: Day | null;
  /** The student left the section on this day. */
  readonly withdrawnOn: Day | null;
  /** What is computed now, in the unit of the scale, and what it was when the grade was posted; null where nothing is. */
  readonly computed: Decimal | null;
  readonly computedThen: Decimal | null;
  /** What taking what is computed would post; null where nothing is. */
  readonly proposal: Mark | null;
  /** ISO instant; null where nothing was saved. */
  readonly postedAt: string | null;
  /** What the section's registers tell; null where no attendance is taken. */
  readonly attendance: AttendanceSummary | null;
  /** The student, and all of the section, as a comment may name them. */
  readonly named: NamedStudent;
  readonly classmates: readonly NamedStudent[];
  readonly item: ItemFact;
  /** The scale version the grade was posted under, or the one in force when nothing is posted. */
  readonly scale: ScaleFact;
}

export interface ItemFact {
  readonly id: number;
  readonly name: string;
  readonly precision: Precision;
  /** Whether a failing label needs a last date of attendance, as where student aid depends on it. */
  readonly failingNeedsLastDate: boolean;
  readonly highestPercent: Percent;
  readonly isComposite: boolean;
  readonly asksHours: boolean;
  readonly commentRule: CommentRule;
  readonly commentBelow: string | null;
  readonly commentLength: number;
  readonly onTranscript: boolean;
  readonly countsInGpa: boolean;
  /** When it may be posted in the period; null where nobody said. */
  readonly window: (PostingWindow & { readonly graceUntil: string | null }) | null;
}

export interface ScaleFact {
  readonly name: string;
  readonly bands: readonly Band[];
  /** The level at the top; null where the scale has percentages. */
  readonly highestLevel: Decimal | null;
}

/** All that the audit of one period sees. Rules read it; they never fetch. */
export interface Snapshot {
  readonly periodStartsOn: Day;
  readonly periodEndsOn: Day;
  /** The day of the audit. */
  readonly today: Day;
  readonly codes: ReadonlyMap<string, SpecialCode>;
  readonly grades: readonly GradeFact[];
}

/** What is so of a grade of which nothing else is known than its mark. */
export const bareGrade = {
  enteredOn: null,
  withdrawnOn: null,
  computed: null,
  computedThen: null,
  proposal: null,
  postedAt: null,
  attendance: null,
  named: { givenNames: [] },
  classmates: [],
} as const satisfies Partial<GradeFact>;
