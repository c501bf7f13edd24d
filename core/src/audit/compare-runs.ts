import type { Finding } from './run-rules.js';

/** What makes a finding the same one from run to run: the rule and the grade, not the values it quotes. */
export function findingKey({
  ruleId,
  enrollmentId,
  itemId,
}: Pick<Finding, 'ruleId' | 'enrollmentId' | 'itemId'>): string {
  return `${ruleId}:${enrollmentId}:${itemId}`;
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
