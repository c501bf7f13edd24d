import { unitsAt } from '#core/numbers';
import { bandEdges, type Band, type Precision } from '#core/scales';
import type { ScaleChange } from './effect-of-scales.js';

/** Above 200 % every value has the highest label. */
const highestHundredth = 20_000;

/** Every label that occurs, posted or in some band in use; a label's number is its place. */
export function labelNames(posted: readonly string[], changes: readonly ScaleChange[]): string[] {
  const bands = changes
    .flatMap(({ postedUnder, before, after }) => [...postedUnder, ...before, ...after])
    .filter(({ isOff }) => !isOff);
  return [...new Set([...posted, ...bands.map(({ label }) => label)])];
}

/** Which label each hundredth of a percent has under two lists of bands, filled from the one rule of a scale. */
export class LabelTables {
  readonly isConcerned: boolean;
  /** Every label is worth then what it is worth now: only another label changes a GPA. */
  readonly keepsPoints: boolean;
  private readonly atBefore: Int16Array;
  private readonly atAfter: Int16Array;
  private readonly bandsPosted: ReadonlyMap<number, Band>;
  private readonly bandsBefore: ReadonlyMap<number, Band>;
  private readonly bandsAfter: ReadonlyMap<number, Band>;
  /** Grade points in hundredths, by label; -1 where there are none. */
  private readonly pointsOfBefore: Int32Array;
  private readonly pointsOfAfter: Int32Array;

  constructor(names: readonly string[], { postedUnder, before, after, precision, isConcerned }: ScaleChange) {
    const places = new Map(names.map((name, at) => [name, at]));
    const byNumber = (bands: readonly Band[]) =>
      new Map(bands.filter(({ isOff }) => !isOff).map((band) => [places.get(band.label)!, band]));
    const table = (bands: readonly Band[]) => labelTable(bands, precision, places);
    this.isConcerned = isConcerned;
    [this.bandsPosted, this.bandsBefore, this.bandsAfter] = [byNumber(postedUnder), byNumber(before), byNumber(after)];
    [this.atBefore, this.atAfter] = [table(before), isConcerned ? table(after) : new Int16Array(0)];
    [this.pointsOfBefore, this.pointsOfAfter] = [this.bandsPosted, this.bandsAfter].map((bands) =>
      Int32Array.from(names, (_name, label) => pointsOf(bands.get(label))),
    ) as [Int32Array, Int32Array];
    this.keepsPoints = names.every(
      (_name, label) =>
        this.pointsBefore(label) === this.pointsAfter(label) && this.passesBefore(label) === this.passesAfter(label),
    );
  }

  /** The label before: the posted one, or the one that the bands give what is only computed. */
  before(posted: number, percent: number): number {
    if (posted >= 0) return posted;
    return percent < 0 ? -1 : this.atBefore[Math.min(percent, highestHundredth)]!;
  }

  after(from: number, percent: number): number {
    const at = Math.min(percent, highestHundredth);
    if (percent >= 0 && this.atBefore[at] === from) return this.atAfter[at]!;
    return this.bandsAfter.has(from) || !this.bandsBefore.has(from) ? from : -1;
  }

  passesBefore(label: number): boolean {
    return this.bandsPosted.get(label)?.passes ?? false;
  }

  passesAfter(label: number): boolean {
    return (this.isConcerned ? this.bandsAfter : this.bandsPosted).get(label)?.passes ?? false;
  }

  pointsBefore(label: number): number {
    return label < 0 ? -1 : this.pointsOfBefore[label]!;
  }

  pointsAfter(label: number): number {
    if (label < 0) return -1;
    return (this.isConcerned ? this.pointsOfAfter : this.pointsOfBefore)[label]!;
  }
}

function labelTable(bands: readonly Band[], precision: Precision, places: ReadonlyMap<string, number>): Int16Array {
  const table = new Int16Array(highestHundredth + 1).fill(-1);
  for (const { band, firstValue } of bandEdges(bands, precision, 2).toReversed())
    table.fill(places.get(band.label)!, Math.max(0, Number(unitsAt(firstValue, 2))));
  return table;
}

function pointsOf(band: Band | undefined): number {
  return band?.points ? Number(unitsAt(band.points, 2)) : -1;
}
