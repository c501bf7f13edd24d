import { useId, useState, type ClipboardEvent, type KeyboardEvent } from 'react';

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
  /** Answers with what is wrong, or undefined when the text was taken. */
  readonly onEnter: (text: string) => string | undefined;
  readonly onKeyDown: (event: KeyboardEvent<HTMLInputElement>) => void;
  readonly onPaste: (event: ClipboardEvent) => void;
}

/** What is being typed over a text; it is forgotten when the text beneath changes. */
interface Typing {
  readonly over: string;
  readonly typed: string;
  readonly fault?: string | undefined;
}

/** One cell to type into. What is typed is taken when the cell is left; what cannot be taken stays, with the reason. */
export function SheetCell(props: SheetCellProps) {
  const { label, place, text, placeholder, align, isReadOnly, maxLength, onFocus, onEnter, onKeyDown, onPaste } = props;
  const id = useId();
  const [state, setTyping] = useState<Typing | null>(null);
  const typing = state?.over === text ? state : null;
  const take = () => {
    if (!typing) return;
    const fault = typing.typed === text ? undefined : onEnter(typing.typed);
    setTyping(fault ? { ...typing, fault } : null);
  };
  return (
    <span className="relative block">
      <input
        aria-label={label}
        aria-invalid={typing?.fault !== undefined}
        aria-describedby={typing?.fault ? id : undefined}
        data-cell={place}
        title={text.length > 12 ? text : undefined}
        value={typing?.typed ?? text}
        placeholder={placeholder}
        readOnly={isReadOnly}
        maxLength={maxLength}
        autoComplete="off"
        onFocus={(event) => {
          onFocus();
          event.currentTarget.select();
        }}
        onChange={(event) => setTyping({ over: text, typed: event.target.value })}
        onBlur={take}
        onPaste={onPaste}
        onKeyDown={(event) => {
          if (event.key === 'Escape' && typing) {
            event.preventDefault();
            event.stopPropagation();
            setTyping(null);
          } else if (event.ctrlKey && event.key.toLowerCase() === 's') take();
          else onKeyDown(event);
        }}
        className={`h-[31px] w-full border-0 bg-transparent px-2.5 placeholder:text-control focus:bg-surface focus:outline-2 focus:-outline-offset-2 focus:outline-eucalypt aria-invalid:bg-waratah-soft aria-invalid:outline-waratah ${align}`}
      />
      {typing?.fault && (
        <span
          id={id}
          role="alert"
          className="absolute top-full left-0 z-20 mt-px rounded-md border border-waratah bg-surface px-2 py-1 font-sans text-[12px] font-normal whitespace-nowrap text-waratah shadow-float"
        >
          {typing.fault}
        </span>
      )}
    </span>
  );
}
