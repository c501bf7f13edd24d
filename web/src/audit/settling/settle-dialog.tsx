import type { Day } from '#core/calendar';
import type { AuditReply, AuditRunReply, FindingReply } from '#contract/audit';
import type { PeriodReply } from '#contract/calendar';
import { counted } from '#contract/messages';
import { useTellOfChange } from '../../changes/use-tell-of-change';
import { showProblem } from '../../shell/show-problem';
import { CertifyDialog } from './certify-dialog';
import { MendDialog } from './mend-dialog';
import { againstCertificate, alikeOf } from '../order-findings';
import { NoteDialog } from './note-dialog';
import { useCertify, useNoteFindings, useWaive } from '../queries';
import { SendDialog } from './send-dialog';
import { WaiveDialog } from './waive-dialog';

/** What is being done about what was found: one finding mended, let stand or told of, or all of it certified. */
export type Settling =
  | { readonly how: 'mend' | 'waive' | 'send' | 'note'; readonly finding: FindingReply }
  | { readonly how: 'certify' };

interface SettleDialogProps {
  readonly settling: Settling;
  readonly audit: Pick<AuditReply, 'rules'> & { readonly run: AuditRunReply };
  readonly period: PeriodReply;
  readonly today: Day;
  readonly onClose: () => void;
}

/** Asks for what a step towards the seal needs, and takes it. */
export function SettleDialog({ settling, audit: { rules, run }, period, today, onClose }: SettleDialogProps) {
  const waive = useWaive(period.id);
  const note = useNoteFindings(period.id);
  const certify = useCertify(period.id);
  const tellOfChange = useTellOfChange();
  const settled = (says: string) => ({
    onSuccess: (reply: AuditReply) => {
      onClose();
      tellOfChange(says, reply);
    },
    onError: showProblem,
  });
  if (settling.how === 'certify')
    return (
      <CertifyDialog
        run={run}
        rules={rules.filter(({ isOff }) => !isOff).length}
        period={period}
        against={againstCertificate(run, new Map(rules.map(({ id, severity }) => [id, severity])))}
        isPending={certify.isPending}
        onIssue={(certificate) => certify.mutate(certificate, { onSuccess: onClose, onError: showProblem })}
        onClose={onClose}
      />
    );
  // As it is now: somebody else may have said something of it while the dialog is open.
  const finding = run.findings.find(({ key }) => key === settling.finding.key) ?? settling.finding;
  if (settling.how === 'send') return <SendDialog finding={finding} run={run} onClose={onClose} />;
  const rule = rules.find(({ id }) => id === finding.ruleId)!;
  const shared = { finding, alike: alikeOf(run, finding), summary: rule.summary, onClose };
  if (settling.how === 'mend')
    return (
      <MendDialog
        {...shared}
        fix={rule.fix!}
        periodId={period.id}
        onMended={(reply) => {
          onClose();
          tellOfChange(`${counted(reply.changes.length, 'grade')} set right.`, reply);
        }}
      />
    );
  if (settling.how === 'note')
    return (
      <NoteDialog
        {...shared}
        periodId={period.id}
        isPending={note.isPending}
        problem={note.error}
        onNote={(findings, says) =>
          note.mutate({ findings, ...says }, settled(`Said of ${counted(findings.length, 'finding')}.`))
        }
      />
    );
  return (
    <WaiveDialog
      {...shared}
      today={today}
      isPending={waive.isPending}
      problem={waive.error}
      onWaive={(findings, decision) =>
        waive.mutate({ findings, ...decision }, settled(`${counted(findings.length, 'finding')} waived.`))
      }
    />
  );
}
