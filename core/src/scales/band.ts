import type { GradePoints, Percent } from '#core/numbers';

/**
 * One step of a scale. It applies from its lowest value up to, not including, the next band's lowest value: the highest
 * value of a band is derived, never stored.
 */
export interface Band {
  readonly label: string;
  /** Null for a label of a level or choice scale that is only picked by hand. */
  readonly lowest: Percent | null;
  /** Grade points, or null where the label carries none. */
  readonly points: GradePoints | null;
  readonly passes: boolean;
  readonly earnsCredit: boolean;
  /** What families read, such as "Excellent". */
  readonly descriptor: string;
  /** A band that is switched off stays in the scale, but no value finds it and nobody can post it. */
  readonly isOff: boolean;
}

/** A band that values find by its cut-off. */
export type CutBand<B extends { readonly lowest: Percent | null } = Band> = B & { readonly lowest: Percent };

/** The bands that values can find: those with a cut-off that are not switched off, in the order given. */
export function cutBands<B extends { readonly lowest: Percent | null; readonly isOff?: boolean }>(
  bands: readonly B[],
): CutBand<B>[] {
  return bands.filter((band): band is CutBand<B> => band.lowest !== null && !band.isOff);
}
