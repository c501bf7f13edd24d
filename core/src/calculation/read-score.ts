import { compareDecimals, parseDecimal, type Decimal } from '#core/numbers';
import { scoreFlags, type ScoreFlag } from './policy.js';

export interface ReadScore {
  readonly points: Decimal | null;
  readonly flag: ScoreFlag | null;
}

export type ScoreFaultCode = 'score-unreadable' | 'score-negative' | 'score-digits' | 'score-above';

export type ScoreEntry =
  | { readonly kind: 'score'; readonly score: ReadScore }
  | { readonly kind: 'fault'; readonly code: ScoreFaultCode };

/**
 * Reads what is typed or pasted into a grade book: points with a point or a comma, the first letters of a flag, or both,
 * as in "18 late". Empty takes the score away. Points stay within what the assignment is out of, unless it only adds.
 * @example readScore('8,5', { possible: 10, isExtra: false }) // 8.5 points, no flag
 */
export function readScore(
  text: string,
  { possible, isExtra }: { readonly possible: Decimal; readonly isExtra: boolean },
): ScoreEntry {
  const match = /^([+-]?[\d.,]*)\s*([a-z ]*)$/i.exec(text.trim());
  if (!match) return { kind: 'fault', code: 'score-unreadable' };
  const [number, letters] = [match[1]!.replace(',', '.'), match[2]!.trim().toLowerCase()];
  // no two flags begin with the same letter
  const flag = letters === '' ? null : scoreFlags.find((each) => each.startsWith(letters));
  if (flag === undefined) return { kind: 'fault', code: 'score-unreadable' };
  if (number === '') return { kind: 'score', score: { points: null, flag } };
  const points = parseDecimal(number);
  if (!points) return { kind: 'fault', code: 'score-unreadable' };
  if (points.units < 0n) return { kind: 'fault', code: 'score-negative' };
  if (points.digits > 2) return { kind: 'fault', code: 'score-digits' };
  const onlyAdds = isExtra || possible.units === 0n;
  if (!onlyAdds && compareDecimals(points, possible) > 0) return { kind: 'fault', code: 'score-above' };
  return { kind: 'score', score: { points, flag } };
}
