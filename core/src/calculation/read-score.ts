import { compareDecimals, decimalOrThrow, parseDecimal, type Decimal } from '#core/numbers';
import { scoreFlags, type ScoreFlag } from './policy.js';

export interface ReadScore {
  readonly points: Decimal | null;
  readonly flag: ScoreFlag | null;
}

/** The most points that a score or an assignment can have. */
export const mostPoints = decimalOrThrow('9999.99');

export type ScoreFaultCode =
  | 'score-unreadable'
  | 'score-negative'
  | 'score-digits'
  | 'score-above'
  /** Beyond `mostPoints`. */
  | 'score-too-high';

/** What an assignment is out of, and whether its points only add. */
export interface PointsLimit {
  readonly possible: Decimal;
  readonly isExtra: boolean;
}

export type ScoreEntry =
  | { readonly kind: 'score'; readonly score: ReadScore }
  | { readonly kind: 'fault'; readonly code: ScoreFaultCode };

/**
 * Reads what is typed or pasted into a grade book: points with a point or a comma, the first letters of a flag, or both,
 * as in "18 late". Empty takes the score away. Points stay within what the assignment is out of, unless it only adds.
 * @example readScore('8,5', { possible: 10, isExtra: false }) // 8.5 points, no flag
 */
export function readScore(text: string, { possible, isExtra }: PointsLimit): ScoreEntry {
  const match = /^([+-]?[\d.,]*)\s*([a-z ]*)$/i.exec(text.trim());
  if (!match) return { kind: 'fault', code: 'score-unreadable' };
  const [number, letters] = [match[1]!.replace(',', '.'), match[2]!.trim().toLowerCase()];
  // no two flags begin with the same letter
  const flag = letters === '' ? null : scoreFlags.find((each) => each.startsWith(letters));
  if (flag === undefined) return { kind: 'fault', code: 'score-unreadable' };
  if (number === '') return { kind: 'score', score: { points: null, flag } };
  const points = parseDecimal(number);
  if (!points) return { kind: 'fault', code: 'score-unreadable' };
  const code = faultOfPoints(points, { possible, isExtra });
  return code ? { kind: 'fault', code } : { kind: 'score', score: { points, flag } };
}

/** Points as another system writes them: digits with a point before the decimals, and nothing else. */
export function readPoints(
  text: string,
  limit: PointsLimit,
): { readonly points: Decimal } | { readonly fault: ScoreFaultCode } {
  const points = parseDecimal(text);
  // A binary fraction written out in full has more decimals than any number here.
  if (!points) return { fault: /^\d+\.\d+$/.test(text.trim()) ? 'score-digits' : 'score-unreadable' };
  const fault = faultOfPoints(points, limit);
  return fault ? { fault } : { points };
}

function faultOfPoints(points: Decimal, { possible, isExtra }: PointsLimit): ScoreFaultCode | undefined {
  if (points.units < 0n) return 'score-negative';
  if (points.digits > 2 && points.units % 10n ** BigInt(points.digits - 2) !== 0n) return 'score-digits';
  if (compareDecimals(points, mostPoints) > 0) return 'score-too-high';
  const onlyAdds = isExtra || possible.units === 0n;
  return !onlyAdds && compareDecimals(points, possible) > 0 ? 'score-above' : undefined;
}
