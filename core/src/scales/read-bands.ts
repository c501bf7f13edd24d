import { parseDecimal } from '#core/numbers';
import type { Band } from './band.js';

/** A band as somebody typed it; numbers may not be readable yet. */
export interface TypedBand extends Omit<Band, 'lowest' | 'points'> {
  readonly lowest: string;
  readonly points: string | null;
}

export interface ReadBands {
  /** The bands that can be read, in the order typed. */
  readonly bands: readonly Band[];
  /** Place of each of `bands` among the typed ones. */
  readonly places: readonly number[];
  /** Fields that hold no number. */
  readonly unreadable: readonly { readonly place: number; readonly field: 'lowest' | 'points' }[];
}

/** Reads typed bands as far as they can be read; an empty text for points means that the band carries none. */
export function readBands(typed: readonly TypedBand[]): ReadBands {
  const bands: Band[] = [];
  const places: number[] = [];
  const unreadable: { place: number; field: 'lowest' | 'points' }[] = [];
  typed.forEach((band, place) => {
    const lowest = parseDecimal(band.lowest);
    const points = band.points === null || band.points.trim() === '' ? null : parseDecimal(band.points);
    if (!lowest || lowest.digits > 2) unreadable.push({ place, field: 'lowest' });
    if (points === undefined || (points && points.digits > 2)) unreadable.push({ place, field: 'points' });
    if (lowest && lowest.digits <= 2 && points !== undefined) {
      bands.push({ ...band, lowest, points });
      places.push(place);
    }
  });
  return { bands, places, unreadable };
}
