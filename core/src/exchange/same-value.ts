import { compareDecimals, parseDecimal } from '#core/numbers';
import { fieldOf, type ExchangeFile } from './exchange-format.js';

/**
 * Whether two values of a field say the same: numbers however many digits they are written with, days with or without a time
 * behind, yes and no in any case. Everything else, such as a student's number, is the same only to the letter.
 */
export function sameValue(file: ExchangeFile, field: string, one: string, other: string): boolean {
  if (one === other) return true;
  switch (fieldOf(file, field)?.kind.is) {
    case 'number':
    case 'points':
    case 'credits': {
      const [number, otherNumber] = [parseDecimal(one), parseDecimal(other)];
      return number !== undefined && otherNumber !== undefined && compareDecimals(number, otherNumber) === 0;
    }
    case 'day':
      return one.slice(0, 10) === other.slice(0, 10);
    case 'yesNo':
      return one.toLowerCase() === other.toLowerCase();
    default:
      return false;
  }
}
