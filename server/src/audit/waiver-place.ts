import type { Finding } from '#core/audit';

/** The finding that a waiver is about: of a rule, on a grade of a period. */
export type WaiverPlace = Pick<Finding, 'ruleId' | 'enrollmentId' | 'itemId'> & { readonly periodId: number };

/** How the log names a waiver. */
export const waiverId = ({ ruleId, enrollmentId, itemId, periodId }: WaiverPlace): string =>
  [ruleId, enrollmentId, itemId, periodId].join('/');

export function waiverPlaceOf(id: string): WaiverPlace {
  const [ruleId, enrollmentId, itemId, periodId] = id.split('/');
  return {
    ruleId: ruleId!,
    enrollmentId: Number(enrollmentId),
    itemId: Number(itemId),
    periodId: Number(periodId),
  };
}
