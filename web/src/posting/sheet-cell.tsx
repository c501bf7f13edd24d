import { useEffect, useId, useRef, useState, type ClipboardEvent, type KeyboardEvent } from 'react';

interface SheetCellProps {
  readonly label: string;
  /** Where the cell is, so that the grid finds it when the keyboard moves there. */
  readonly place: string;
  readonly text: string;
  readonly placeholder: string;
  readonly align: string;
  readonly isReadOnly: boolean;
  readonly maxLength: number;
  readonly onFocus: () => void;
  readonly onEnter: (text: string) => string | undefined;
  readonly onKeyDown: (event: KeyboardEvent<HTMLInputElement>) => void;
  readonly onPaste: (event: ClipboardEvent) => void;
}

/** One cell to type into. What is typed is taken when the cell is left; what cannot be taken stays, with the reason. */
export function SheetCell({ label, place, text, placeholder, align, isReadOnly, maxLength, onFocus, onEnter, onKeyDown, onPaste }: SheetCellProps) {
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const [fault, setFault] = useState<string | undefined>();
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => {
    setTyped(null);
    setFault(undefined);
  }, [text]);
  const take = () => {
    if (typed === null || typed === text) {
      setTyped(null);
      setFault(undefined);
      return;
    }
    const wrong = onEnter(typed);
    setFault(wrong);
    if (!wrong) setTyped(null);
  };
  return (
    <span className="relative block">
      <input
        ref={input}
        aria-label={label}
        aria-invalid={fault !== undefined}
        aria-describedby={fault ? id : undefined}
        data-cell={place}
        value={typed ?? text}
        placeholder={placeholder}
        readOnly={isReadOnly}
        maxLength={maxLength}
        autoComplete="off"
        onFocus={(event) => {
          onFocus();
          event.currentTarget.select();
        }}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={take}
        onPaste={onPaste}
        onKeyDown={(event) => {
          if (event.key === 'Escape' && typed !== null) {
            event.preventDefault();
            event.stopPropagation();
            setTyped(null);
            setFault(undefined);
          } else if (event.ctrlKey && event.key.toLowerCase() === 's') take();
          else onKeyDown(event);
        }}
        className={`h-[31px] w-full border-0 bg-transparent px-2.5 placeholder:text-control focus:bg-surface focus:outline-2 focus:-outline-offset-2 focus:outline-eucalypt aria-invalid:bg-waratah-soft aria-invalid:outline-waratah ${align}`}
      />
      {fault && (
        <span id={id} role="alert" className="absolute top-full left-0 z-20 mt-px rounded-md border border-waratah bg-surface px-2 py-1 font-sans text-[12px] font-normal whitespace-nowrap text-waratah shadow-float">
          {fault}
        </span>
      )}
    </span>
  );
}
