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
  private readonly bandsBefore: ReadonlyMap<number, Band>;
  private readonly bandsAfter: ReadonlyMap<number, Band>;
  /** Grade points in hundredths, by label; -1 where there are none. */
  private readonly pointsOfBefore: Int32Array;
  private readonly pointsOfAfter: Int32Array;
  /** 1 for a label that passes, by label. */
  private readonly passesOfBefore: Uint8Array;
  private readonly passesOfAfter: Uint8Array;

  constructor(names: readonly string[], { postedUnder, before, after, precision, isConcerned }: ScaleChange) {
    const places = new Map(names.map((name, at) => [name, at]));
    const byNumber = (bands: readonly Band[]) =>
      new Map(bands.filter(({ isOff }) => !isOff).map((band) => [places.get(band.label)!, band]));
    const table = (bands: readonly Band[]) => labelTable(bands, precision, places);
    this.isConcerned = isConcerned;
    [this.bandsBefore, this.bandsAfter] = [byNumber(before), byNumber(after)];
    [this.atBefore, this.atAfter] = [table(before), isConcerned ? table(after) : new Int16Array(0)];
    const bandsPosted = byNumber(postedUnder);
    const bandsThen = isConcerned ? this.bandsAfter : bandsPosted;
    [this.pointsOfBefore, this.pointsOfAfter] = [pointsByLabel(names, bandsPosted), pointsByLabel(names, bandsThen)];
    [this.passesOfBefore, this.passesOfAfter] = [passesByLabel(names, bandsPosted), passesByLabel(names, bandsThen)];
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
    return this.passesOfBefore[label] === 1;
  }

  passesAfter(label: number): boolean {
    return this.passesOfAfter[label] === 1;
  }

  pointsBefore(label: number): number {
    return label < 0 ? -1 : this.pointsOfBefore[label]!;
  }

  pointsAfter(label: number): number {
    return label < 0 ? -1 : this.pointsOfAfter[label]!;
  }
}

function labelTable(bands: readonly Band[], precision: Precision, places: ReadonlyMap<string, number>): Int16Array {
  const table = new Int16Array(highestHundredth + 1).fill(-1);
  for (const { band, firstValue } of bandEdges(bands, precision, 2).toReversed())
    table.fill(places.get(band.label)!, Math.max(0, Number(unitsAt(firstValue, 2))));
  return table;
}

function pointsByLabel(names: readonly string[], bands: ReadonlyMap<number, Band>): Int32Array {
  return Int32Array.from(names, (_name, label) => {
    const points = bands.get(label)?.points;
    return points ? Number(unitsAt(points, 2)) : -1;
  });
}

function passesByLabel(names: readonly string[], bands: ReadonlyMap<number, Band>): Uint8Array {
  return Uint8Array.from(names, (_name, label) => (bands.get(label)?.passes ? 1 : 0));
}
