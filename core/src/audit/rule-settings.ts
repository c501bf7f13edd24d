import type { AuditRule, Severity } from './audit-rule.js';

/** What a rule does in a school: as severe as this, or nothing at all. */
export const ruleEffects = ['blocks', 'warns', 'informs', 'off'] as const satisfies readonly (Severity | 'off')[];
export type RuleEffect = (typeof ruleEffects)[number];

/** What a rule leaves alone: the courses of departments, by their names, and single courses, by their ids. */
export interface RuleExceptions {
  readonly departments: readonly string[];
  readonly courses: readonly number[];
}

/** What was set of a rule; what is not said is as it comes. */
export interface RuleSetting {
  readonly effect?: RuleEffect;
  /** Where it begins to find something, in the unit of the rule's own threshold. */
  readonly threshold?: number;
  readonly exceptions?: RuleExceptions;
}

/** By the ids of rules. */
export type RuleSettings = Readonly<Record<string, RuleSetting>>;

/** What a rule does in a school, as a run keeps it and a certificate tells. */
export interface RuleInForce {
  readonly id: string;
  readonly version: number;
  readonly severity: RuleEffect;
  /** Null for a rule that has none. */
  readonly threshold: number | null;
  readonly exceptions: RuleExceptions;
}

export const noExceptions: RuleExceptions = { departments: [], courses: [] };

type Set = Pick<AuditRule, 'id' | 'version' | 'severity' | 'threshold'>;

/**
 * A rule as it is in force: the school's own word, else the district's, else the rule's; exceptions of either hold.
 * @example ruleInForce(zeroPosted, {}, { 'zero-posted': { effect: 'warns' } }).severity // 'warns'
 */
export function ruleInForce(rule: Set, school: RuleSettings, district: RuleSettings): RuleInForce {
  const [own, shared] = [school[rule.id] ?? {}, district[rule.id] ?? {}];
  const all = [own.exceptions ?? noExceptions, shared.exceptions ?? noExceptions];
  return {
    id: rule.id,
    version: rule.version,
    severity: own.effect ?? shared.effect ?? rule.severity,
    threshold: rule.threshold ? (own.threshold ?? shared.threshold ?? rule.threshold.usual) : null,
    exceptions: {
      departments: [...new Set(all.flatMap(({ departments }) => departments))].toSorted(),
      courses: [...new Set(all.flatMap(({ courses }) => courses))].toSorted((a, b) => a - b),
    },
  };
}

/** What a rule does to the grades of a course: nothing where the course is left alone. */
export function effectIn(
  { severity, exceptions: { departments, courses } }: RuleInForce,
  course: { readonly id: number; readonly department: string },
): RuleEffect {
  return courses.includes(course.id) || departments.includes(course.department) ? 'off' : severity;
}

/** A rule as it is in force for some courses: of what it leaves alone only what is of them. */
export function inForceFor(
  rule: RuleInForce,
  own: readonly { readonly id: number; readonly department: string }[],
): RuleInForce {
  const { departments, courses } = rule.exceptions;
  return {
    ...rule,
    exceptions: {
      departments: departments.filter((name) => own.some(({ department }) => department === name)),
      courses: courses.filter((course) => own.some(({ id }) => id === course)),
    },
  };
}

/** Whether a rule does the same: whoever relied on the one may rely on the other. */
export function isSameInForce(one: RuleInForce, other: RuleInForce): boolean {
  return JSON.stringify(wordOf(one)) === JSON.stringify(wordOf(other));
}

const wordOf = ({ id, version, severity, threshold, exceptions: { departments, courses } }: RuleInForce) => [
  id,
  version,
  severity,
  threshold,
  departments,
  courses,
];
