import { setImmediate } from 'node:timers/promises';
import type { RuleOutcomes } from '#core/audit';

/**
 * Lets rules look one after the other, others being answered in between.
 * @param between what is done between two steps; what it throws ends the audit
 */
export async function takeTurns(
  turns: Iterable<RuleOutcomes>,
  between: (outcomes: RuleOutcomes) => Promise<void> | void = () => undefined,
): Promise<RuleOutcomes> {
  let outcomes: RuleOutcomes = { findings: [], faults: [], rulesDone: 0 };
  for (outcomes of turns) {
    await setImmediate();
    await between(outcomes);
  }
  return outcomes;
}
