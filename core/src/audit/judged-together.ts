import type { AuditRule, RuleFinding } from './audit-rule.js';
import type { Snapshot } from './snapshot.js';

/** How a rule judges what lies in several sections: it gathers what it needs of each part of a period, and concludes from all. */
export interface Together<Look> {
  /** What it needs of a part: little, as it is kept until all parts were looked at. */
  gather(part: Snapshot, threshold: number): Iterable<Look>;
  /** What it finds, having looked at all parts in whatever order. */
  conclude(looks: readonly Look[], threshold: number): Iterable<RuleFinding>;
}

/** What makes a rule of both: a period that is looked at in one part gives the same. */
export function judgedTogether<Look>(together: Together<Look>): Pick<AuditRule, 'check' | 'together'> {
  return {
    check: (snapshot, threshold) => together.conclude([...together.gather(snapshot, threshold)], threshold),
    together,
  };
}
