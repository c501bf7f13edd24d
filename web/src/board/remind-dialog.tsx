import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { counted } from '#contract/messages';
import { MessagesPreview } from '../mail/messages-preview';
import { Awaited } from '../shell/awaited';
import { useScope } from '../shell/scope';
import { showProblem } from '../shell/show-problem';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { TextField } from '../ui/field';
import { useReminderPreview, useSendReminders } from './queries';

/** What each teacher would be reminded of, word for word, before anything is sent. */
export function RemindDialog({ teacherIds, onClose }: { teacherIds: readonly number[]; onClose: () => void }) {
  const { periodId, path } = useScope();
  const navigate = useNavigate();
  const [typed, setTyped] = useState('');
  const [note, setNote] = useState('');
  const read = useReminderPreview(periodId, { teacherIds: [...teacherIds], note });
  const send = useSendReminders(periodId);
  const preview = read.data;
  const submit = () =>
    preview &&
    send.mutate(
      { teacherIds: [...teacherIds], note, fingerprint: preview.fingerprint },
      {
        onSuccess: ({ messages }) => {
          toast.success(`${counted(messages.length, 'reminder')} sent to the outbox.`, {
            action: { label: 'Outbox', onClick: () => void navigate(path('outbox')) },
          });
          onClose();
        },
        onError: showProblem,
      },
    );
  const isTold = typed.trim() === note;
  return (
    <Dialog
      isWide
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title={`Remind ${counted(teacherIds.length, 'teacher')}`}
      description="One message for each teacher about all of their sheets that are due and not signed off. No student is named in it."
      footer={
        <>
          <Button
            look="main"
            disabled={!preview || preview.messages.length === 0 || send.isPending || !isTold}
            onClick={submit}
          >
            Send {preview ? counted(preview.messages.length, 'message') : ''}
          </Button>
          <Button onClick={onClose}>Back</Button>
        </>
      }
    >
      <form
        className="mb-3 flex items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          setNote(typed.trim());
        }}
      >
        <TextField
          label="Your own words at the end (optional)"
          value={typed}
          maxLength={1000}
          onChange={(event) => setTyped(event.target.value)}
          onBlur={() => setNote(typed.trim())}
          className="flex-1"
        />
        <Button type="submit" className="h-9" disabled={isTold}>
          Add
        </Button>
      </form>
      <Awaited query={read} waiting="Writing the messages">
        {({ messages, skipped }) => {
          const left = skipped.map(({ teacher, why }) => (
            <p key={teacher} className="px-2 py-1 text-quiet">
              {teacher} is skipped: {why}
            </p>
          ));
          if (messages.length === 0) return <div className="py-4 text-[13px]">{left}</div>;
          const shown = messages.map(({ teacher, address, subject, text, sheets, earlier }) => ({
            to: teacher,
            address,
            subject,
            text,
            count: sheets,
            note: earlier > 0 ? `reminded ${counted(earlier, 'time')} before` : undefined,
          }));
          return <MessagesPreview messages={shown} below={left} />;
        }}
      </Awaited>
    </Dialog>
  );
}
