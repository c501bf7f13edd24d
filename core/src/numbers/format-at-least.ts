import { formatDecimal, type Decimal } from './decimal.js';

/**
 * The decimal without its last zeros, but with at least `digits` digits after the point. Nothing is rounded.
 * @example formatAtLeast(decimalOrThrow('93.00'), 1) // "93.0"
 */
export function formatAtLeast(value: Decimal, digits: number): string {
  let { units, digits: has } = value;
  while (has > digits && units % 10n === 0n) [units, has] = [units / 10n, has - 1];
  while (has < digits) [units, has] = [units * 10n, has + 1];
  return formatDecimal({ units, digits: has });
}
