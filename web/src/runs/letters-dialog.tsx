import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import type { RunReply } from '#contract/runs';
import { counted } from '#contract/messages';
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
  const [at, setAt] = useState(0);
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
            <div className="grid grid-cols-[220px_1fr] gap-5 text-[13px]">
              <ul className="max-h-[52vh] overflow-auto">
                {all.map(({ to, lines }, index) => (
                  <li key={to + index}>
                    <button
                      type="button"
                      aria-pressed={index === at}
                      onClick={() => setAt(index)}
                      className="flex w-full justify-between rounded px-2 py-1 text-left hover:bg-eucalypt-soft aria-pressed:bg-eucalypt-soft aria-pressed:font-semibold"
                    >
                      {to} <span className="figures">{lines}</span>
                    </button>
                  </li>
                ))}
              </ul>
              <div className="min-w-0">
                <p className="font-semibold">{all[at]!.subject}</p>
                <p className="text-quiet">{all[at]!.address}</p>
                <p className="mt-3 whitespace-pre-wrap">{all[at]!.text}</p>
              </div>
            </div>
          )
        }
      </Awaited>
    </Dialog>
  );
}
