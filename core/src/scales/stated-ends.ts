import { compareDecimals, formatDecimal, unitsAt, type Decimal, type Percent } from '#core/numbers';
import { topOf } from './scale-top.js';

/** A band as another program's table states it, with both ends, each belonging to the band. */
export interface StatedBand {
  readonly label: string;
  readonly lowest: Percent;
  readonly highest: Percent;
}

/** A stretch of values at the item's precision that no stated band holds, or that two of them hold. */
export interface EndFault {
  readonly kind: 'gap' | 'overlap' | 'top-short' | 'ends-crossed';
  /** The band above; for a top that ends too low and for crossed ends the one band concerned. */
  readonly upper: string;
  readonly lower: string | null;
  /** First and last value concerned, at `digits` digits. */
  readonly from: Percent;
  readonly to: Percent;
}

/**
 * Gaps and overlaps between stated bands, from the top down. At whole percents 80–89 and 90–100 leave nothing out; at
 * one decimal they leave 89.1 to 89.9 without a label.
 */
export function checkStatedEnds(bands: readonly StatedBand[], digits: number, end = topOf(null)): EndFault[] {
  const ordered = bands.toSorted((a, b) => compareDecimals(b.lowest, a.lowest));
  const at = (value: Decimal) => floorUnits(value, digits);
  const shown = (units: bigint): Percent => ({ units, digits });
  const faults: EndFault[] = [];
  const top = ordered[0];
  if (top && compareDecimals(top.highest, end) < 0) {
    const from = shown(at(top.highest) + 1n);
    faults.push({ kind: 'top-short', upper: top.label, lower: null, from, to: shown(at(end)) });
  }
  ordered.forEach((band, index) => {
    if (compareDecimals(band.highest, band.lowest) < 0) {
      const ends = { from: band.highest, to: band.lowest };
      faults.push({ kind: 'ends-crossed', upper: band.label, lower: null, ...ends });
      return;
    }
    const upper = ordered[index - 1];
    if (!upper) return;
    const [first, last] = [at(band.highest) + 1n, ceilingUnits(upper.lowest, digits) - 1n];
    if (first <= last) {
      faults.push({ kind: 'gap', upper: upper.label, lower: band.label, from: shown(first), to: shown(last) });
    } else if (compareDecimals(band.highest, upper.lowest) >= 0) {
      faults.push({ kind: 'overlap', upper: upper.label, lower: band.label, from: upper.lowest, to: band.highest });
    }
  });
  return faults;
}

/**
 * Settles one gap or overlap for the band above or the band below: the band above keeps its lowest value and the other
 * ends right under it, or the band below keeps its highest value and the other begins right over it. A top that ends
 * too low is drawn up to the end of the scale, crossed ends change places.
 */
export function settleStatedEnds(
  bands: readonly StatedBand[],
  fault: EndFault,
  keeps: 'upper' | 'lower',
  digits: number,
  end = topOf(null),
): StatedBand[] {
  const step = (value: Percent, by: bigint): Percent => ({ units: floorUnits(value, digits) + by, digits });
  const of = (label: string | null) => bands.find((band) => band.label === label);
  return bands.map((band) => {
    if (fault.kind === 'top-short') return band.label === fault.upper ? { ...band, highest: end } : band;
    if (fault.kind === 'ends-crossed') {
      return band.label === fault.upper ? { ...band, lowest: band.highest, highest: band.lowest } : band;
    }
    if (keeps === 'upper' && band.label === fault.lower)
      return { ...band, highest: step(of(fault.upper)!.lowest, -1n) };
    if (keeps === 'lower' && band.label === fault.upper) return { ...band, lowest: step(of(fault.lower)!.highest, 1n) };
    return band;
  });
}

/** What a fault says in numbers: "89.1 to 89.9". */
export function endFaultRange({ from, to }: EndFault): string {
  return compareDecimals(from, to) === 0 ? formatDecimal(from) : `${formatDecimal(from)} to ${formatDecimal(to)}`;
}

function floorUnits(value: Decimal, digits: number): bigint {
  return value.digits <= digits ? unitsAt(value, digits) : value.units / 10n ** BigInt(value.digits - digits);
}

function ceilingUnits(value: Decimal, digits: number): bigint {
  const floor = floorUnits(value, digits);
  return compareDecimals({ units: floor, digits }, value) < 0 ? floor + 1n : floor;
}
