import type { AuditRule, Severity } from './audit-rule.js';

/** What a rule does in a school: as severe as this, or nothing at all. */
export const ruleEffects = ['blocks', 'warns', 'informs', 'off'] as const satisfies readonly (Severity | 'off')[];
export type RuleEffect = (typeof ruleEffects)[number];

/** What was set, by the ids of rules; a rule that is not there is as it comes. */
export type RuleSettings = Readonly<Record<string, RuleEffect>>;

/**
 * The effect of a rule in a school: the school's own word, else the district's, else the rule's.
 * @example effectOf({ id: 'zero-posted', severity: 'informs' }, {}, { 'zero-posted': 'warns' }) // 'warns'
 */
export function effectOf(
  { id, severity }: Pick<AuditRule, 'id' | 'severity'>,
  school: RuleSettings,
  district: RuleSettings,
): RuleEffect {
  return school[id] ?? district[id] ?? severity;
}
