import { useState } from 'react';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { TextField } from '../ui/field';

interface AnswerDialogProps {
  readonly isOpen: boolean;
  readonly onOpenChange: (isOpen: boolean) => void;
  readonly title: string;
  readonly description?: string;
  readonly label: string;
  readonly action: string;
  readonly onAnswer: (text: string) => void;
}

/** A few words that go with a decision. */
export function AnswerDialog({ isOpen, onOpenChange, title, description, label, action, onAnswer }: AnswerDialogProps) {
  const [text, setText] = useState('');
  return (
    <Dialog isOpen={isOpen} onOpenChange={onOpenChange} title={title} description={description}>
      <form
        className="flex items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          onOpenChange(false);
          onAnswer(text.trim());
        }}
      >
        <TextField
          label={label}
          value={text}
          autoFocus
          maxLength={1000}
          onChange={(event) => setText(event.target.value)}
          className="flex-1"
        />
        <Button look="main" type="submit" className="h-9">
          {action}
        </Button>
      </form>
    </Dialog>
  );
}
