import { compareDecimals } from '#core/numbers';
import { isBlank, type Mark } from './mark.js';

/**
 * Whether a mark says otherwise than what is computed would post (`proposal`): another percent or another label. A blank and a
 * code are no overrides, and where nothing is computed there is nothing to override.
 */
export function isOverride(mark: Mark, proposal: Mark | null): boolean {
  if (proposal === null || mark.code !== null || isBlank(mark)) return false;
  if (proposal.code !== null) return true;
  if (mark.percent !== null && proposal.percent !== null && compareDecimals(mark.percent, proposal.percent) !== 0)
    return true;
  return mark.label !== null && mark.label !== proposal.label;
}
