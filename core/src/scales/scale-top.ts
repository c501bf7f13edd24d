import { decimalOrThrow, type Decimal } from '#core/numbers';

const hundred = decimalOrThrow('100');

/** The value that a scale runs up to: its highest level, or 100 where it takes percents. */
export function topOf(highestLevel: Decimal | null): Decimal {
  return highestLevel ?? hundred;
}
