import type { Decimal } from '#core/numbers';
import type { SpecialCode } from '#core/codes';
import type { Mark } from '#core/posting';
import type { Band } from '#core/scales';
import { familyTimes, type FamilyTime, type ReportItem } from './report-item.js';

/** What families see of a grade, or why they see nothing. */
export type FamilyValue =
  | {
      readonly kind: 'shown';
      /** A label or a code; null where the item shows none. */
      readonly label: string | null;
      readonly percent: Decimal | null;
      /** What the label means to families, or the code. */
      readonly descriptor: string | null;
      readonly comment: string;
    }
  | { readonly kind: 'nothing posted' }
  | { readonly kind: 'never' }
  | { readonly kind: 'later'; readonly from: 'closed' | 'sealed' };

/**
 * What families see of a posted grade at a moment of its period. A comment for the school alone is never seen; a code is seen
 * wherever a label would be, as it stands in its place.
 * @param moment how far the period is: posting goes on, its window has closed, or it is sealed
 */
export function familyValue(
  { familyView, familyTime }: Pick<ReportItem, 'familyView' | 'familyTime'>,
  mark: Mark,
  moment: FamilyTime,
  bands: readonly Band[],
  codes: ReadonlyMap<string, SpecialCode>,
): FamilyValue {
  if (familyView === 'hidden') return { kind: 'never' };
  if (familyTime !== 'posted' && laterTime(moment, familyTime) !== moment) return { kind: 'later', from: familyTime };
  const comment = mark.isInternal ? '' : mark.comment;
  const label = mark.code ?? mark.label;
  if (label === null && mark.percent === null && comment === '') return { kind: 'nothing posted' };
  const descriptor =
    (mark.code === null ? bands.find((band) => band.label === label)?.descriptor : codes.get(mark.code)?.meaning) ?? '';
  return {
    kind: 'shown',
    label: familyView === 'percent' && mark.code === null ? null : label,
    percent: familyView === 'percent' || familyView === 'both' ? mark.percent : null,
    descriptor: (familyView === 'descriptor' || mark.code !== null) && descriptor !== '' ? descriptor : null,
    comment,
  };
}

/** The later of two moments of a period. */
export function laterTime(one: FamilyTime, other: FamilyTime): FamilyTime {
  return familyTimes[Math.max(familyTimes.indexOf(one), familyTimes.indexOf(other))]!;
}
