export { compareDecimals, decimalOrThrow, formatDecimal, parseDecimal, unitsAt, type Decimal } from './decimal.js';
export { IntegerColumns, readIntegers } from './integer-columns.js';
export { formatAtLeast } from './format-at-least.js';
export { add, compareRationals, divide, fromDecimal, multiply, rational, zero, type Rational } from './rational.js';
export {
  roundDown,
  roundHalfEven,
  roundHalfUp,
  roundings,
  roundSticky,
  type Rounding,
  type RoundingName,
} from './rounding.js';
export { sumOfDecimals } from './sum-of-decimals.js';
export { roundTo } from './round-to.js';
export type { Credits, GradePoints, Hours, Percent } from './units.js';
