import { unitsAt, type Decimal } from './decimal.js';

/**
 * The exact sum, with as many digits as the most exact of them has; zero for none.
 * @example sumOfDecimals([decimalOrThrow('12.5'), decimalOrThrow('20')]) // 32.5
 */
export function sumOfDecimals(values: readonly Decimal[]): Decimal {
  const digits = Math.max(0, ...values.map((value) => value.digits));
  return { units: values.reduce((sum, value) => sum + unitsAt(value, digits), 0n), digits };
}
