import type { FindingPlace } from './audit-rule.js';
import type { Finding } from './run-rules.js';

/** What makes a finding the same one from run to run: the rule and what it is about, not the values it quotes. */
export function findingKey(finding: FindingPlace & Pick<Finding, 'ruleId'>): string {
  const { ruleId, enrollmentId, sectionId, courseId, itemId } = finding;
  return [ruleId, ...[enrollmentId, sectionId, courseId, itemId].map((id) => id ?? '')].join(':');
}

/** The other way round, as an address or the log names a finding. */
export function placeOfKey(key: string): FindingPlace & Pick<Finding, 'ruleId'> {
  const [ruleId, ...ids] = key.split(':');
  const [enrollmentId, sectionId, courseId, itemId] = ids.map((id) => (id === '' ? null : Number(id)));
  return {
    ruleId: ruleId!,
    enrollmentId: enrollmentId ?? null,
    sectionId: sectionId ?? null,
    courseId: courseId ?? null,
    itemId: itemId ?? null,
  };
}

export interface RunComparison {
  readonly added: ReadonlySet<string>;
  readonly still: ReadonlySet<string>;
  readonly gone: ReadonlySet<string>;
}

/** Keys that only the later run has, that both have, and that only the earlier one has. */
export function compareRuns(earlier: Iterable<string>, later: Iterable<string>): RunComparison {
  const [before, after] = [new Set(earlier), new Set(later)];
  return {
    added: new Set([...after].filter((key) => !before.has(key))),
    still: new Set([...after].filter((key) => before.has(key))),
    gone: new Set([...before].filter((key) => !after.has(key))),
  };
}
