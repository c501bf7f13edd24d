import type { Day } from '#core/calendar';
import type { Hours, Percent } from '#core/numbers';

/** What is posted for one student: a percent with its label, a label alone, or a code. All empty means not posted. */
export interface Mark {
  readonly percent: Percent | null;
  readonly label: string | null;
  readonly code: string | null;
  /** Last date of attendance. */
  readonly lastDate: Day | null;
  /** Hours attended, where the item asks for them. */
  readonly hours: Hours | null;
  readonly comment: string;
  /** The comment is for the school alone: families do not see it. */
  readonly isInternal: boolean;
  /** Why it differs from what is computed; empty where it does not, or nobody said. */
  readonly overrideReason: string;
}

export const noMark: Mark = {
  percent: null,
  label: null,
  code: null,
  lastDate: null,
  hours: null,
  comment: '',
  isInternal: false,
  overrideReason: '',
};

/** Whether nothing that counts as a grade is posted; a comment or a date alone is no grade. */
export function isBlank(mark: Mark): boolean {
  return mark.percent === null && mark.label === null && mark.code === null;
}
