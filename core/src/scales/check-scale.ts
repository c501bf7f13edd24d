import {
  compareDecimals,
  decimalOrThrow,
  formatAtLeast,
  formatDecimal,
  parseDecimal,
  type Decimal,
} from '#core/numbers';
import { cutBands, type Band, type CutBand } from './band.js';
import { bandEdges } from './band-edges.js';
import type { Precision } from './find-band.js';
import { orderBands } from './order-bands.js';
import type { ScaleKind } from './scale-kind.js';
import { topOf } from './scale-top.js';

/** What is wrong with a scale. `severity` "blocks" keeps it from being saved; "warns" is for the registrar to judge. */
export interface ScaleFault {
  readonly code: ScaleFaultCode;
  readonly severity: 'blocks' | 'warns';
  /** Position in the bands as given, for showing the fault beside its row; null when it concerns the whole scale. */
  readonly index: number | null;
  readonly data: Readonly<Record<string, string>>;
}

export type ScaleFaultCode =
  | 'scale-empty'
  | 'label-empty'
  | 'label-twice'
  | 'label-is-code'
  | 'label-is-number'
  | 'cut-off-missing'
  | 'cut-off-twice'
  | 'cut-off-outside'
  | 'cut-off-out-of-order'
  | 'band-unreachable'
  | 'points-do-not-fall'
  | 'points-missing'
  | 'bottom-above-0';

const nought = decimalOrThrow('0');

/** What of a scale, beside its bands, says what they may be. */
export interface ScaleMeaning {
  readonly kind: ScaleKind;
  /** The level at the top of a level scale; null where cut-offs are percents. */
  readonly highestLevel: Decimal | null;
  /** The district's codes, which no label may read like. */
  readonly codes: readonly string[];
}

/**
 * The faults of a scale at the precision of the item that uses it, in the order of the bands as given. A percent scale
 * needs every cut-off; a level or choice scale may do without, but has either all of them or none.
 */
export function checkScale(bands: readonly Band[], precision: Precision, meaning: ScaleMeaning): ScaleFault[] {
  if (bands.every(({ isOff }) => isOff)) return [fault('scale-empty', 'blocks', null, {})];
  const needsCutOffs = meaning.kind === 'percent' || cutBands(bands).length > 0;
  const faults = bands.flatMap((band, index) => [
    ...checkLabel(bands, band, index, meaning),
    ...(band.isOff ? [] : checkCutOff(bands, band, index, precision, needsCutOffs, topOf(meaning.highestLevel))),
  ]);
  return [...faults, ...checkOrder(bands), ...checkPoints(bands), ...checkBottom(bands)];
}

/** A label that reads like a code or, beside percents, like a number could not be told from it where grades are typed. */
function checkLabel(bands: readonly Band[], { label }: Band, index: number, meaning: ScaleMeaning): ScaleFault[] {
  if (label.trim() === '') return [fault('label-empty', 'blocks', index, {})];
  const isLabel = (other: string) => other.trim().toUpperCase() === label.trim().toUpperCase();
  if (bands.findIndex((other) => isLabel(other.label)) < index)
    return [fault('label-twice', 'blocks', index, { label })];
  if (meaning.codes.some(isLabel)) return [fault('label-is-code', 'blocks', index, { label })];
  const isNumber = meaning.kind === 'percent' && parseDecimal(label.trim()) !== undefined;
  return isNumber ? [fault('label-is-number', 'blocks', index, { label })] : [];
}

function checkCutOff(
  bands: readonly Band[],
  band: Band,
  index: number,
  precision: Precision,
  needsCutOffs: boolean,
  top: Decimal,
): ScaleFault[] {
  if (band.lowest === null) {
    return needsCutOffs ? [fault('cut-off-missing', 'blocks', index, { label: band.label })] : [];
  }
  const lowest = formatDecimal(band.lowest);
  if (compareDecimals(band.lowest, nought) < 0 || compareDecimals(band.lowest, top) > 0) {
    return [fault('cut-off-outside', 'blocks', index, { label: band.label, lowest, top: formatAtLeast(top, 0) })];
  }
  const same = bands.findIndex(
    (other) => !other.isOff && other.lowest !== null && compareDecimals(other.lowest, band.lowest!) === 0,
  );
  if (same < index) {
    return [fault('cut-off-twice', 'blocks', index, { label: band.label, other: bands[same]!.label, lowest })];
  }
  return isUnreachable(bands, band, precision)
    ? [fault('band-unreachable', 'blocks', index, { label: band.label, lowest, digits: String(precision.digits) })]
    : [];
}

/** Two cut-offs closer together than one step of the precision leave the lower band without a value. */
function isUnreachable(bands: readonly Band[], band: Band, precision: Precision): boolean {
  const edges = bandEdges(bands, precision, Math.max(2, ...cutBands(bands).map((each) => each.lowest.digits)));
  const at = edges.findIndex((edge) => edge.band === band);
  const above = edges[at - 1];
  return above !== undefined && compareDecimals(above.firstValue, edges[at]!.firstValue) === 0;
}

/** Bands that do not fall as they are written down; they are saved in the order of their cut-offs. */
function checkOrder(bands: readonly Band[]): ScaleFault[] {
  const written = cutBands(bands);
  return written.flatMap((band, at) => {
    const before = written[at - 1];
    if (!before || compareDecimals(band.lowest, before.lowest) <= 0) return [];
    const data = { label: band.label, lowest: formatDecimal(band.lowest), other: before.label };
    return [fault('cut-off-out-of-order', 'warns', bands.indexOf(band), data)];
  });
}

function checkPoints(bands: readonly Band[]): ScaleFault[] {
  const inUse = bands.map((band, index) => ({ ...band, index })).filter((band) => !band.isOff && band.points);
  const withPoints = orderBands(inUse);
  const without =
    withPoints.length === 0 ? [] : bands.flatMap((band, index) => (band.isOff || band.points ? [] : [index]));
  const missing = without.map((index) => fault('points-missing', 'warns', index, { label: bands[index]!.label }));
  const rising = withPoints.flatMap((lower, at) => {
    const higher = withPoints[at - 1];
    if (!higher || compareDecimals(higher.points!, lower.points!) > 0) return [];
    const data = { label: lower.label, points: formatDecimal(lower.points!), higher: higher.label };
    return [fault('points-do-not-fall', 'warns', lower.index, data)];
  });
  return [...rising, ...missing];
}

/** The top band has no end of its own, so a scale with cut-offs can leave values without a band only at the bottom. */
function checkBottom(bands: readonly Band[]): ScaleFault[] {
  const bottom: CutBand | undefined = orderBands(cutBands(bands)).at(-1);
  if (!bottom || compareDecimals(bottom.lowest, nought) <= 0) return [];
  return [fault('bottom-above-0', 'blocks', null, { label: bottom.label, lowest: formatDecimal(bottom.lowest) })];
}

function fault(
  code: ScaleFaultCode,
  severity: ScaleFault['severity'],
  index: number | null,
  data: Record<string, string>,
): ScaleFault {
  return { code, severity, index, data };
}
