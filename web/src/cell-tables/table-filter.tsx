import type { ReactNode } from 'react';
import { Select } from '../ui/choice/select';

interface TableFilterProps {
  readonly choices: readonly {
    readonly label: string;
    readonly value: string;
    readonly options: readonly (readonly [value: string, words: string])[];
    readonly onChange: (value: string) => void;
  }[];
  /** Of the field for a text that rows shown contain. */
  readonly label: string;
  readonly text: string;
  readonly onText: (text: string) => void;
  /** What is good to know about typing and pasting here. */
  readonly children?: ReactNode;
}

/** Which rows of a table are shown. */
export function TableFilter({ choices, label, text, onText, children }: TableFilterProps) {
  return (
    <div className="flex flex-wrap items-center gap-2 border-b border-hairline px-4 py-1.5 text-[13px]">
      {choices.map((choice) => (
        <Select
          key={choice.label}
          aria-label={choice.label}
          value={choice.value}
          className="h-7 rounded border border-control bg-surface px-1.5"
          onChange={({ target }) => choice.onChange(target.value)}
        >
          {choice.options.map(([value, words]) => (
            <option key={value} value={value}>
              {words}
            </option>
          ))}
        </Select>
      ))}
      <input
        type="search"
        aria-label={label}
        placeholder={label.toLowerCase()}
        value={text}
        onChange={(event) => onText(event.target.value)}
        className="h-7 w-[220px] rounded border border-control bg-surface px-2"
      />
      <span className="text-[12px] text-quiet">{children}</span>
    </div>
  );
}
