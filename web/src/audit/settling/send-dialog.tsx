import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import type { AuditRunReply, FindingReply } from '#contract/audit';
import { counted } from '#contract/messages';
import { MessagesPreview } from '../../mail/messages-preview';
import { Awaited } from '../../shell/awaited';
import { useScope } from '../../shell/scope';
import { showProblem } from '../../shell/show-problem';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Choice, TextField } from '../../ui/field';
import { alikeOf, isSettled } from '../order-findings';
import { useSendFindings, useSendPreview } from '../queries';

interface SendDialogProps {
  readonly finding: FindingReply;
  readonly run: AuditRunReply;
  readonly onClose: () => void;
}

const extents = ['one', 'alike', 'teacher'] as const;
type Extent = (typeof extents)[number];

/** What each teacher would be told of, word for word, before anything is sent. */
export function SendDialog({ finding, run, onClose }: SendDialogProps) {
  const { periodId, path } = useScope();
  const navigate = useNavigate();
  const [extent, setExtent] = useState<Extent>('one');
  const [typed, setTyped] = useState('');
  const [note, setNote] = useState('');
  const chosen: Readonly<Record<Extent, readonly FindingReply[]>> = {
    one: [finding],
    alike: [finding, ...alikeOf(run, finding)],
    teacher: run.findings.filter((each) => each.teacher === finding.teacher && !isSettled(each)),
  };
  const findings = chosen[extent];
  const read = useSendPreview(periodId, findings, note);
  const send = useSendFindings(periodId);
  const preview = read.data;
  const isTold = typed.trim() === note;
  const submit = () =>
    preview &&
    send.mutate(
      { findings, note, fingerprint: preview.fingerprint },
      {
        onSuccess: ({ messages }) => {
          toast.success(`${counted(messages.length, 'message')} sent to the outbox.`, {
            action: { label: 'Outbox', onClick: () => void navigate(path('outbox')) },
          });
          onClose();
        },
        onError: showProblem,
      },
    );
  return (
    <Dialog
      isWide
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title="Tell the teacher?"
      description="One message for each teacher, about findings in their own sections alone. No student is named in it."
      footer={
        <>
          <Button
            look="main"
            disabled={!preview || preview.messages.length === 0 || send.isPending || read.isFetching || !isTold}
            onClick={submit}
          >
            Send {preview ? counted(preview.messages.length, 'message') : ''}
          </Button>
          <Button onClick={onClose}>Back</Button>
        </>
      }
    >
      <p className="mb-3">
        Tell of{' '}
        <Choice
          label="Which findings"
          value={extent}
          onChange={(event) => setExtent(extents.find((each) => each === event.target.value) ?? 'one')}
        >
          <option value="one">this finding</option>
          <option value="alike">all {chosen.alike.length} of this rule</option>
          <option value="teacher">all {chosen.teacher.length} of this teacher</option>
        </Choice>
      </p>
      <TextField
        label="Your own words at the end (optional)"
        value={typed}
        maxLength={1000}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => setNote(typed.trim())}
        className="mb-3"
      />
      <Awaited query={read} waiting="Writing the messages">
        {({ messages, skipped }) => (
          <MessagesPreview
            messages={messages.map(({ teacher, address, subject, text, findings: count, earlier }) => ({
              to: teacher,
              address,
              subject,
              text,
              count,
              note: earlier > 0 ? `told of ${earlier} before` : undefined,
            }))}
            below={skipped.map(({ who, why }) => (
              <p key={who} className="px-2 py-1 text-quiet">
                {who} is skipped: {why}
              </p>
            ))}
          />
        )}
      </Awaited>
    </Dialog>
  );
}
