import type { Severity } from '#core/audit';
import type { AuditRunReply, FindingReply } from '#contract/audit';
import { agreeing, counted } from '#contract/messages';

export const severities = ['blocks', 'warns', 'informs'] as const satisfies readonly Severity[];

export const isWaived = ({ waiver }: FindingReply): boolean => waiver?.state === 'holds';

/** Whether nothing is left to be done about it: somebody let it stand, or it is there no longer. */
export const isSettled = (finding: FindingReply): boolean => isWaived(finding) || finding.isGone;

/** What findings are gathered by beside their rules. */
export const groupings = ['rule', 'course', 'teacher', 'student', 'assignee'] as const;
export type Grouping = (typeof groupings)[number];

/** The name of a finding's group; null where it belongs to none, as a finding about an item has no student. */
export function groupOf(finding: FindingReply, by: Grouping): string | null {
  if (by === 'rule') return finding.ruleId;
  return (by === 'assignee' ? finding.note?.assignedTo?.name : finding[by]) || null;
}

/** What stops the seal comes first, what is settled last; within, as they come. */
export function orderFindings(
  findings: readonly FindingReply[],
  severityOf: ReadonlyMap<string, Severity>,
): FindingReply[] {
  const rankOf = (finding: FindingReply) =>
    severities.indexOf(severityOf.get(finding.ruleId) ?? 'informs') + (isSettled(finding) ? severities.length : 0);
  return findings.toSorted((a, b) => rankOf(a) - rankOf(b));
}

/** What the same rule found besides, and is not settled. */
export const alikeOf = ({ findings }: AuditRunReply, { ruleId, key }: FindingReply): FindingReply[] =>
  findings.filter((each) => each.ruleId === ruleId && each.key !== key && !isSettled(each));

/** What stands against a certificate of all of the period, in sentences: a finding blocks, or a grade changed since. */
export function againstCertificate(
  { findings, changedSince }: AuditRunReply,
  severityOf: ReadonlyMap<string, Severity>,
): string[] {
  const blocks = (finding: FindingReply) => severityOf.get(finding.ruleId) === 'blocks' && !isWaived(finding);
  const blocking = findings.filter(blocks).length;
  return [
    ...(blocking > 0 ? [`${counted(blocking, 'finding')} ${agreeing(blocking, 'blocks')}.`] : []),
    ...(changedSince > 0 ? [`${counted(changedSince, 'grade')} changed after the audit.`] : []),
  ];
}
