import type { AuditRule, RuleFinding } from './audit-rule.js';
import { isExcepted } from './exceptions.js';
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
    const told = set ? found.filter((each) => !isExcepted(each, set, snapshot)) : found;
    return told.map((each) => ({ ...each, ruleId: rule.id }));
  });
}

export interface RuleFault {
  readonly ruleId: string;
  /** What went wrong, for whoever mends the rule. */
  readonly problem: string;
}

export interface RuleOutcomes {
  readonly findings: readonly Finding[];
  readonly faults: readonly RuleFault[];
  /** How many rules have had their turn. */
  readonly rulesDone: number;
}

/** So many grades are judged at once by a rule that looks at each by itself. */
const gradesAtOnce = 1_000;

/**
 * The same for an audit, step by step, so that others get their turn in between and somebody can see how far it is: what was
 * found up to then. A rule that throws finds nothing and is told of, so that nobody takes it for clean.
 */
export function* runRulesInTurn(
  rules: readonly AuditRule[],
  snapshot: Snapshot,
  inForce?: RulesInForce,
): Generator<RuleOutcomes> {
  const findings: Finding[] = [];
  const faults: RuleFault[] = [];
  for (const [rulesDone, rule] of rules.entries()) {
    const found: Finding[] = [];
    try {
      for (const part of partsFor(rule, snapshot)) {
        for (const each of runRules([rule], part, inForce)) found.push(each);
        yield { findings, faults, rulesDone };
      }
      for (const each of found) findings.push(each);
    } catch (error) {
      faults.push({ ruleId: rule.id, problem: error instanceof Error ? error.message : String(error) });
    }
    yield { findings, faults, rulesDone: rulesDone + 1 };
  }
}

/** The same at once: what was found when the last rule had its turn. */
export function outcomesOf(rules: readonly AuditRule[], snapshot: Snapshot, inForce?: RulesInForce): RuleOutcomes {
  let outcomes: RuleOutcomes = { findings: [], faults: [], rulesDone: 0 };
  for (outcomes of runRulesInTurn(rules, snapshot, inForce));
  return outcomes;
}

/** What a rule looks at in one step. */
function* partsFor({ scope }: AuditRule, snapshot: Snapshot): Generator<Snapshot> {
  const { grades } = snapshot;
  if (scope !== 'grade' || grades.length <= gradesAtOnce) yield snapshot;
  else
    for (let from = 0; from < grades.length; from += gradesAtOnce)
      yield { ...snapshot, grades: grades.slice(from, from + gradesAtOnce) };
}
