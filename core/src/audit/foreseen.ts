import { gradeRules } from './audit-rules.js';
import { findingKey } from './compare-runs.js';
import { outcomesOf } from './audit-by-parts.js';
import type { Finding, RulesInForce } from './run-rules.js';
import type { Snapshot } from './snapshot.js';

/**
 * What the rules of single grades would find in grades as they are about to be, and do not find as they are: what a row of a file
 * brings with it, before anybody accepts it. A rule that throws says nothing.
 * @param now the grades as they are
 * @param then the same grades as they would be
 */
export function foreseen(now: Snapshot, then: Snapshot, inForce: RulesInForce): Finding[] {
  const [before, after] = [now, then].map((snapshot) => outcomesOf(gradeRules, snapshot, inForce).findings);
  const known = new Set(before!.map(findingKey));
  return after!.filter((finding) => !known.has(findingKey(finding)));
}
