import type { AuditRule, RuleFinding } from './audit-rule.js';
import type { Snapshot } from './snapshot.js';

export interface Finding extends RuleFinding {
  readonly ruleId: string;
}

/** What the rules find in a snapshot, in the order of the rules and then of the grades. @throws whatever a rule throws */
export function runRules(rules: readonly AuditRule[], snapshot: Snapshot): Finding[] {
  return rules.flatMap((rule) => Array.from(rule.check(snapshot), (found) => ({ ...found, ruleId: rule.id })));
}

export interface RuleFault {
  readonly ruleId: string;
  /** What went wrong, for whoever mends the rule. */
  readonly problem: string;
}

/** The same for an audit: a rule that throws finds nothing and is told of, so that nobody takes it for clean. */
export function runEachRule(
  rules: readonly AuditRule[],
  snapshot: Snapshot,
): { readonly findings: readonly Finding[]; readonly faults: readonly RuleFault[] } {
  const findings: Finding[] = [];
  const faults: RuleFault[] = [];
  for (const rule of rules) {
    try {
      findings.push(...runRules([rule], snapshot));
    } catch (error) {
      faults.push({ ruleId: rule.id, problem: error instanceof Error ? error.message : String(error) });
    }
  }
  return { findings, faults };
}
