import { parseDecimal, type Hours } from '#core/numbers';

/**
 * Hours attended as people type them: "42", "42.5", "42,5", "0". Nothing typed is null; a word, a negative number, more
 * than 9,999 or more than two decimals is undefined.
 */
export function readHours(text: string): Hours | null | undefined {
  const typed = text.trim();
  if (typed === '') return null;
  const value = parseDecimal(typed.replace(/^(\d+),(\d+)$/, '$1.$2'));
  if (!value || value.units < 0n || value.digits > 2) return undefined;
  return value.units <= 9999n * 10n ** BigInt(value.digits) ? value : undefined;
}
