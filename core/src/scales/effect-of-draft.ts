import { rational, roundTo, unitsAt, type Decimal, type Rounding } from '#core/numbers';
import type { Band } from './band.js';
import { bandEdges } from './band-edges.js';
import type { Precision } from './find-band.js';
import type { GradeColumns } from './grade-columns.js';

/** How GPAs are rounded. */
export interface EffectPolicy {
  readonly digits: number;
  readonly rounding: Rounding;
}

export interface LabelMove {
  /** Null where no label is found. */
  readonly from: string | null;
  readonly to: string | null;
  readonly grades: number;
}

export interface StudentEffect {
  /** As in the columns. */
  readonly student: number;
  readonly gpaBefore: Decimal | null;
  readonly gpaAfter: Decimal | null;
}

/** What a draft of a scale would do to grades that exist. */
export interface ScaleEffect {
  readonly grades: number;
  /** Every pair of labels that occurs, those that stay the same included. */
  readonly moves: readonly LabelMove[];
  readonly changed: number;
  readonly passAnew: number;
  readonly failAnew: number;
  /** Places in the columns of the grades whose label would change, with both labels. */
  readonly changedRows: readonly { readonly row: number; readonly from: string | null; readonly to: string | null }[];
  /** Students with a label that would change, and their GPA of these grades before and after. */
  readonly students: readonly StudentEffect[];
  /** The mean of the students' GPAs, to three digits; null where nobody has one. */
  readonly meanBefore: Decimal | null;
  readonly meanAfter: Decimal | null;
}

const highestHundredth = 20_000;

/**
 * The effect of a draft on grades. A label that the saved bands give its percent follows the draft; a label that somebody
 * chose against its percent, or without one, stays where the draft still has it; one that the saved bands do not know is
 * another fault and stays too. What is only computed counts with the label that the saved bands would give.
 */
export function effectOfDraft(
  columns: GradeColumns,
  saved: readonly Band[],
  draft: readonly Band[],
  precision: Precision,
  policy: EffectPolicy,
): ScaleEffect {
  const scales = new LabelTables(columns.labels, saved, draft, precision);
  const students = new StudentSums(columns, scales);
  const counts = new Uint32Array(scales.width ** 2);
  const changedRows: { row: number; from: string | null; to: string | null }[] = [];
  let [passAnew, failAnew] = [0, 0];
  for (let row = 0; row < columns.percent.length; row++) {
    const from = scales.before(columns.label[row]!, columns.percent[row]!);
    const to = scales.after(from, columns.percent[row]!);
    const pair = (from + 1) * scales.width + to + 1;
    counts[pair]!++;
    students.add(row, from, to);
    if (from === to) continue;
    changedRows.push({ row, from: scales.name(from), to: scales.name(to) });
    const [passed, passes] = [scales.passesBefore(from), scales.passesAfter(to)];
    if (passes && !passed) passAnew++;
    if (passed && !passes) failAnew++;
  }
  const moves = Array.from(counts, (grades, pair) => ({
    from: scales.name(Math.floor(pair / scales.width) - 1),
    to: scales.name((pair % scales.width) - 1),
    grades,
  })).filter(({ grades }) => grades > 0);
  return {
    grades: columns.percent.length,
    moves,
    changed: changedRows.length,
    passAnew,
    failAnew,
    changedRows,
    ...students.effect(policy, new Set(changedRows.map(({ row }) => columns.student[row]!))),
  };
}

/** Labels by number over both scales and the posted ones; which one each hundredth of a percent finds. */
class LabelTables {
  readonly width: number;
  readonly pointsBefore: Int32Array;
  readonly pointsAfter: Int32Array;
  private readonly names: string[];
  private readonly beforeAt: Int16Array;
  private readonly afterAt: Int16Array;
  private readonly savedBands: Map<number, Band>;
  private readonly draftBands: Map<number, Band>;

  constructor(posted: readonly string[], saved: readonly Band[], draft: readonly Band[], precision: Precision) {
    const inUse = (bands: readonly Band[]) => bands.filter(({ isOff }) => !isOff);
    this.names = [...new Set([...posted, ...inUse(saved).map(labelOf), ...inUse(draft).map(labelOf)])];
    this.width = this.names.length + 1;
    const byNumber = (bands: readonly Band[]) =>
      new Map(inUse(bands).map((band) => [this.names.indexOf(band.label), band]));
    [this.savedBands, this.draftBands] = [byNumber(saved), byNumber(draft)];
    [this.beforeAt, this.afterAt] = [this.table(saved, precision), this.table(draft, precision)];
    [this.pointsBefore, this.pointsAfter] = [this.points(this.savedBands), this.points(this.draftBands)];
  }

  name(label: number): string | null {
    return this.names[label] ?? null;
  }

  /** The label before: the posted one, or the one that the saved bands give what is only computed. */
  before(posted: number, percent: number): number {
    if (posted >= 0) return posted;
    return percent < 0 ? -1 : this.beforeAt[Math.min(percent, highestHundredth)]!;
  }

  after(from: number, percent: number): number {
    const follows = percent >= 0 && this.beforeAt[Math.min(percent, highestHundredth)] === from;
    if (follows) return this.afterAt[Math.min(percent, highestHundredth)]!;
    return this.draftBands.has(from) || !this.savedBands.has(from) ? from : -1;
  }

  passesBefore(label: number): boolean {
    return this.savedBands.get(label)?.passes ?? false;
  }

  passesAfter(label: number): boolean {
    return this.draftBands.get(label)?.passes ?? false;
  }

  /** By hundredth of a percent, filled from the edges that the one rule of a scale gives. */
  private table(bands: readonly Band[], precision: Precision): Int16Array {
    const table = new Int16Array(highestHundredth + 1).fill(-1);
    for (const { band, firstValue } of bandEdges(bands, precision, 2).toReversed()) {
      table.fill(this.names.indexOf(band.label), Math.max(0, Number(unitsAt(firstValue, 2))));
    }
    return table;
  }

  /** Grade points in hundredths, by label; -1 where there are none. */
  private points(bands: ReadonlyMap<number, Band>): Int32Array {
    return Int32Array.from(this.names, (_name, label) => {
      const points = bands.get(label)?.points;
      return points ? Number(unitsAt(points, 2)) : -1;
    });
  }
}

/** Sums of points × credits for each student, before and after, in whole numbers. */
class StudentSums {
  private readonly products: readonly [before: Float64Array, after: Float64Array];
  private readonly credits: readonly [before: Float64Array, after: Float64Array];

  constructor(
    private readonly columns: GradeColumns,
    private readonly scales: LabelTables,
  ) {
    const size = columns.student.reduce((most, student) => Math.max(most, student), -1) + 1;
    this.products = [new Float64Array(size), new Float64Array(size)];
    this.credits = [new Float64Array(size), new Float64Array(size)];
  }

  add(row: number, from: number, to: number): void {
    const { student, credits, addition, counts } = this.columns;
    if (!counts[row] || !credits[row]) return;
    const sum = (when: 0 | 1, points: number, passes: boolean) => {
      if (points < 0) return;
      this.products[when][student[row]!]! += (points + (passes ? addition[row]! : 0)) * credits[row]!;
      this.credits[when][student[row]!]! += credits[row]!;
    };
    sum(0, from < 0 ? -1 : this.scales.pointsBefore[from]!, this.scales.passesBefore(from));
    sum(1, to < 0 ? -1 : this.scales.pointsAfter[to]!, this.scales.passesAfter(to));
  }

  effect(
    { digits, rounding }: EffectPolicy,
    concerned: ReadonlySet<number>,
  ): Pick<ScaleEffect, 'students' | 'meanBefore' | 'meanAfter'> {
    // products / 100 over credits, in units of the last digit
    const scale = 10n ** BigInt(digits);
    const gpa = (when: 0 | 1, student: number): Decimal | null => {
      const credits = this.credits[when][student]!;
      if (credits === 0) return null;
      const numerator = BigInt(this.products[when][student]!) * scale;
      return { units: rounding({ numerator, denominator: BigInt(credits) * 100n }), digits };
    };
    const students: StudentEffect[] = [];
    const sums = { before: 0n, after: 0n, countBefore: 0n, countAfter: 0n };
    for (let student = 0; student < this.credits[0].length; student++) {
      const gpaBefore = gpa(0, student);
      const isSame =
        this.products[0][student] === this.products[1][student] &&
        this.credits[0][student] === this.credits[1][student];
      const gpaAfter = isSame ? gpaBefore : gpa(1, student);
      if (gpaBefore) [sums.before, sums.countBefore] = [sums.before + gpaBefore.units, sums.countBefore + 1n];
      if (gpaAfter) [sums.after, sums.countAfter] = [sums.after + gpaAfter.units, sums.countAfter + 1n];
      if (concerned.has(student)) students.push({ student, gpaBefore, gpaAfter });
    }
    const mean = (units: bigint, count: bigint) =>
      count === 0n ? null : roundTo(rational(units, count * 10n ** BigInt(digits)), 3, rounding);
    return {
      students,
      meanBefore: mean(sums.before, sums.countBefore),
      meanAfter: mean(sums.after, sums.countAfter),
    };
  }
}

function labelOf({ label }: Band): string {
  return label;
}
