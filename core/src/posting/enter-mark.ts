import { findBand, type Band, type Precision } from '#core/scales';
import type { Mark } from './mark.js';
import { readPercent, type HighestValues, type PercentFault } from './read-percent.js';
import type { SpecialCode } from '#core/codes';

/** What a grade sheet needs to know to take an entry. */
export interface EntryRules extends HighestValues {
  readonly bands: readonly Band[];
  readonly precision: Precision;
  readonly codes: readonly SpecialCode[];
}

export type Entered =
  | { readonly kind: 'entered'; readonly mark: Mark }
  | { readonly kind: 'fault'; readonly code: PercentFault | 'label-unknown' };

/** A percent fills the label and puts a code away; an empty one takes its label with it. */
export function enterPercent(mark: Mark, text: string, rules: EntryRules): Entered {
  const read = readPercent(text, rules);
  if (read.kind === 'fault') return read;
  if (read.kind === 'blank') {
    const label = mark.percent === null ? mark.label : null;
    return { kind: 'entered', mark: { ...mark, percent: null, label } };
  }
  const { band } = findBand(rules.bands, read.percent, rules.precision);
  return { kind: 'entered', mark: { ...mark, percent: read.percent, label: band?.label ?? null, code: null } };
}

/**
 * A label or a code, by its name in any case or by the first letters of one code's name or meaning. A code empties the
 * percent where it forbids one. A label leaves the percent: whether they agree is for the checks to say.
 */
export function enterLabelOrCode(mark: Mark, text: string, rules: EntryRules): Entered {
  const typed = text.trim().toUpperCase();
  if (typed === '') return { kind: 'entered', mark: { ...mark, label: null, code: null } };
  const band = rules.bands.find(
    ({ label, isOff }) => !isOff && (label.toUpperCase() === typed.replace('-', '−') || label.toUpperCase() === typed),
  );
  if (band) return { kind: 'entered', mark: { ...mark, label: band.label, code: null } };
  const code = findCode(rules.codes, typed);
  if (!code) return { kind: 'fault', code: 'label-unknown' };
  const percent = code.forbidsPercent ? null : mark.percent;
  return { kind: 'entered', mark: { ...mark, percent, label: null, code: code.code } };
}

function findCode(all: readonly SpecialCode[], typed: string): SpecialCode | undefined {
  const codes = all.filter(({ isOff }) => !isOff);
  const exact = codes.find(({ code }) => code.toUpperCase() === typed);
  if (exact) return exact;
  const starting = codes.filter(
    ({ code, meaning }) => code.toUpperCase().startsWith(typed) || meaning.toUpperCase().startsWith(typed),
  );
  return starting.length === 1 ? starting[0] : undefined;
}
