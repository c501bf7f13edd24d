import { decimalOrThrow, type Percent } from '#core/numbers';
import type { EntryRules } from './enter-mark.js';
import type { Mark } from './mark.js';
import { takeComputed } from './take-computed.js';

/** What the parts of a composite come to, as far as it is proposed: a percent, or by points a label alone. */
export type CompositeSays =
  | { readonly kind: 'value'; readonly percent: string | null; readonly label: string | null }
  | { readonly kind: 'blocked'; readonly code: string }
  | { readonly kind: 'missing' | 'exempt' };

/** What stands beside a grade: what is computed, or what the parts of a composite come to. */
export interface ComputedBeside {
  readonly computed: { readonly percent: string } | null;
  readonly composite: CompositeSays | null;
}

/** A percent, or a level where the sheet takes levels; null where nothing is computed. */
export function computedOf({ computed, composite }: ComputedBeside): Percent | null {
  const text = computed?.percent ?? (composite?.kind === 'value' ? composite.percent : null);
  return text === null ? null : decimalOrThrow(text);
}

/**
 * What taking what is computed would make of a mark; null where nothing is. A composite by points proposes a label alone, an
 * incomplete one the code that blocks it.
 */
export function proposedMark(beside: ComputedBeside, mark: Mark, rules: EntryRules): Mark | null {
  const computed = computedOf(beside);
  if (computed) return takeComputed(mark, computed, rules);
  const { composite } = beside;
  const bare = { ...mark, percent: null, overrideReason: '' };
  if (composite?.kind === 'value') return { ...bare, label: composite.label, code: null };
  if (composite?.kind === 'blocked') return { ...bare, label: null, code: composite.code };
  return null;
}
