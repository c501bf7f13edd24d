import type { SpecialCode } from '#core/codes';
import { roundings, type Decimal, type Percent, type RoundingName } from '#core/numbers';
import type { Band } from '#core/scales';
import type { EntryRules } from './enter-mark.js';

/** What a sheet takes of an item under the scale in force there. */
export function entryRulesFor(
  { bands, highestLevel }: { readonly bands: readonly Band[]; readonly highestLevel: Decimal | null },
  item: { readonly digits: number; readonly rounding: RoundingName; readonly highestPercent: Percent },
  codes: readonly SpecialCode[],
): EntryRules {
  const precision = { digits: item.digits, rounding: roundings[item.rounding] };
  return { bands, precision, codes, highestLevel, highestPercent: item.highestPercent };
}
