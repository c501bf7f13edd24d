import type { BookScore, CalculationPolicy } from '#core/calculation';
import { decimalOrThrow, formatAtLeast, type Decimal } from '#core/numbers';
import type { AssignmentReply, ScoreReply } from './book-messages.js';
import type { PolicyBody } from './policy-messages.js';

/** @throws RangeError when a number is none, as validation lets none through */
export function policyOfBody({ categories, cap, newestShare, levels, ...policy }: PolicyBody): CalculationPolicy {
  return {
    ...policy,
    categories: categories.map((share) => ({
      ...share,
      weight: decimalOrThrow(share.weight),
      cap: decimalOrNull(share.cap),
    })),
    cap: decimalOrNull(cap),
    newestShare: decimalOrThrow(newestShare),
    levels: levels && {
      evidence: levels.evidence,
      most: decimalOrThrow(levels.most),
      meets: decimalOrThrow(levels.meets),
      exceeds: decimalOrThrow(levels.exceeds),
    },
  };
}

/** A policy as it crosses the wire and is kept. */
export function bodyOfPolicy({ categories, cap, newestShare, levels, ...policy }: CalculationPolicy): PolicyBody {
  return {
    ...policy,
    categories: categories.map((share) => ({
      ...share,
      weight: formatAtLeast(share.weight, 0),
      cap: share.cap && formatAtLeast(share.cap, 0),
    })),
    cap: cap && formatAtLeast(cap, 0),
    newestShare: formatAtLeast(newestShare, 0),
    levels: levels && {
      evidence: levels.evidence,
      most: formatAtLeast(levels.most, 0),
      meets: formatAtLeast(levels.meets, 0),
      exceeds: formatAtLeast(levels.exceeds, 0),
    },
  };
}

/** A score of a book as the calculation reads it; a place without a score has none yet. */
export function bookScore(
  assignment: AssignmentReply,
  score: Pick<ScoreReply, 'points' | 'flag'> | undefined,
): BookScore {
  return {
    assignmentId: assignment.id,
    categoryId: assignment.categoryId,
    points: decimalOrNull(score?.points ?? null),
    flag: score?.flag ?? null,
    possible: decimalOrThrow(assignment.possible),
    isExtra: assignment.isExtra,
    isCounted: assignment.isCounted,
  };
}

function decimalOrNull(text: string | null): Decimal | null {
  return text === null ? null : decimalOrThrow(text);
}

/** The place of a score in a grade book, as one text. */
export function scoreKey(place: { readonly assignmentId: number; readonly enrollmentId: number }): string {
  return `${place.assignmentId}/${place.enrollmentId}`;
}
