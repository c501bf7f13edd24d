import { decimalOrThrow, formatDecimal } from '#core/numbers';
import type { SpecialCode } from '#core/codes';
import type { CodeBody } from './code-messages.js';

/** A code as it crosses the wire and stands in the log. */
export function bodyOfCode({ countsAs, ...code }: SpecialCode): CodeBody {
  return { ...code, countsAs: countsAs && formatDecimal(countsAs) };
}

export function codeOfBody({ countsAs, ...code }: CodeBody): SpecialCode {
  return { ...code, countsAs: countsAs === null ? null : decimalOrThrow(countsAs) };
}
