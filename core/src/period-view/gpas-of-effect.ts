import { rational, roundTo, unitsAt, type Credits, type Decimal } from '#core/numbers';
import { countRepeats, type GpaPolicy, type TranscriptEntry } from '#core/transcripts';
import type { ScaleEffect, StudentEffect } from './effect-of-scales.js';
import type { GradeColumns } from './grade-columns.js';
import type { LabelTables } from './label-tables.js';

/** How the GPAs of an effect are made: as those of transcripts, whose additions stand in the columns. */
export interface EffectGpaPolicy extends Omit<GpaPolicy, 'additions'> {
  /** The most credits a course gives when repeated, by its number; a course without a limit is not there. */
  readonly mostCredits: ReadonlyMap<number, Credits>;
}

/** The number of each grade's label, now and then. */
interface Labels {
  readonly from: Int16Array;
  readonly to: Int16Array;
}

type When = 'before' | 'after';

/**
 * The GPA of every student now and then, in whole numbers: the same sums as `gpa` makes of transcript lines, for a hundred
 * thousand grades.
 */
export function gpasOfEffect(
  columns: GradeColumns,
  tables: readonly LabelTables[],
  { from, to }: Labels,
  policy: EffectGpaPolicy,
  concerned: ReadonlySet<number>,
): Pick<ScaleEffect, 'students' | 'meanBefore' | 'meanAfter'> {
  const least = Number(unitsAt(policy.leastAddedPoints, 2));
  /** Points and the addition of a grade, in hundredths; undefined where it carries no points. */
  const graded = (row: number, when: When): Graded | undefined => {
    if (!columns.counts[row] || !columns.credits[row]) return undefined;
    const code = columns.codePoints[row]!;
    const table = tables[columns.change[row]!]!;
    const label = (when === 'before' ? from : to)[row]!;
    const points = code >= 0 ? code : when === 'before' ? table.pointsBefore(label) : table.pointsAfter(label);
    if (points < 0) return undefined;
    const passes = code < 0 && (when === 'before' ? table.passesBefore(label) : table.passesAfter(label));
    const addition = passes && points >= least ? columns.addition[row]! : 0;
    return { row, points, addition, credits: columns.credits[row] };
  };
  const students: StudentEffect[] = [];
  const sums = { before: 0n, after: 0n, countBefore: 0n, countAfter: 0n };
  for (const [student, rows] of rowsByStudent(columns).entries()) {
    const of = (when: When) => {
      const grades: Graded[] = [];
      for (const row of rows) {
        const grade = graded(row, when);
        if (grade) grades.push(grade);
      }
      return gpaOf(grades, columns, policy);
    };
    const before = of('before');
    const after = rows.some((row) => from[row] !== to[row] || !tables[columns.change[row]!]!.keepsPoints)
      ? of('after')
      : before;
    if (before) [sums.before, sums.countBefore] = [sums.before + before.units, sums.countBefore + 1n];
    if (after) [sums.after, sums.countAfter] = [sums.after + after.units, sums.countAfter + 1n];
    if (concerned.has(student)) students.push({ student, gpaBefore: before, gpaAfter: after });
  }
  const mean = (units: bigint, count: bigint) =>
    count === 0n ? null : roundTo(rational(units, count * 10n ** BigInt(policy.digits)), 3, policy.rounding);
  return {
    students,
    meanBefore: mean(sums.before, sums.countBefore),
    meanAfter: mean(sums.after, sums.countAfter),
  };
}

/** A grade as it goes into a GPA; points in hundredths, credits in ten-thousandths. */
interface Graded {
  readonly row: number;
  readonly points: number;
  readonly addition: number;
  readonly credits: number;
}

function gpaOf(grades: readonly Graded[], columns: GradeColumns, policy: EffectGpaPolicy): Decimal | null {
  const counted = policy.repeats === 'all' ? grades : withoutReplaced(grades, columns, policy);
  let [products, credits, additions] = [0, 0, 0];
  for (const grade of counted) {
    products += grade.points * grade.credits;
    credits += grade.credits;
    additions += grade.addition * grade.credits;
  }
  if (credits === 0) return null;
  products += policy.mostAddedCredits === null ? additions : limitedAdditions(counted, policy.mostAddedCredits);
  const numerator = BigInt(products) * 10n ** BigInt(policy.digits);
  return { units: policy.rounding({ numerator, denominator: BigInt(credits) * 100n }), digits: policy.digits };
}

/** Additions times credits, the largest ones first, until the credits that they may be added to are used up. */
function limitedAdditions(grades: readonly Graded[], mostCredits: Credits): number {
  let [sum, left] = [0, Number(unitsAt(mostCredits, 4))];
  for (const { addition, credits } of grades.toSorted((a, b) => b.addition - a.addition)) {
    const own = Math.min(credits, left);
    sum += addition * own;
    left -= own;
  }
  return sum;
}

/** Where courses limit what they give when repeated, the rule itself says what counts of each grade. */
function withoutReplaced(grades: readonly Graded[], columns: GradeColumns, policy: EffectGpaPolicy): readonly Graded[] {
  if (policy.mostCredits.size === 0) return grades;
  const courseOf = ({ row }: Graded) => columns.course[row]!;
  if (!grades.some((grade) => policy.mostCredits.has(courseOf(grade)))) return grades;
  const entries = grades.map((grade): TranscriptEntry => ({
    courseCode: String(courseOf(grade)),
    courseTitle: '',
    level: 'regular',
    percent: null,
    mark: '',
    points: { units: BigInt(grade.points), digits: 2 },
    passes: true,
    creditsTried: { units: BigInt(grade.credits), digits: 4 },
    creditsEarned: { units: 0n, digits: 4 },
    countsInGpa: true,
    attempt: columns.attempt[grade.row]!,
    mostCredits: policy.mostCredits.get(courseOf(grade)) ?? null,
  }));
  return countRepeats(entries, policy.repeats).map(({ attempted }, at) => ({
    ...grades[at]!,
    credits: Number(unitsAt(attempted, 4)),
  }));
}

/** The rows of each student, by the student's place: a part of one list for each, sorted by counting. */
function rowsByStudent({ student }: GradeColumns): Int32Array[] {
  const starts: number[] = [];
  for (let row = 0; row < student.length; row++) starts[student[row]!] = (starts[student[row]!] ?? 0) + 1;
  let end = 0;
  for (let place = 0; place < starts.length; place++) {
    end += starts[place] ?? 0;
    starts[place] = end;
  }
  const all = new Int32Array(student.length);
  for (let row = student.length - 1; row >= 0; row--) all[--starts[student[row]!]!] = row;
  return starts.map((start, place) => all.subarray(start, starts[place + 1] ?? end));
}
