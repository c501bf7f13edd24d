import type { AuditRule } from './audit-rule.js';
import { createCourseFinder, isExcepted } from './exceptions.js';
import { runRules, type Finding, type RuleFault, type RuleOutcomes, type RulesInForce } from './run-rules.js';
import type { Snapshot } from './snapshot.js';

/** An audit under way: it keeps what was found, and of each part no more than the rules that compare parts need. */
export interface AuditByParts {
  /** Lets every rule look at a part, one at a step, so that others get their turn in between. */
  lookAt(part: Snapshot): Generator<void>;
  /** Lets the rules that compare parts conclude, once every part was looked at. */
  conclude(): Generator<void>;
  /** What was found up to now. */
  outcomes(): RuleOutcomes;
}

/**
 * Begins an audit of a period that is read a part at a time: sections with all of their grades, each in one part. In whatever
 * order the parts come, it finds what an audit of all at once would find.
 */
export function auditByParts(rules: readonly AuditRule[], inForce: RulesInForce): AuditByParts {
  const looking = rules.filter(({ id }) => inForce.get(id)?.severity !== 'off');
  const found = new Map(looking.map(({ id }): [string, Finding[]] => [id, []]));
  const gathered = new Map(looking.flatMap((rule): [string, unknown[]][] => (rule.together ? [[rule.id, []]] : [])));
  const faults = new Map<string, RuleFault>();
  const courses = createCourseFinder();
  const isComparedWithExceptions = looking.some(({ id, together }) => {
    const { departments, courses: left } = inForce.get(id)?.exceptions ?? { departments: [], courses: [] };
    return together !== undefined && departments.length + left.length > 0;
  });
  /** Lets rules do something, one after the other; whichever throws has had its last turn. */
  function* inTurn(does: (rule: AuditRule) => void): Generator<void> {
    for (const rule of looking.filter(({ id }) => !faults.has(id))) {
      try {
        does(rule);
      } catch (error) {
        faults.set(rule.id, { ruleId: rule.id, problem: error instanceof Error ? error.message : String(error) });
      }
      yield;
    }
  }
  const thresholdOf = ({ id, threshold }: AuditRule) => inForce.get(id)?.threshold ?? threshold?.usual ?? 0;
  return {
    lookAt(part) {
      if (isComparedWithExceptions) courses.add(part.sections);
      return inTurn((rule) => {
        if (rule.together) append(gathered.get(rule.id)!, rule.together.gather(part, thresholdOf(rule)));
        else append(found.get(rule.id)!, runRules([rule], part, inForce));
      });
    },
    conclude: () =>
      inTurn((rule) => {
        if (!rule.together) return;
        const set = inForce.get(rule.id);
        const own = found.get(rule.id)!;
        for (const finding of rule.together.conclude(gathered.get(rule.id)!, thresholdOf(rule)))
          if (!set || !isExcepted(finding, set, courses.courseOf)) own.push({ ...finding, ruleId: rule.id });
      }),
    outcomes: () => ({
      findings: [...found].flatMap(([id, own]) => (faults.has(id) ? [] : own)),
      faults: [...faults.values()],
    }),
  };
}

/** The same at once: what rules find in a period, and which of them could not look. */
export function outcomesOf(
  rules: readonly AuditRule[],
  snapshot: Snapshot,
  inForce: RulesInForce = new Map(),
): RuleOutcomes {
  const audit = auditByParts(rules, inForce);
  Array.from(audit.lookAt(snapshot));
  Array.from(audit.conclude());
  return audit.outcomes();
}

/** One by one: so many that a call could not take them all may come. */
function append<Value>(all: Value[], more: Iterable<Value>): void {
  for (const each of more) all.push(each);
}
