import type { AttendanceSummary } from '#core/attendance';
import type { Day, PostingWindow } from '#core/calendar';
import type { SpecialCode } from '#core/codes';
import type { CalculationPolicy } from '#core/calculation';
import type { Course } from '#core/courses';
import type { Credits, Decimal, Percent } from '#core/numbers';
import type { Mark, NamedStudent } from '#core/posting';
import type { CommentRule } from '#core/report-items';
import type { Band, Precision, ScaleKind } from '#core/scales';

/** One grade that is expected or posted, with what the rules need to judge it. */
export interface GradeFact {
  readonly enrollmentId: number;
  readonly sectionId: number;
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
  /** Whether the course lets a student be exempt. */
  readonly allowsExempt: boolean;
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
  /** Whether its grades come out of the grade book. */
  readonly isOfBook: boolean;
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

/** A section that runs in the period, with its set-up, its grade book and its students. */
export interface SectionFact {
  readonly id: number;
  readonly name: string;
  readonly course: Pick<Course, 'id' | 'title' | 'department' | 'onTranscript' | 'mostCredits'>;
  /** The part of the course's credits that falls to the period. */
  readonly credits: Credits;
  readonly students: readonly SeatFact[];
  readonly sheets: readonly SheetFact[];
  /** How its grade book is calculated; null where nobody set it. */
  readonly policy: CalculationPolicy | null;
  /** Why its grade book could not be calculated when it was last tried; null where it could. */
  readonly bookProblem: string | null;
  readonly assignments: readonly AssignmentFact[];
  readonly unmatched: readonly UnmatchedGroupFact[];
}

/** A student's seat in a section. */
export interface SeatFact {
  readonly enrollmentId: number;
  readonly studentId: number;
  readonly enteredOn: Day | null;
  readonly withdrawnOn: Day | null;
  /** Credits of this course on the student's transcript from other periods, where the course says how many it gives at most; else 0. */
  readonly creditsBefore: Credits;
}

/** An item that the section reports in the period. */
export interface SheetFact {
  readonly item: ItemFact;
  /** The one in force; null where none is. */
  readonly scale: (ScaleFact & { readonly kind: ScaleKind }) | null;
  readonly isSignedOff: boolean;
}

export interface AssignmentFact {
  readonly name: string;
  readonly category: string;
  readonly categoryId: number;
  readonly possible: Decimal;
  readonly dueOn: Day;
  readonly isExtra: boolean;
  readonly isCounted: boolean;
  readonly isPublished: boolean;
  /** Students with points, and the most that one of them has; null where nobody has any. */
  readonly scored: number;
  readonly highest: Decimal | null;
}

/** What a learning platform has for a section in a group that is joined to no category, as a run last told of it. */
export interface UnmatchedGroupFact {
  readonly platform: string;
  /** Null for what stands in no group. */
  readonly group: string | null;
  readonly scores: number;
}

/** A grade that is posted where none is expected. */
export interface StrayGrade {
  readonly enrollmentId: number;
  readonly itemId: number;
  readonly item: string;
  /** What does not expect it: the course reports no such item, or the item is not posted in such a period. */
  readonly by: 'course' | 'period';
  /** As posted, in words. */
  readonly shown: string;
}

/** A line that was sealed onto a transcript. */
export interface SealedLine {
  readonly enrollmentId: number;
  readonly itemId: number;
  readonly percent: Percent | null;
  /** Label or code. */
  readonly mark: string;
}

/** All that the audit of one period sees. Rules read it; they never fetch. */
export interface Snapshot {
  readonly periodStartsOn: Day;
  readonly periodEndsOn: Day;
  /** The day of the audit. */
  readonly today: Day;
  /** ISO instant of the audit. */
  readonly now: string;
  readonly codes: ReadonlyMap<string, SpecialCode>;
  readonly grades: readonly GradeFact[];
  readonly sections: readonly SectionFact[];
  readonly strays: readonly StrayGrade[];
  /** Empty while the period is not sealed. */
  readonly sealed: readonly SealedLine[];
}

/** Of a look at single grades: nothing is known of their sections. */
export const noSections = { sections: [], strays: [], sealed: [] } as const satisfies Partial<Snapshot>;

/** What is so of a grade of which nothing else is known than its mark. */
export const bareGrade = {
  sectionId: 0,
  enteredOn: null,
  withdrawnOn: null,
  computed: null,
  computedThen: null,
  proposal: null,
  postedAt: null,
  attendance: null,
  named: { givenNames: [] },
  classmates: [],
  allowsExempt: true,
} as const satisfies Partial<GradeFact>;
