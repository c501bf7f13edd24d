import type { AuditRule, RuleFinding } from './audit-rule.js';
import type { Snapshot } from './snapshot.js';

export interface Finding extends RuleFinding {
  readonly ruleId: string;
}

/** What the rules find in a snapshot, in the order of the rules and then of the grades. */
export function runRules(rules: readonly AuditRule[], snapshot: Snapshot): Finding[] {
  return rules.flatMap((rule) => Array.from(rule.check(snapshot), (found) => ({ ...found, ruleId: rule.id })));
}
