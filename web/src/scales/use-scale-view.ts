import { decimalOrThrow, formatAtLeast, roundings, type Decimal } from '#core/numbers';
import {
  bandEdges,
  checkScale,
  countByBand,
  countJustBelow,
  draftEffect,
  histogramOf,
  orderBands,
  readBands,
  topOf,
  cutBands,
  type Band,
  type CutBand,
  type DraftEffect,
  type Histogram,
  type Precision,
  type ScaleFault,
} from '#core/scales';
import { scaleFaultSentence, type BandBody, type ScaleReply } from '#contract/scales';
import { useMemo } from 'react';
import { scaleDrafts } from './scale-drafts';

/** Everything the screen shows about a scale, worked out from what is saved and what is drafted. */
export interface ScaleView {
  readonly isDraft: boolean;
  readonly basedOnVersion: number;
  readonly canUndo: boolean;
  readonly typed: readonly BandBody[];
  /** What is saved, as it would be typed. */
  readonly savedTyped: readonly BandBody[];
  /** The bands that can be read, from the highest cut-off down, and the place of each among the typed ones. */
  readonly bands: readonly Band[];
  readonly places: readonly number[];
  /** Those that values find by a cut-off, and the place of each among the typed ones. */
  readonly cut: readonly CutBand[];
  readonly cutPlaces: readonly number[];
  readonly savedBands: readonly CutBand[];
  readonly precision: Precision;
  /** The value that the scale runs up to: 100, or its highest level. */
  readonly top: Decimal;
  readonly histogram: Histogram;
  readonly gradesByPlace: readonly number[];
  /** More or fewer grades than under the saved version, by place. */
  readonly shiftByPlace: readonly number[];
  /** The highest value of each band at the item's precision, by place; the top band's is the top. */
  readonly upperByPlace: readonly string[];
  readonly grades: number;
  readonly justBelow: number;
  readonly effect: DraftEffect;
  /** Faults that belong to the scale as a whole or to a band. */
  readonly matters: readonly { readonly isBlocking: boolean; readonly says: string }[];
  /** What is wrong with one field, or undefined. */
  readonly fieldFault: (place: number, field: 'label' | 'lowest' | 'points') => string | undefined;
}

export function useScaleView(scale: ScaleReply, codes: readonly string[]): ScaleView {
  const draft = scaleDrafts.use(scale.id);
  return useMemo(() => {
    const precision = { digits: scale.digits, rounding: roundings[scale.rounding] };
    const highestLevel = scale.highestLevel === null ? null : decimalOrThrow(scale.highestLevel);
    const top = topOf(highestLevel);
    const saved = readBands(scale.bands);
    const savedTyped = scale.bands.map((band) => shown(band, scale.digits));
    const typed = draft?.now ?? savedTyped;
    const read = readBands(typed);
    const { unreadable } = read;
    const bands = orderBands(read.bands);
    const places = bands.map((band) => read.places[read.bands.indexOf(band)]!);
    const tallies = scale.tallies.map(({ percent, grades }) => ({ percent: decimalOrThrow(percent), grades }));
    const faults =
      unreadable.length > 0 ? [] : checkScale(read.bands, precision, { kind: scale.kind, highestLevel, codes });
    const cut = cutBands(bands);
    const counts = countByBand(bands, tallies, precision);
    const savedCounts = new Map(
      countByBand(saved.bands, tallies, precision).map((count, at) => [saved.bands[at]!.label, count]),
    );
    const atPlace = (place: number) => counts[places.indexOf(place)] ?? 0;
    return {
      isDraft: draft !== undefined,
      basedOnVersion: draft?.basedOn ?? scale.latestVersion,
      canUndo: (draft?.undo.length ?? 0) > 0,
      typed,
      savedTyped,
      bands,
      places,
      cut,
      cutPlaces: cut.map((band) => places[bands.indexOf(band)]!),
      savedBands: cutBands(saved.bands),
      precision,
      top,
      histogram: histogramOf(tallies, top),
      gradesByPlace: typed.map((_band, place) => atPlace(place)),
      shiftByPlace: typed.map(({ label }, place) => atPlace(place) - (savedCounts.get(label) ?? 0)),
      upperByPlace: upperEnds(bands, places, typed.length, precision, top),
      grades: tallies.reduce((sum, { grades }) => sum + grades, 0),
      justBelow: countJustBelow(bands, tallies, top),
      effect: draftEffect(saved.bands, bands, tallies, precision),
      matters: faults.map((fault) => ({ isBlocking: fault.severity === 'blocks', says: scaleFaultSentence(fault) })),
      fieldFault(place, field) {
        if (unreadable.some((each) => each.place === place && each.field === field))
          return field === 'points'
            ? 'grade points such as 3.7, or empty'
            : `a ${highestLevel ? 'level' : 'percentage'} from 0 to ${formatAtLeast(top, 0)} with at most two decimals`;
        const fault = faults.find(
          (each) => each.index !== null && read.places[each.index] === place && fieldOf(each) === field,
        );
        return fault?.severity === 'blocks' ? scaleFaultSentence(fault) : undefined;
      },
    };
  }, [draft, scale, codes]);
}

function fieldOf({ code }: ScaleFault): 'label' | 'lowest' {
  return code.startsWith('label-') ? 'label' : 'lowest';
}

function upperEnds(
  bands: readonly Band[],
  places: readonly number[],
  count: number,
  precision: Precision,
  top: Decimal,
): string[] {
  const edges = bandEdges(bands, precision, precision.digits);
  const ends = new Array<string>(count).fill('');
  edges.forEach(({ band }, at) => {
    const above = edges[at - 1];
    ends[places[bands.indexOf(band)]!] = formatAtLeast(above ? above.lastBelow : top, precision.digits);
  });
  return ends;
}

/** A saved band with the digits that people type: 93.0 rather than 93.00. */
function shown({ lowest, points, ...band }: BandBody, digits: number): BandBody {
  return {
    ...band,
    lowest: lowest === null ? null : formatAtLeast(decimalOrThrow(lowest), digits),
    points: points === null ? null : formatAtLeast(decimalOrThrow(points), 1),
  };
}
