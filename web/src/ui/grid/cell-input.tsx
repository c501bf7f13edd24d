import { useRef, useState, type KeyboardEvent } from 'react';

interface CellInputProps {
  readonly label: string;
  readonly start: string;
  readonly maxLength?: number | undefined;
  /** "leave": the focus went elsewhere, and stays there. */
  readonly onTake: (text: string, then: 'down' | 'right' | 'stay' | 'leave') => void;
  readonly onCancel: () => void;
}

/** The field of a cell while it is edited: Enter takes and goes down, Tab to the right, Esc lets it be. */
export function CellInput({ label, start, maxLength, onTake, onCancel }: CellInputProps) {
  const [text, setText] = useState(start);
  const isDone = useRef(false);
  /** Once: a key that takes the text also takes the focus away. */
  const take = (then: 'down' | 'right' | 'stay' | 'leave') => {
    if (isDone.current) return;
    isDone.current = true;
    onTake(text, then);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.ctrlKey && event.key.toLowerCase() === 's') return take('stay');
    event.stopPropagation();
    if (event.key === 'Enter') take('down');
    else if (event.key === 'Tab') take('right');
    else if (event.key === 'Escape') {
      isDone.current = true;
      onCancel();
    } else return;
    event.preventDefault();
  };
  return (
    <input
      // The cell was chosen and a key was pressed: the field goes on where that key began.
      // oxlint-disable-next-line jsx-a11y/no-autofocus
      autoFocus
      aria-label={label}
      value={text}
      maxLength={maxLength}
      autoComplete="off"
      onChange={(event) => setText(event.target.value)}
      onKeyDown={onKeyDown}
      onBlur={() => take('leave')}
      className="-mx-1 w-full min-w-0 rounded-[2px] bg-surface px-1 text-ink outline-none"
    />
  );
}
