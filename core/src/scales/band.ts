import type { GradePoints, Percent } from '#core/numbers';

/**
 * One step of a scale. It holds from its lowest value up to, not including, the next band's lowest value: the highest
 * value of a band is derived, never stored.
 */
export interface Band {
  readonly label: string;
  readonly lowest: Percent;
  /** Grade points, or null where the label carries none. */
  readonly points: GradePoints | null;
  readonly passes: boolean;
  readonly earnsCredit: boolean;
  /** What families read, such as "Excellent". */
  readonly descriptor: string;
}
