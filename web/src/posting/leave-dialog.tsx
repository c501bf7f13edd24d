import { counted } from '#contract/messages';
import type { Blocker } from 'react-router';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';

/** Asks before a sheet with unsaved marks is left. They are kept on this machine unless they are discarded. */
export function LeaveDialog({
  blocker,
  unsaved,
  onForget,
}: {
  blocker: Blocker;
  unsaved: number;
  onForget: () => void;
}) {
  return (
    <Dialog
      isOpen={blocker.state === 'blocked'}
      onOpenChange={(isOpen) => !isOpen && blocker.reset?.()}
      title={`${counted(unsaved, 'entry')} not saved yet`}
      description="Nobody else sees them until you save. If you keep them, they stay here on this computer."
    >
      <div className="flex gap-2">
        <Button look="main" writes={false} autoFocus onClick={() => blocker.reset?.()}>
          Stay here
        </Button>
        <Button onClick={() => blocker.proceed?.()}>Leave and keep them</Button>
        <Button
          look="danger"
          onClick={() => {
            onForget();
            blocker.proceed?.();
          }}
        >
          Leave and discard them
        </Button>
      </div>
    </Dialog>
  );
}
