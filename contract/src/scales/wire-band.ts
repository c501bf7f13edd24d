import { decimalOrThrow, formatDecimal } from '#core/numbers';
import type { Band } from '#core/scales';
import type { BandBody } from './scale-messages.js';

/** A band as it crosses the wire and stands in the log. */
export function bodyOfBand({ lowest, points, ...band }: Band): BandBody {
  return { ...band, lowest: lowest && formatDecimal(lowest), points: points && formatDecimal(points) };
}

export function bandOfBody({ lowest, points, ...band }: BandBody): Band {
  return {
    ...band,
    lowest: lowest === null ? null : decimalOrThrow(lowest),
    points: points === null ? null : decimalOrThrow(points),
  };
}
