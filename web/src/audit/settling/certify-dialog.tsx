import { useState } from 'react';
import type { AuditRunReply } from '#contract/audit';
import { counted } from '#contract/messages';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { AreaField } from '../../ui/field';
import { isWaived } from '../order-findings';

interface CertifyDialogProps {
  readonly run: AuditRunReply;
  readonly rules: number;
  readonly periodName: string;
  readonly isPending: boolean;
  readonly onIssue: (note: string) => void;
  readonly onClose: () => void;
}

/** What the certificate will say, before it is issued. */
export function CertifyDialog({ run, rules, periodName, isPending, onIssue, onClose }: CertifyDialogProps) {
  const [note, setNote] = useState('');
  const waived = run.findings.filter(isWaived);
  const left = run.findings.length - waived.length;
  return (
    <Dialog
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title={`Issue the certificate of ${periodName}?`}
      description="It says what was checked, by which rules, and what was let stand by whom and why. It breaks visibly as soon as a grade, a rule or a waiver changes; another one can be issued at any time."
      footer={
        <>
          <Button look="main" disabled={isPending} onClick={() => onIssue(note.trim())}>
            Issue the certificate
          </Button>
          <Button onClick={onClose}>Cancel</Button>
        </>
      }
    >
      <ul className="mb-3 list-disc pl-5">
        <li>
          {counted(run.gradesChecked, 'grade')} checked by {counted(rules, 'rule')}
        </li>
        <li>{counted(waived.length, 'finding')} let stand, each with its reason</li>
        {left > 0 && <li>{counted(left, 'finding')} left that warn or inform</li>}
      </ul>
      <AreaField
        label="Note for whoever reads it (may be empty)"
        maxLength={1000}
        value={note}
        onChange={(event) => setNote(event.target.value)}
      />
    </Dialog>
  );
}
