import { auditRules, seenInPart, type PartSeen, type RulesInForce } from '#core/audit';
import { snapshotOf, type PartRead } from '../snapshots/part-read.js';

/** A part of an audit, for a thread to look at. */
export interface PartTask {
  readonly part: PartRead;
  readonly inForce: RulesInForce;
}

/** What came of it. */
export interface PartLooked {
  readonly seen: PartSeen;
  /** How many grades are expected or posted in it. */
  readonly gradeCount: number;
}

/** What came of it; or which versions of scales have to come with it. */
export type PartLook = PartLooked | { readonly missing: readonly number[] };

/** Lets all rules look at a part that was read. */
export default function lookAtPart({ part, inForce }: PartTask): PartLook {
  const snapshot = snapshotOf(part);
  if ('missing' in snapshot) return snapshot;
  return { seen: seenInPart(auditRules, inForce, snapshot), gradeCount: snapshot.grades.length };
}
