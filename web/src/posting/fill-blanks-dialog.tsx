import { counted } from '#contract/messages';
import { useState } from 'react';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { TextField } from '../ui/field';

interface FillBlanksProps {
  readonly isOpen: boolean;
  readonly onOpenChange: (isOpen: boolean) => void;
  readonly blanks: number;
  /** Answers with what is wrong, or undefined when the blanks were filled. */
  readonly onFill: (text: string) => string | undefined;
}

/** One value for every blank of the sheet. */
export function FillBlanksDialog({ isOpen, onOpenChange, blanks, onFill }: FillBlanksProps) {
  const [text, setText] = useState('');
  const [fault, setFault] = useState<string | undefined>();
  const fill = () => {
    const wrong = text.trim() === '' ? 'Type a percentage, a label or a code.' : onFill(text);
    setFault(wrong);
    if (wrong === undefined) onOpenChange(false);
  };
  return (
    <Dialog
      isOpen={isOpen}
      onOpenChange={onOpenChange}
      title={`Fill ${counted(blanks, 'blank')} with one value`}
      description="The grades stay unsaved until you save the sheet, and can be undone."
    >
      <form
        className="flex items-start gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          fill();
        }}
      >
        <TextField
          label="Percentage, label or code"
          value={text}
          autoFocus
          onChange={(event) => setText(event.target.value)}
          fault={fault}
          className="flex-1"
        />
        <Button look="main" type="submit" className="mt-[25px] h-9">
          Fill
        </Button>
      </form>
    </Dialog>
  );
}
