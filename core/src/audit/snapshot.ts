import type { Day } from '#core/calendar';
import type { Mark } from '#core/posting';
import type { SpecialCode } from '#core/codes';
import type { Band, Precision } from '#core/scales';

/** One grade that is expected or posted, with what the rules need to judge it. */
export interface GradeFact {
  readonly enrollmentId: number;
  readonly mark: Mark;
  /** The student left the section on this day. */
  readonly withdrawnOn: Day | null;
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
}

export interface ScaleFact {
  readonly name: string;
  readonly bands: readonly Band[];
}

/** All that the audit of one period sees. Rules read it; they never fetch. */
export interface Snapshot {
  readonly periodStartsOn: Day;
  readonly periodEndsOn: Day;
  readonly codes: ReadonlyMap<string, SpecialCode>;
  readonly grades: readonly GradeFact[];
}
