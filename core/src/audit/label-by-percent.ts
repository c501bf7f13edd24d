import type { Mark } from '#core/posting';
import { findBand } from '#core/scales';
import type { GradeFact } from './snapshot.js';

/** The mark with the label that its percentage has on the scale; null where there is no percentage, or the scale has none for it. */
export function labelByPercent({ mark, scale, item }: Pick<GradeFact, 'mark' | 'scale' | 'item'>): Mark | null {
  const band = mark.percent && findBand(scale.bands, mark.percent, item.precision).band;
  return band ? { ...mark, label: band.label } : null;
}
