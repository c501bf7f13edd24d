import { roundings, roundTo, type Rational, type RoundingName } from '#core/numbers';
import type { BookColumns } from './book-columns.js';
import { exactPercent } from './exact-percent.js';
import { noSlot, type PreparedPolicy } from './prepare-policy.js';
import { StudentSums } from './student-sums.js';
import { treatments } from './treat-score.js';

/** How a percent is rounded: as the report item says. */
export interface GradePrecision {
  readonly digits: number;
  readonly rounding: RoundingName;
}

/** What the calculation found for each student. */
export interface CalculatedColumns {
  /** The rounded percent in units of its last digit, a whole number of any size; -1 where there is none. */
  readonly percent: Float64Array;
  /** 0 for a percent, 1 without evidence, 2 blocked. */
  readonly state: Uint8Array;
}

/** Nearer than this to where rounding turns, in units of the last digit, a quotient is worked out exactly. */
const guard = 1e-6;

/**
 * The rounded percents of many students. Quotients are taken in binary fractions, whose error lies far below the guard;
 * those within the guard of an edge of rounding are worked out exactly, so that every result is the exact one, rounded.
 * @param policyOf by student: the position of the policy
 */
export function calculateGrades(
  columns: BookColumns,
  policies: readonly PreparedPolicy[],
  policyOf: ArrayLike<number>,
  precision: GradePrecision,
): CalculatedColumns {
  const students = columns.starts.length - 1;
  const percent = new Float64Array(students).fill(-1);
  const state = new Uint8Array(students);
  const sums = new StudentSums(columns);
  const scale = 10 ** precision.digits;
  for (let student = 0; student < students; student++) {
    const prepared = policies[policyOf[student]!]!;
    if (prepared.isOfSums) sums.addPoints(student, prepared);
    else sums.fill(student, prepared);
    const quick = prepared.isOfEvidence ? 0 : quickPercent(sums, columns, student, prepared) * scale;
    const value = isNearEdge(quick)
      ? roundExact(exactOf(sums, columns, student, prepared), precision)
      : roundOff(quick, precision);
    if (sums.isBlocked || Number.isNaN(value)) state[student] = sums.isBlocked ? 2 : 1;
    else percent[student] = value;
  }
  return { percent, state };
}

/** From all that is known of the scores, where so far only their points were added up. */
function exactOf(sums: StudentSums, columns: BookColumns, student: number, prepared: PreparedPolicy) {
  if (prepared.isOfSums) sums.fill(student, prepared);
  return exactPercent(sums, columns, student, prepared);
}

const extraOnly = treatments.indexOf('extra');

/** The percent in binary fractions; NaN without evidence. */
function quickPercent(sums: StudentSums, columns: BookColumns, student: number, prepared: PreparedPolicy): number {
  const value = prepared.isTotal ? quickTotal(sums, prepared) : quickWeighted(sums, columns, student, prepared);
  return value * 100 > prepared.cap ? prepared.cap / 100 : value;
}

function quickTotal({ earned, extra, possible }: StudentSums, { caps, weights }: PreparedPolicy): number {
  let [sum, outOf] = [earned[noSlot]! + extra[noSlot]!, possible[noSlot]!];
  for (let slot = 0; slot < weights.length; slot++) {
    const own = earned[slot]! + extra[slot]!;
    sum += caps[slot] === Infinity ? own : Math.min(own, (caps[slot]! / 10_000) * possible[slot]!);
    outOf += possible[slot]!;
  }
  return outOf === 0 ? NaN : (sum / outOf) * 100;
}

function quickWeighted(
  sums: StudentSums,
  columns: BookColumns,
  student: number,
  { weights, caps, isEqual }: PreparedPolicy,
): number {
  const { earned, extra, possible } = sums;
  let sum = 0;
  let total = 0;
  for (let slot = 0; slot < weights.length; slot++) {
    const weight = weights[slot]!;
    if (possible[slot] === 0 || weight === 0) continue;
    const share = isEqual ? equalShare(sums, columns, student, slot) : (earned[slot]! + extra[slot]!) / possible[slot]!;
    const cap = caps[slot]!;
    sum += weight * (share * 10_000 > cap ? cap / 10_000 : share);
    total += weight;
  }
  return total === 0 ? NaN : (sum / total) * 100;
}

function equalShare(sums: StudentSums, columns: BookColumns, student: number, slot: number): number {
  const from = columns.starts[student]!;
  let sum = sums.extra[slot]! / 10_000;
  for (let score = from; score < columns.starts[student + 1]!; score++) {
    const at = columns.assignment[score]!;
    const isPart =
      sums.treatment[score - from]! < extraOnly && !sums.dropped[score - from] && columns.slot[at] === slot;
    // what counts as zero adds nothing
    if (isPart && sums.treatment[score - from] === 0) sum += columns.points[score]! / columns.possible[at]!;
  }
  return sum / sums.count[slot]!;
}

/** Whether a value counted in units of the last digit is so near to where rounding turns that only the exact one can tell. */
function isNearEdge(value: number): boolean {
  const rest = value - Math.floor(value);
  return rest < guard || rest > 1 - guard || Math.abs(rest - 0.5) < guard;
}

/** Rounds a value that is not near an edge. NaN stays. */
function roundOff(value: number, { rounding }: GradePrecision): number {
  const floor = Math.floor(value);
  return rounding === 'down' || value - floor < 0.5 ? floor : floor + 1;
}

function roundExact(value: Rational | undefined, { digits, rounding }: GradePrecision): number {
  return value ? Number(roundTo(value, digits, roundings[rounding]).units) : NaN;
}
