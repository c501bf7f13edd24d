import type { AuditRule, RuleFinding } from './audit-rule.js';
import type { Snapshot } from './snapshot.js';

export interface Finding extends RuleFinding {
  readonly ruleId: string;
}

/** What the rules find in a snapshot, in the order of the rules and then of the grades. */
export function runRules(rules: readonly AuditRule[], snapshot: Snapshot): Finding[] {
  return rules.flatMap((rule) => Array.from(rule.check(snapshot), (found) => ({ ...found, ruleId: rule.id })));
}

/** The sentence of a finding: the rule's message with its {words} filled in. A word without a value is a bug. */
export function findingSentence(rule: AuditRule, { message, data }: Pick<RuleFinding, 'message' | 'data'>): string {
  const template = rule.messages[message];
  if (template === undefined) throw new Error(`rule ${rule.id} has no message "${message}"`);
  return template.replace(/\{(\w+)\}/g, (_whole, word: string) => {
    const value = data[word];
    if (value === undefined) throw new Error(`message "${message}" of rule ${rule.id} lacks a value for "${word}"`);
    return value;
  });
}
