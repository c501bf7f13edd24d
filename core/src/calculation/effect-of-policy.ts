import { roundings, type Percent } from '#core/numbers';
import { findBand, type Band } from '#core/scales';
import type { CalculatedColumns, GradePrecision } from './calculate-grades.js';
import { effectOfValues, type ChangedValue, type ComparedGrade, type ValueEffect } from './effect-of-values.js';

/** A student whose percent another policy would change. */
export interface ChangedGrade extends ChangedValue {
  readonly before: Percent | null;
  readonly after: Percent | null;
}

export interface PolicyEffect extends ValueEffect {
  readonly changedGrades: readonly ChangedGrade[];
}

/**
 * What the same books come to under two policies, compared.
 * @param bandsOf by student: the bands of the scale in force, empty where none is, undefined for whom the item is not reported
 */
export function effectOfPolicy(
  before: Pick<CalculatedColumns, 'percent'>,
  after: Pick<CalculatedColumns, 'percent'>,
  bandsOf: readonly (readonly Band[] | undefined)[],
  precision: GradePrecision,
): PolicyEffect {
  const { effect, changed } = effectOfValues(comparedGrades(before.percent, after.percent, bandsOf, precision));
  return {
    ...effect,
    changedGrades: changed.map((each) => ({
      ...each,
      before: percentOf(before.percent[each.student]!, precision),
      after: percentOf(after.percent[each.student]!, precision),
    })),
  };
}

function* comparedGrades(
  before: Float64Array,
  after: Float64Array,
  bandsOf: readonly (readonly Band[] | undefined)[],
  precision: GradePrecision,
): Generator<ComparedGrade | undefined> {
  const bandAt = bandFinder(precision);
  for (const [student, bands] of bandsOf.entries()) {
    const [was, will] = [before[student]!, after[student]!];
    yield bands && { was, will, old: bandAt(bands, was), next: bandAt(bands, will) };
  }
}

/** Finds bands by rounded percents, each only once. */
function bandFinder({ digits, rounding }: GradePrecision) {
  const found = new Map<readonly Band[], Map<number, Band | undefined>>();
  const precision = { digits, rounding: roundings[rounding] };
  return (bands: readonly Band[], units: number): Band | undefined => {
    if (units < 0) return undefined;
    const known = found.get(bands) ?? new Map<number, Band | undefined>();
    found.set(bands, known);
    if (!known.has(units)) known.set(units, findBand(bands, { units: BigInt(units), digits }, precision).band);
    return known.get(units);
  };
}

function percentOf(units: number, { digits }: GradePrecision): Percent | null {
  return units < 0 ? null : { units: BigInt(units), digits };
}
