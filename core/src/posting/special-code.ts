/** A posted value that is no ordinary label, with its effects as data. */
export interface SpecialCode {
  /** As posted, such as INC. */
  readonly code: string;
  readonly meaning: string;
  readonly forbidsPercent: boolean;
  readonly needsLastDate: boolean;
  /** Whether the course's credits count as tried. */
  readonly triesCredit: boolean;
  readonly onTranscript: boolean;
}
