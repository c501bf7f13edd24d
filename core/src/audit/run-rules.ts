import type { AuditRule, RuleFinding } from './audit-rule.js';
import { courseOfIn, isExcepted } from './exceptions.js';
import type { RuleInForce } from './rule-settings.js';
import type { Snapshot } from './snapshot.js';

export interface Finding extends RuleFinding {
  readonly ruleId: string;
}

/** Rules as they are in force, by their ids; one that is not among them is as it comes. */
export type RulesInForce = ReadonlyMap<string, RuleInForce>;

/** What the rules find in a snapshot, in the order of the rules and then of the grades. @throws whatever a rule throws */
export function runRules(
  rules: readonly AuditRule[],
  snapshot: Snapshot,
  inForce: RulesInForce = new Map(),
): Finding[] {
  return rules.flatMap((rule) => {
    const set = inForce.get(rule.id);
    if (set?.severity === 'off') return [];
    const found = Array.from(rule.check(snapshot, set?.threshold ?? rule.threshold?.usual ?? 0));
    const told = set ? found.filter((each) => !isExcepted(each, set, courseOfIn(snapshot))) : found;
    return told.map((each) => ({ ...each, ruleId: rule.id }));
  });
}

export interface RuleFault {
  readonly ruleId: string;
  /** What went wrong, for whoever mends the rule. */
  readonly problem: string;
}

export interface RuleOutcomes {
  /** In the order of the rules. A rule that threw found nothing, so that nobody takes it for clean. */
  readonly findings: readonly Finding[];
  readonly faults: readonly RuleFault[];
}
