import type { SheetReply } from '#contract/posting';
import { counted } from '#contract/messages';
import { Button } from '../ui/button';
import { SaveButton } from './save-button';
import type { SheetEntry } from './sheet-entry';

interface SheetActionsProps {
  readonly sheet: SheetReply;
  readonly entry: SheetEntry;
  readonly isReadOnly: boolean;
  readonly canSave: boolean;
  readonly unsaved: number;
  /** Something is typed that is not saved, or could not be read. */
  readonly isOpen: boolean;
  readonly canUndo: boolean;
  /** The window is over for who looks: what they typed goes to a registrar. */
  readonly mustAsk: boolean;
  readonly maySignOff: boolean;
  readonly onSave: () => void;
  readonly onFill: () => void;
  readonly onUndo: () => void;
  readonly onSignOff: () => void;
}

/** What can be done with a sheet as a whole. */
export function SheetActions(props: SheetActionsProps) {
  const { sheet, entry, isReadOnly, canSave, unsaved, isOpen, canUndo, mustAsk, maySignOff } = props;
  return (
    <>
      <SaveButton unsaved={unsaved} canSave={canSave} mustAsk={mustAsk} onSave={props.onSave} />
      <Button disabled={isReadOnly || entry.computedBlanks.length === 0} onClick={entry.takeComputedForBlanks}>
        Use computed for {counted(entry.computedBlanks.length, 'blank')}
      </Button>
      <Button disabled={isReadOnly || entry.blanks.length === 0} onClick={props.onFill}>
        Fill empty cells…
      </Button>
      {entry.dateless.length > 0 && (
        <Button disabled={isReadOnly} onClick={() => entry.takeDays(entry.dateless)}>
          Use {counted(entry.dateless.length, 'proposed date')}
        </Button>
      )}
      <Button disabled={!canUndo} onClick={props.onUndo}>
        Undo last step
      </Button>
      {sheet.mayPost && sheet.sealedAt === null && sheet.signedOff === null && (
        <Button
          writes
          disabled={isOpen || !maySignOff}
          title={isOpen ? 'Save first: what is not saved is not signed off.' : undefined}
          onClick={props.onSignOff}
        >
          Sign off…
        </Button>
      )}
    </>
  );
}
