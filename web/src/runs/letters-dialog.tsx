import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import type { RunReply } from '#contract/runs';
import { counted } from '#contract/messages';
import { MessagesPreview } from '../mail/messages-preview';
import { Awaited } from '../shell/awaited';
import { useScope } from '../shell/scope';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { useRunLetters, useWriteLetters } from './run-queries';

/** What each teacher would be told about their own rows, before it is written. */
export function LettersDialog({ run, onClose }: { run: RunReply; onClose: () => void }) {
  const { path } = useScope();
  const navigate = useNavigate();
  const read = useRunLetters(run.id);
  const { data: letters } = read;
  const write = useWriteLetters(run.id);
  const send = () =>
    write.mutate(undefined, {
      onSuccess: ({ length }) => {
        toast.success(`${counted(length, 'message')} written.`, {
          action: { label: 'Outbox', onClick: () => void navigate(path('outbox')) },
        });
        onClose();
      },
    });
  return (
    <Dialog
      isWide
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title="Write to the teachers"
      description="Only about what they can put right on the platform; what you can mend here is not in it."
      footer={
        <>
          <Button look="main" disabled={!letters || letters.length === 0 || write.isPending} onClick={send}>
            Write {letters ? counted(letters.length, 'message') : ''}
          </Button>
          <Button onClick={onClose}>Back</Button>
        </>
      }
    >
      <Awaited query={read} waiting="Writing the messages">
        {(all) =>
          all.length === 0 ? (
            <p className="py-8 text-center text-quiet">No teacher has anything to correct.</p>
          ) : (
            <MessagesPreview messages={all.map(({ lines, ...message }) => ({ ...message, count: lines }))} />
          )
        }
      </Awaited>
    </Dialog>
  );
}
