import type { Band } from './band.js';
import { orderBands } from './order-bands.js';

/** The bands of several scales or versions as one list, from the top: each label once, in the meaning given last. */
export function bandsTogether(bands: readonly Band[]): Band[] {
  return orderBands([...new Map(bands.map((band) => [band.label, band])).values()]);
}
