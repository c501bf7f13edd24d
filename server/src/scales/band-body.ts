import { decimalOrThrow, formatDecimal } from '#core/numbers';
import type { Band } from '#core/scales';
import type { BandBody } from '#contract/scales';

/** A band as it crosses the wire and stands in the log. */
export function bandBody({ lowest, points, ...band }: Band): BandBody {
  return { ...band, lowest: formatDecimal(lowest), points: points && formatDecimal(points) };
}

export function bandOfBody({ lowest, points, ...band }: BandBody): Band {
  return { ...band, lowest: decimalOrThrow(lowest), points: points === null ? null : decimalOrThrow(points) };
}
