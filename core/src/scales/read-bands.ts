import { parseDecimal, type Decimal } from '#core/numbers';
import type { Band } from './band.js';

/** A band as somebody typed it; numbers may not be readable yet. */
export interface TypedBand extends Omit<Band, 'lowest' | 'points'> {
  /** Empty or null for a label without a cut-off. */
  readonly lowest: string | null;
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

/** Reads typed bands as far as they can be read; an empty text means no cut-off, or no grade points. */
export function readBands(typed: readonly TypedBand[]): ReadBands {
  const bands: Band[] = [];
  const places: number[] = [];
  const unreadable: { place: number; field: 'lowest' | 'points' }[] = [];
  typed.forEach((band, place) => {
    const [lowest, points] = [readOptional(band.lowest), readOptional(band.points)];
    if (lowest === undefined || (lowest && lowest.digits > 2)) unreadable.push({ place, field: 'lowest' });
    if (points === undefined || (points && points.digits > 2)) unreadable.push({ place, field: 'points' });
    if (lowest !== undefined && (lowest === null || lowest.digits <= 2) && points !== undefined) {
      bands.push({ ...band, lowest, points });
      places.push(place);
    }
  });
  return { bands, places, unreadable };
}

function readOptional(text: string | null): Decimal | null | undefined {
  return text === null || text.trim() === '' ? null : parseDecimal(text.trim().replace(',', '.'));
}
