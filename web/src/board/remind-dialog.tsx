import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { counted } from '#contract/messages';
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
  const [at, setAt] = useState(0);
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
        {({ messages, skipped }) => (
          <div className="grid grid-cols-[240px_1fr] gap-5 text-[13px]">
            <div className="max-h-[46vh] overflow-auto">
              <ul>
                {messages.map(({ teacherId, teacher, sheets, earlier }, index) => (
                  <li key={teacherId}>
                    <button
                      type="button"
                      aria-pressed={index === at}
                      onClick={() => setAt(index)}
                      className="flex w-full justify-between gap-2 rounded px-2 py-1 text-left hover:bg-eucalypt-soft aria-pressed:bg-eucalypt-soft aria-pressed:font-semibold"
                    >
                      <span>
                        {teacher}
                        {earlier > 0 && (
                          <span className="block text-[12px] font-normal text-quiet">
                            reminded {counted(earlier, 'time')} before
                          </span>
                        )}
                      </span>
                      <span className="figures">{sheets}</span>
                    </button>
                  </li>
                ))}
              </ul>
              {skipped.map(({ teacher, why }) => (
                <p key={teacher} className="px-2 py-1 text-quiet">
                  {teacher} is skipped: {why}
                </p>
              ))}
            </div>
            {messages[at] ? (
              <div className="min-w-0">
                <p className="font-semibold">{messages[at].subject}</p>
                <p className="text-quiet">{messages[at].address}</p>
                <p className="mt-3 whitespace-pre-wrap">{messages[at].text}</p>
              </div>
            ) : (
              <p className="py-8 text-center text-quiet">Nobody here has an open sheet.</p>
            )}
          </div>
        )}
      </Awaited>
    </Dialog>
  );
}
