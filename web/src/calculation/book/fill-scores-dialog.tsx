import { useState } from 'react';
import { readScore } from '#core/calculation';
import { decimalOrThrow } from '#core/numbers';
import { scoreFaultSentence, type AssignmentReply } from '#contract/calculation';
import { counted } from '#contract/messages';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { SelectField, TextField } from '../../ui/field';

interface FillScoresDialogProps {
  /** Assignments with how many students have nothing in them. */
  readonly blanks: readonly { readonly assignment: AssignmentReply; readonly count: number }[];
  readonly onFill: (assignment: AssignmentReply, text: string) => void;
  readonly onClose: () => void;
}

/** One score or flag for everybody who has none in an assignment. */
export function FillScoresDialog({ blanks, onFill, onClose }: FillScoresDialogProps) {
  const [chosenId, setChosenId] = useState(blanks[0]?.assignment.id);
  const [text, setText] = useState('missing');
  const [fault, setFault] = useState<string | undefined>();
  const chosen = blanks.find(({ assignment }) => assignment.id === chosenId);
  const fill = () => {
    if (!chosen) return;
    const { possible, isExtra } = chosen.assignment;
    const entry = readScore(text, { possible: decimalOrThrow(possible), isExtra });
    if (entry.kind === 'fault') setFault(scoreFaultSentence(entry.code, possible));
    else {
      onFill(chosen.assignment, text);
      onClose();
    }
  };
  return (
    <Dialog
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title="Fill empty cells"
      description="The scores stay unsaved until you save the book, and can be undone."
    >
      <form
        className="space-y-3"
        onSubmit={(event) => {
          event.preventDefault();
          fill();
        }}
      >
        <SelectField label="Assignment" value={chosenId} onChange={(event) => setChosenId(Number(event.target.value))}>
          {blanks.map(({ assignment, count }) => (
            <option key={assignment.id} value={assignment.id}>
              {assignment.name}: {counted(count, 'blank')}
            </option>
          ))}
        </SelectField>
        <TextField
          label="Points, or missing, late, incomplete, exempt, absent, collected"
          value={text}
          onChange={(event) => setText(event.target.value)}
          fault={fault}
        />
        <Button look="main" type="submit" disabled={!chosen}>
          Fill {chosen ? counted(chosen.count, 'blank') : ''}
        </Button>
      </form>
    </Dialog>
  );
}
