import { divide, fromDecimal, multiply, parseDecimal, roundSticky, roundTo, type Decimal } from '#core/numbers';
import { exportedDigits } from '#core/files';

/**
 * Points out of something brought to what they would be out of something else: 179 of 200 is 89.5 of 100. Kept to ten
 * digits in such a way that rounding it again gives what rounding the exact value gives. Undefined where a text is no
 * number, or nothing is what they are out of.
 */
export function bringTo(points: string, outOf: string | null, other: Decimal): Decimal | undefined {
  const [earned, most] = [parseDecimal(points), outOf === null ? undefined : parseDecimal(outOf)];
  if (!earned || !most || most.units <= 0n) return undefined;
  const share = divide(fromDecimal(earned), fromDecimal(most));
  return roundTo(multiply(share, fromDecimal(other)), exportedDigits, roundSticky);
}
