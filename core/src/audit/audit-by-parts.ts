import type { AuditRule } from './audit-rule.js';
import { createCourseFinder, isExcepted, type CoursePlace } from './exceptions.js';
import { noExceptions } from './rule-settings.js';
import { runRules, type Finding, type RuleFault, type RuleOutcomes, type RulesInForce } from './run-rules.js';
import type { Snapshot } from './snapshot.js';

/** What rules saw in a part, as plain data: whoever looked at it in a thread of their own can hand it over. */
export interface PartSeen {
  /** By rule, of those that look at single sections. */
  readonly found: readonly (readonly [ruleId: string, readonly Finding[]])[];
  /** By rule, what those that compare parts need of it. */
  readonly gathered: readonly (readonly [ruleId: string, readonly unknown[]])[];
  /** Rules that threw. */
  readonly faults: readonly RuleFault[];
  /** Whose findings are of which course; empty where nobody asks. */
  readonly places: readonly CoursePlace[];
}

/** An audit under way: it keeps what was found, and of each part no more than the rules that compare parts need. */
export interface AuditByParts {
  /** Lets every rule look at a part, one at a step, so that others get their turn in between. */
  lookAt(part: Snapshot): Generator<void>;
  /** Takes what was seen in a part by `seenInPart`. */
  take(seen: PartSeen): void;
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
  const looking = lookingOf(rules, inForce);
  const found = new Map(looking.map(({ id }): [string, Finding[]] => [id, []]));
  const gathered = new Map(looking.flatMap((rule): [string, unknown[]][] => (rule.together ? [[rule.id, []]] : [])));
  const faults = new Map<string, RuleFault>();
  const courses = createCourseFinder();
  const isWell = ({ id }: AuditRule) => !faults.has(id);
  function take(seen: PartSeen): void {
    for (const [id, own] of seen.found) append(found.get(id)!, own);
    for (const [id, own] of seen.gathered) append(gathered.get(id)!, own);
    for (const fault of seen.faults) if (!faults.has(fault.ruleId)) faults.set(fault.ruleId, fault);
    courses.add(seen.places);
  }
  return {
    *lookAt(part) {
      take(yield* lookInPart(looking.filter(isWell), inForce, part));
    },
    take,
    conclude: () =>
      inTurn(looking.filter(isWell), faults, (rule) => {
        if (!rule.together) return;
        const set = inForce.get(rule.id);
        const own = found.get(rule.id)!;
        for (const finding of rule.together.conclude(gathered.get(rule.id)!, thresholdIn(inForce, rule)))
          if (!set || !isExcepted(finding, set, courses.courseOf)) own.push({ ...finding, ruleId: rule.id });
      }),
    outcomes: () => ({
      findings: [...found].flatMap(([id, own]) => (faults.has(id) ? [] : own)),
      faults: [...faults.values()],
    }),
  };
}

/** What the rules that are not off see in a part. */
export function seenInPart(rules: readonly AuditRule[], inForce: RulesInForce, part: Snapshot): PartSeen {
  const looking = lookInPart(lookingOf(rules, inForce), inForce, part);
  for (;;) {
    const step = looking.next();
    if (step.done) return step.value;
  }
}

function* lookInPart(rules: readonly AuditRule[], inForce: RulesInForce, part: Snapshot): Generator<void, PartSeen> {
  const found: [string, Finding[]][] = [];
  const gathered: [string, unknown[]][] = [];
  const faults = new Map<string, RuleFault>();
  yield* inTurn(rules, faults, (rule) => {
    if (rule.together) gathered.push([rule.id, [...rule.together.gather(part, thresholdIn(inForce, rule))]]);
    else found.push([rule.id, runRules([rule], part, inForce)]);
  });
  return { found, gathered, faults: [...faults.values()], places: placesIn(rules, inForce, part) };
}

/** Lets rules do something, one after the other; whichever throws is noted, and has had its last turn. */
function* inTurn(
  rules: readonly AuditRule[],
  faults: Map<string, RuleFault>,
  does: (rule: AuditRule) => void,
): Generator<void, void> {
  for (const rule of rules) {
    try {
      does(rule);
    } catch (error) {
      faults.set(rule.id, { ruleId: rule.id, problem: error instanceof Error ? error.message : String(error) });
    }
    yield;
  }
}

function lookingOf(rules: readonly AuditRule[], inForce: RulesInForce): readonly AuditRule[] {
  return rules.filter(({ id }) => inForce.get(id)?.severity !== 'off');
}

function thresholdIn(inForce: RulesInForce, { id, threshold }: AuditRule): number {
  return inForce.get(id)?.threshold ?? threshold?.usual ?? 0;
}

/** What has to be kept of a part where a rule that compares parts leaves courses alone. */
function placesIn(rules: readonly AuditRule[], inForce: RulesInForce, { sections }: Snapshot): readonly CoursePlace[] {
  const asks = rules.some(({ id, together }) => {
    const { departments, courses } = inForce.get(id)?.exceptions ?? noExceptions;
    return together !== undefined && departments.length + courses.length > 0;
  });
  return asks ? sections.map(({ id, course, students }) => ({ id, course, students })) : [];
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
