import type { AuditRule, RuleFinding } from '#core/audit';
import { formatMessage } from '#contract/messages';

/**
 * What a rule found, in a sentence.
 *
 * @throws Error for a finding that its rule has no message for
 */
export function findingSentence(rule: AuditRule, { message, data }: Pick<RuleFinding, 'message' | 'data'>): string {
  const sentence = rule.messages[message];
  if (sentence === undefined) throw new Error(`rule ${rule.id} has no message "${message}"`);
  return formatMessage(sentence, data);
}
