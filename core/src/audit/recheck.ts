import type { AuditRule } from './audit-rule.js';
import { auditRules } from './audit-rules.js';
import { compareRuns, findingKey } from './compare-runs.js';
import type { Finding, RuleOutcomes } from './run-rules.js';

/** The rules whose findings in a section rest on that section alone, so that a change in it can be looked at by itself. */
export const rulesOfOneSection: readonly AuditRule[] = auditRules.filter(({ together }) => !together);

/** What is so of the findings of an audit once something has changed. */
export interface Rechecked {
  /** The keys of those that are there no longer. */
  readonly gone: ReadonlySet<string>;
  /** Those that are still there, by their keys, as they are found now: what they quote may be another grade. */
  readonly still: ReadonlyMap<string, Finding>;
  /** Those that the audit did not find. */
  readonly added: readonly Finding[];
}

/**
 * Compares what an audit found in some sections with what the rules of one section find there now. What other rules found, and
 * what a rule found that cannot look now, stays as it was.
 * @example
 * recheck([{ ruleId: 'zero-posted', enrollmentId: 1, sectionId: null, courseId: null, itemId: 7, message: 'zero', data: {} }],
 *   { findings: [], faults: [] }).gone // Set { 'zero-posted:1:::7' }
 */
export function recheck(found: readonly Finding[], { findings, faults }: RuleOutcomes): Rechecked {
  const looked = new Set(rulesOfOneSection.map(({ id }) => id));
  for (const { ruleId } of faults) looked.delete(ruleId);
  const before = found.filter(({ ruleId }) => looked.has(ruleId)).map(findingKey);
  const now = new Map(findings.map((finding) => [findingKey(finding), finding]));
  const { gone, still, added } = compareRuns(before, now.keys());
  return {
    gone,
    still: new Map([...now].filter(([key]) => still.has(key))),
    added: [...now].filter(([key]) => added.has(key)).map(([, finding]) => finding),
  };
}
