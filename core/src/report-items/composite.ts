import {
  add,
  divide,
  fromDecimal,
  multiply,
  roundHalfUp,
  zero,
  type Decimal,
  type Percent,
  type Rational,
} from '#core/numbers';
import { isBlank, type Mark } from '#core/posting';
import type { SpecialCode } from '#core/codes';
import { findBand, type Band } from '#core/scales';
import type { PartUnit } from './report-item.js';

/** What a composite finds where it looks for a part. */
export type PartState =
  | { readonly kind: 'value'; readonly value: Decimal }
  | { readonly kind: 'left out'; readonly code: string }
  | { readonly kind: 'blocked'; readonly code: string }
  | { readonly kind: 'missing' };

export interface WeighedPart {
  /** As people call it, such as "Quarter grade, Quarter 1". */
  readonly name: string;
  readonly weight: Decimal;
  readonly state: PartState;
}

/** A part that counted: its weight of all the weights that counted. */
export interface CountedPart {
  readonly name: string;
  readonly value: Decimal;
  readonly weight: Decimal;
  /** Of 100, exact: 40 of the remaining 80 is 50. */
  readonly share: Rational;
}

export type Composite =
  | { readonly kind: 'value'; readonly value: Rational; readonly parts: readonly CountedPart[] }
  /** A part is incomplete, so the composite is. */
  | { readonly kind: 'blocked'; readonly code: string; readonly by: string }
  /** Parts that have no grade yet, by name. */
  | { readonly kind: 'missing'; readonly parts: readonly string[] }
  /** Every part is left out. */
  | { readonly kind: 'exempt'; readonly code: string };

const hundred = fromDecimal({ units: 100n, digits: 0 });

/**
 * The weighted mean of the parts. A part that is left out counts for nothing, and the weights of the others are shared
 * out anew; an incomplete part makes the composite incomplete, whatever else is missing; a missing part leaves it without
 * a value. The value is exact: rounding is the item's, once.
 * @example two quarters of 80 and 90 and an exam of 70 at 40 / 40 / 20 make 82; without the exam 85
 */
export function compositeOf(parts: readonly WeighedPart[]): Composite {
  const blocked = parts.find(({ state }) => state.kind === 'blocked');
  if (blocked?.state.kind === 'blocked') return { kind: 'blocked', code: blocked.state.code, by: blocked.name };
  const missing = parts.filter(({ state }) => state.kind === 'missing').map(({ name }) => name);
  if (missing.length > 0 || parts.length === 0) return { kind: 'missing', parts: missing };
  const counted = parts.flatMap(({ name, weight, state }) =>
    state.kind === 'value' ? [{ name, weight, value: state.value }] : [],
  );
  if (counted.length === 0) {
    const first = parts[0]!.state;
    return { kind: 'exempt', code: first.kind === 'left out' ? first.code : '' };
  }
  const total = counted.map(({ weight }) => fromDecimal(weight)).reduce(add, zero);
  const sum = counted.map(({ value, weight }) => multiply(fromDecimal(value), fromDecimal(weight))).reduce(add, zero);
  const shares = counted.map((part) => ({
    ...part,
    share: divide(multiply(fromDecimal(part.weight), hundred), total),
  }));
  return { kind: 'value', value: divide(sum, total), parts: shares };
}

/** What a posted mark is as a part: by its percent, overrides included, or by the grade points of its label. */
export function partState(
  mark: Mark,
  unit: PartUnit,
  bands: readonly Band[],
  codes: ReadonlyMap<string, SpecialCode>,
): PartState {
  if (isBlank(mark)) return { kind: 'missing' };
  if (mark.code !== null) return codeState(mark.code, unit, codes.get(mark.code), bands);
  const band = bands.find(({ label }) => label === mark.label);
  const value = unit === 'points' ? band?.points : mark.percent;
  return value ? { kind: 'value', value } : { kind: 'missing' };
}

function codeState(name: string, unit: PartUnit, code: SpecialCode | undefined, bands: readonly Band[]): PartState {
  switch (code?.asPart) {
    case 'leaves':
      return { kind: 'left out', code: name };
    case 'blocks':
      return { kind: 'blocked', code: name };
    case 'counts':
      return valueOfCode(code.countsAs!, unit, bands);
    default:
      return { kind: 'missing' };
  }
}

/** A code that counts as a percent counts, by points, as the label that percent has; a scale without points gives none. */
function valueOfCode(countsAs: Percent, unit: PartUnit, bands: readonly Band[]): PartState {
  if (unit === 'percent') return { kind: 'value', value: countsAs };
  const { band } = findBand(bands, countsAs, { digits: countsAs.digits, rounding: roundHalfUp });
  return band?.points ? { kind: 'value', value: band.points } : { kind: 'missing' };
}
