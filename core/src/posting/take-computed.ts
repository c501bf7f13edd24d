import { compareDecimals, roundTo, fromDecimal, type Percent } from '#core/numbers';
import { findBand } from '#core/scales';
import type { EntryRules } from './enter-mark.js';
import type { Mark } from './mark.js';

/**
 * The mark that posts what is computed. The percent is rounded once, at the item's precision, so that what is posted is
 * what was compared with the cut-offs; posting 89.445 as 89.45 first would turn it into 89.5. What is above the highest value
 * that the item takes posts that one.
 */
export function takeComputed(mark: Mark, computed: Percent, rules: EntryRules): Mark {
  const { bands, precision } = rules;
  const highest = rules.highestLevel ?? rules.highestPercent;
  const value = compareDecimals(computed, highest) > 0 ? highest : computed;
  const percent = roundTo(fromDecimal(value), precision.digits, precision.rounding);
  return {
    ...mark,
    percent,
    label: findBand(bands, value, precision).band?.label ?? null,
    code: null,
    overrideReason: '',
  };
}
