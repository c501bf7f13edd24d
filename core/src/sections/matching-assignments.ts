import { foldCell } from '#core/cell-tables';

/** An assignment of a grade book, as far as it tells whether another section has the same one. */
export interface ComparedAssignment {
  readonly id: number;
  readonly name: string;
  readonly periodId: number;
  /** Decimal text; two are the same where their values are. */
  readonly points: string;
}

export interface MatchedAssignments {
  /** Which of ours is which of theirs. */
  readonly pairs: readonly (readonly [ours: number, theirs: number])[];
  /** Ours that the other section does not have, or has twice. */
  readonly without: readonly ComparedAssignment[];
}

/**
 * Which assignments two sections have in common: one of one name, in one period, out of as many points. Where a section has two
 * of these, none is guessed.
 * @example matchingAssignments([{ id: 1, name: 'Splice', periodId: 4, points: '20' }], [{ id: 9, name: 'splice ', periodId: 4, points: '20.00' }]).pairs // [[1, 9]]
 */
export function matchingAssignments(
  ours: readonly ComparedAssignment[],
  theirs: readonly ComparedAssignment[],
): MatchedAssignments {
  const pairs: [number, number][] = [];
  const without: ComparedAssignment[] = [];
  for (const one of ours) {
    const [same, ...more] = theirs.filter((other) => keyOf(other) === keyOf(one));
    const isOnlyOne = ours.filter((other) => keyOf(other) === keyOf(one)).length === 1;
    if (same && more.length === 0 && isOnlyOne) pairs.push([one.id, same.id]);
    else without.push(one);
  }
  return { pairs, without };
}

const keyOf = ({ name, periodId, points }: ComparedAssignment) => `${periodId} ${Number(points)} ${foldCell(name)}`;
