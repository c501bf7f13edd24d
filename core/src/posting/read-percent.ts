import { compareDecimals, decimalOrThrow, parseDecimal, type Decimal, type Percent } from '#core/numbers';

export type ReadPercent =
  | { readonly kind: 'percent'; readonly percent: Percent }
  | { readonly kind: 'blank' }
  | { readonly kind: 'fault'; readonly code: PercentFault };

export type PercentFault =
  | 'percent-unreadable'
  | 'percent-negative'
  | 'percent-too-high'
  | 'level-too-high'
  | 'percent-too-exact';

/** Extra credit may pass 100; what is above this is a slip of the keyboard, whatever an item takes. */
export const mostPercent: Percent = decimalOrThrow('200');

/** How high a posted value may be: a level at most the one at the top of the scale, a percent at most what the item takes. */
export interface HighestValues {
  /** Null where percents are taken. */
  readonly highestLevel: Decimal | null;
  readonly highestPercent: Percent;
}

/** Digits a posted percent may have after the point. */
const percentDigits = 2;

/**
 * Reads a percent as people type it: "86.4", "86,4", "86.4 %". Zeros beyond two digits are let go; other digits beyond
 * two are a fault, as nothing is rounded unasked. Where a scale has levels, what is read is a level.
 */
export function readPercent(text: string, highest: HighestValues): ReadPercent {
  const value = readPercentText(text);
  if (value === 'blank') return { kind: 'blank' };
  if (value === undefined) return { kind: 'fault', code: 'percent-unreadable' };
  const fault = judgePercent(value, highest);
  if (fault) return { kind: 'fault', code: fault };
  const extra = 10n ** BigInt(Math.max(0, value.digits - percentDigits));
  if (value.units % extra !== 0n) return { kind: 'fault', code: 'percent-too-exact' };
  return { kind: 'percent', percent: { units: value.units / extra, digits: Math.min(value.digits, percentDigits) } };
}

/** The number in a percent's text, with a point or a comma, with or without the sign for percent. */
export function readPercentText(text: string): Decimal | 'blank' | undefined {
  const bare = text.trim().replace(/\s*%$/, '');
  return bare === '' ? 'blank' : parseDecimal(bare.replace(/^([+-]?\d+),(\d+)$/, '$1.$2'));
}

/** Why a number cannot be a percent, or a level of a scale, or undefined when it can. */
export function judgePercent(
  value: Decimal,
  { highestLevel, highestPercent }: HighestValues,
): 'percent-negative' | 'percent-too-high' | 'level-too-high' | undefined {
  if (value.units < 0n) return 'percent-negative';
  if (highestLevel) return compareDecimals(value, highestLevel) > 0 ? 'level-too-high' : undefined;
  return compareDecimals(value, highestPercent) > 0 ? 'percent-too-high' : undefined;
}
