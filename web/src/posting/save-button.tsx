import { counted } from '#contract/messages';
import { Button, Key } from '../ui/button';

interface SaveButtonProps {
  readonly unsaved: number;
  readonly canSave: boolean;
  /** The window is over for who looks: what they typed goes to a registrar. */
  readonly mustAsk: boolean;
  readonly onSave: () => void;
}

/** Saves what is typed on a sheet, or hands it over where it may not be posted any more. */
export function SaveButton({ unsaved, canSave, mustAsk, onSave }: SaveButtonProps) {
  return (
    <Button look="main" disabled={!canSave} onClick={onSave}>
      {mustAsk && unsaved > 0 ? (
        `Hand ${counted(unsaved, 'grade')} to the registrar…`
      ) : (
        <>
          Save {unsaved > 0 ? unsaved : ''} <Key>Ctrl S</Key>
        </>
      )}
    </Button>
  );
}
