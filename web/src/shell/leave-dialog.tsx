import { counted } from '#contract/messages';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { discardDrafts } from './kept-drafts';

interface LeaveDialogProps {
  readonly isOpen: boolean;
  readonly onOpenChange: (isOpen: boolean) => void;
  /** Things changed and not saved. */
  readonly unsaved: number;
  readonly onLeave: () => void;
}

/** Asks somebody who signs out what is to become of what they have not saved. */
export function LeaveDialog({ isOpen, onOpenChange, unsaved, onLeave }: LeaveDialogProps) {
  const leave = () => {
    onOpenChange(false);
    onLeave();
  };
  return (
    <Dialog
      isOpen={isOpen}
      onOpenChange={onOpenChange}
      title={`You have unsaved changes to ${counted(unsaved, 'thing')}`}
      footer={
        <>
          <Button look="main" autoFocus onClick={leave}>
            Keep them and sign out
          </Button>
          <Button
            look="danger"
            onClick={() => {
              discardDrafts();
              leave();
            }}
          >
            Discard them and sign out
          </Button>
          <Button className="ml-auto" onClick={() => onOpenChange(false)}>
            Stay
          </Button>
        </>
      }
    >
      <p>
        Kept, they stay in this browser and are here when you sign in again. Nobody else who signs in sees them or can
        save them.
      </p>
    </Dialog>
  );
}
