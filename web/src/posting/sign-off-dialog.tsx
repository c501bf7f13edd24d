import { useState } from 'react';
import { isLacking, type SheetCounts } from '#core/board';
import { lacksInWords } from '#contract/board';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { AreaField } from '../ui/field';

interface SignOffDialogProps {
  readonly isOpen: boolean;
  readonly onOpenChange: (isOpen: boolean) => void;
  /** The sheet in words: "Quarter grade of Knots 2, Quarter 2". */
  readonly sheetName: string;
  readonly counts: SheetCounts;
  readonly onBehalfOf: string | null;
  readonly isPending: boolean;
  readonly onSignOff: (note: string) => void;
}

/** What is still missing on a sheet, and a note for the registrar, before the word is given that it is finished. */
export function SignOffDialog(props: SignOffDialogProps) {
  const { isOpen, onOpenChange, sheetName, counts, onBehalfOf, isPending, onSignOff } = props;
  const [note, setNote] = useState('');
  const lacks = lacksInWords(counts);
  return (
    <Dialog
      isOpen={isOpen}
      onOpenChange={onOpenChange}
      title={`Sign off ${sheetName}?`}
      description={
        onBehalfOf
          ? `You sign off on behalf of ${onBehalfOf}; the record says so. Grades then stay as they are until the sign-off is taken back.`
          : 'You say that these grades are finished. They stay as they are until you take the sign-off back.'
      }
      footer={
        <>
          <Button look="main" disabled={isPending} autoFocus={!isLacking(counts)} onClick={() => onSignOff(note)}>
            {isLacking(counts) ? 'Sign off all the same' : 'Sign off'}
          </Button>
          <Button onClick={() => onOpenChange(false)}>Back to the sheet</Button>
        </>
      }
    >
      {lacks.length > 0 ? (
        <div className="mb-3 rounded-md bg-wattle-soft px-3 py-2">
          <p className="font-semibold">Still missing:</p>
          <ul className="list-disc pl-5">
            {lacks.map((each) => (
              <li key={each}>{each}</li>
            ))}
          </ul>
        </div>
      ) : (
        <p className="mb-3">Nothing is missing.</p>
      )}
      <AreaField
        label="Note for the registrar (optional)"
        maxLength={1000}
        value={note}
        onChange={(event) => setNote(event.target.value)}
      />
    </Dialog>
  );
}
