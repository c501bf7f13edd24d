/** An exact decimal, `units` × 10^-`digits`: 86.40 is { units: 8640n, digits: 2 }. */
export interface Decimal {
  readonly units: bigint;
  /** Digits after the point, 0 or more. */
  readonly digits: number;
}

/**
 * Reads plain decimal notation: an optional sign, digits, at most one point. No exponent, no grouping, no spaces
 * inside; at most 15 digits on either side of the point. Anything else is undefined.
 * @example parseDecimal('86.40') // { units: 8640n, digits: 2 }
 */
export function parseDecimal(text: string): Decimal | undefined {
  const match = /^([+-]?)(\d{1,15})(?:\.(\d{0,15}))?$/.exec(text.trim());
  if (!match) return undefined;
  const fraction = match[3] ?? '';
  const size = BigInt(match[2]! + fraction);
  return { units: match[1] === '-' ? -size : size, digits: fraction.length };
}

/**
 * A decimal known to be written correctly, such as a constant or a value out of a numeric column.
 * @throws RangeError when the text is no plain decimal
 */
export function decimalOrThrow(text: string): Decimal {
  const value = parseDecimal(text);
  if (!value) throw new RangeError(`"${text}" is not a plain decimal number`);
  return value;
}

/** The decimal as written, with all its digits: { units: 8640n, digits: 2 } is "86.40". */
export function formatDecimal(value: Decimal): string {
  const sign = value.units < 0n ? '-' : '';
  const size = (value.units < 0n ? -value.units : value.units).toString().padStart(value.digits + 1, '0');
  const whole = size.slice(0, size.length - value.digits);
  return value.digits === 0 ? sign + whole : `${sign}${whole}.${size.slice(size.length - value.digits)}`;
}

/** Below 0 when `a` is less than `b`, 0 when they are equal in value (86.4 and 86.40 are), above 0 otherwise. */
export function compareDecimals(a: Decimal, b: Decimal): number {
  const digits = Math.max(a.digits, b.digits);
  const difference = unitsAt(a, digits) - unitsAt(b, digits);
  return difference < 0n ? -1 : difference > 0n ? 1 : 0;
}

/** The value counted in units of 10^-`digits`, exact; `digits` must not be fewer than the value has. */
export function unitsAt(value: Decimal, digits: number): bigint {
  if (digits === value.digits) return value.units;
  if (digits < value.digits) throw new RangeError(`${formatDecimal(value)} does not fit in ${digits} digits`);
  return value.units * 10n ** BigInt(digits - value.digits);
}
