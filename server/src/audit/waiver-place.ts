import { findingKey, placeOfKey, type Finding, type FindingPlace } from '#core/audit';

/** The finding that a waiver is about: of a rule, on something of a period. */
export type WaiverPlace = FindingPlace & Pick<Finding, 'ruleId'> & { readonly periodId: number };

/** How the log names a waiver. */
export const waiverId = ({ periodId, ...finding }: WaiverPlace): string => `${findingKey(finding)}/${periodId}`;

export function waiverPlaceOf(id: string): WaiverPlace {
  const [key, periodId] = id.split('/');
  return { ...placeOfKey(key!), periodId: Number(periodId) };
}
