import type { Percent } from '#core/numbers';

/**
 * What a code does to a composite that has it as a part: `leaves` takes the part out and lets the rest stand for the
 * whole; `blocks` leaves the composite without a value and gives it the code; `counts` counts the part as a stated
 * percent; `missing` is no grade at all.
 */
export const codeParts = ['leaves', 'blocks', 'counts', 'missing'] as const;
export type CodePart = (typeof codeParts)[number];

/** A posted value that is no ordinary label, with its effects as data. */
export interface SpecialCode {
  /** As posted, such as INC. */
  readonly code: string;
  readonly meaning: string;
  /** A code that is switched off cannot be posted any more; what is posted with it stays. */
  readonly isOff: boolean;
  readonly asPart: CodePart;
  /** The percent it counts as in a composite; set exactly where `asPart` is "counts". */
  readonly countsAs: Percent | null;
  /** Counts as a failing grade: no pass, and 0 grade points where it is in the GPA. */
  readonly isFailing: boolean;
  readonly forbidsPercent: boolean;
  readonly needsLastDate: boolean;
  /** The last date must be the first day of the period, with no hours, as for somebody who never attended. */
  readonly needsFirstDay: boolean;
  /** Turns into this label or code so many days after the end of the period; both set or both null. */
  readonly lapsesInto: string | null;
  readonly lapsesAfterDays: number | null;
  /** Whether the course's credits count as tried. */
  readonly triesCredit: boolean;
  readonly earnsCredit: boolean;
  readonly countsInGpa: boolean;
  readonly onTranscript: boolean;
}
