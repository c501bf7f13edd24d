import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';

interface OutsideDialogProps {
  readonly isOpen: boolean;
  readonly onOpenChange: (isOpen: boolean) => void;
  readonly itemName: string;
  readonly periodName: string;
  readonly onPost: () => void;
}

/** Asks before grades are posted for a period whose window is not open. */
export function OutsideDialog({ isOpen, onOpenChange, itemName, periodName, onPost }: OutsideDialogProps) {
  return (
    <Dialog
      isOpen={isOpen}
      onOpenChange={onOpenChange}
      title={`Post for ${periodName} outside its window?`}
      description={`The window of ${itemName} in ${periodName} is not open now. The change log will say that you posted outside it.`}
    >
      <div className="flex gap-2">
        <Button look="main" autoFocus onClick={() => onOpenChange(false)}>
          Not now
        </Button>
        <Button
          look="danger"
          onClick={() => {
            onOpenChange(false);
            onPost();
          }}
        >
          Post for {periodName}
        </Button>
      </div>
    </Dialog>
  );
}
