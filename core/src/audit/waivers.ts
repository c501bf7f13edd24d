import { canonicalJson } from '#core/changes';
import type { Day } from '#core/calendar';
import type { RuleFinding } from './audit-rule.js';

/** A reasoned decision to let a finding stand. */
export interface Waiver {
  /** What the finding said when it was waived; it rests on that. */
  readonly message: string;
  readonly data: Readonly<Record<string, string>>;
  /** The last day on which it holds; null for good. */
  readonly until: Day | null;
}

/** It holds; its last day is over; or what the finding says is not what was waived. */
export type WaiverState = 'holds' | 'over' | 'changed';

/**
 * Whether a waiver still lets a finding stand.
 * @example waiverState({ message: 'm', data: {}, until: null }, { message: 'm', data: {} }, '2026-01-21') // 'holds'
 */
export function waiverState(
  { message, data, until }: Waiver,
  finding: Pick<RuleFinding, 'message' | 'data'>,
  today: Day,
): WaiverState {
  if (message !== finding.message || canonicalJson(data) !== canonicalJson(finding.data)) return 'changed';
  return until !== null && until < today ? 'over' : 'holds';
}
