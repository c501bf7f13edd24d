import type { ReactNode } from 'react';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';

interface PreviewDialogProps {
  readonly title: string;
  readonly description: string;
  /** What carries it out, once it was looked at. */
  readonly act: string;
  readonly canAct: boolean;
  readonly onAct: () => void;
  readonly onClose: () => void;
  readonly children: ReactNode;
}

/** What is to be done, with what it would do below it; done only after that was seen. */
export function PreviewDialog({ title, description, act, canAct, onAct, onClose, children }: PreviewDialogProps) {
  return (
    <Dialog
      isWide
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title={title}
      description={description}
      footer={
        <>
          <Button look="main" disabled={!canAct} onClick={onAct}>
            {act}
          </Button>
          <Button onClick={onClose}>Cancel</Button>
        </>
      }
    >
      {children}
    </Dialog>
  );
}
