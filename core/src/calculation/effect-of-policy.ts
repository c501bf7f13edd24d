import { roundings, type Percent } from '#core/numbers';
import { findBand, type Band } from '#core/scales';
import type { CalculatedColumns, GradePrecision } from './calculate-grades.js';

/** A student whose percent another policy would change. */
export interface ChangedGrade {
  /** The position in the columns. */
  readonly student: number;
  readonly before: Percent | null;
  readonly after: Percent | null;
  readonly from: string | null;
  readonly to: string | null;
}

export interface PolicyEffect {
  /** Students with a percent before or after. */
  readonly grades: number;
  /** Percents that would change; of those how many rise, the others fall or go; and how many change their label. */
  readonly changed: number;
  readonly rise: number;
  readonly fall: number;
  readonly moved: number;
  readonly passAnew: number;
  readonly failAnew: number;
  /** How many grades go from one label to another, those that stay included; null for no label. */
  readonly moves: readonly { readonly from: string | null; readonly to: string | null; readonly grades: number }[];
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
  const bandAt = bandFinder(precision);
  const counts = { grades: 0, changed: 0, rise: 0, fall: 0, moved: 0, passAnew: 0, failAnew: 0 };
  const moves = new Map<string, { from: string | null; to: string | null; grades: number }>();
  const changedGrades: ChangedGrade[] = [];
  for (const [student, bands] of bandsOf.entries()) {
    const [was, will] = [before.percent[student]!, after.percent[student]!];
    if (!bands || (was < 0 && will < 0)) continue;
    counts.grades++;
    const [old, next] = [bandAt(bands, was), bandAt(bands, will)];
    const [from, to] = [old?.label ?? null, next?.label ?? null];
    const move = moves.get(`${from}\t${to}`) ?? { from, to, grades: 0 };
    move.grades++;
    moves.set(`${from}\t${to}`, move);
    if (was === will) continue;
    counts.changed++;
    if (will > was) counts.rise++;
    else counts.fall++;
    if (from !== to) counts.moved++;
    if (next?.passes && old && !old.passes) counts.passAnew++;
    if (old?.passes && next && !next.passes) counts.failAnew++;
    changedGrades.push({ student, before: percentOf(was, precision), after: percentOf(will, precision), from, to });
  }
  return { ...counts, moves: [...moves.values()], changedGrades };
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
