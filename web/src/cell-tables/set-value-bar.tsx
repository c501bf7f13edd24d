import { useState, type ReactNode } from 'react';
import { cellFaultSentences, type KeptRow } from '#contract/cell-tables';
import { counted, type CountedThing } from '#contract/messages';
import { HistoryButton } from '../changes/history-button';
import { Button } from '../ui/button';
import { Choice } from '../ui/field';
import type { Selected } from './cell-table-desk';
import type { TableLook } from './table-look';

interface SetValueBarProps<Field extends string, Kept extends KeptRow<Field>> {
  readonly look: TableLook<Field, Kept>;
  readonly thing: CountedThing;
  readonly selected: Selected<Field, Kept>;
  /** What can be set for several at once, the first one first. */
  readonly settable: readonly Field[];
  /** What there is to choose from, an empty text for what is inherited. */
  readonly choices: Readonly<Partial<Record<Field, readonly string[]>>>;
  /** What an empty text means. */
  readonly whenEmpty: string;
  /** What more can be done with what is selected. */
  readonly children?: ReactNode;
}

/** Sets one value for all selected rows, as a sentence. */
export function SetValueBar<Field extends string, Kept extends KeptRow<Field>>(props: SetValueBarProps<Field, Kept>) {
  const { look, thing, settable, choices, whenEmpty } = props;
  const { rows, onSet, onRemove, onClear } = props.selected;
  const [field, setField] = useState(settable[0]!);
  const own = choices[field];
  const [text, setText] = useState(own?.[0] ?? '');
  const fault = look.table.fault(field, text);
  const one = rows.length === 1 ? rows[0]!.reply : undefined;
  return (
    <div className="flex flex-wrap items-center gap-2 border-b border-hairline bg-eucalypt-soft px-4 py-1.5">
      <b>{counted(rows.length, thing)} selected:</b> set
      <Choice
        label="Fact"
        value={field}
        onChange={({ target }) => {
          const next = settable.find((each) => each === target.value)!;
          setField(next);
          setText(choices[next]?.[0] ?? '');
        }}
      >
        {settable.map((each) => (
          <option key={each} value={each}>
            {look.table.headings[each]}
          </option>
        ))}
      </Choice>
      to
      {own ? (
        <Choice label="Value" value={text} onChange={(event) => setText(event.target.value)}>
          {own.map((each) => (
            <option key={each} value={each}>
              {each || whenEmpty}
            </option>
          ))}
        </Choice>
      ) : (
        <input
          aria-label="Value"
          value={text}
          placeholder={look.table.fault(field, '') ? '' : whenEmpty}
          onChange={(event) => setText(event.target.value)}
          className="h-7 w-[150px] rounded border border-control bg-surface px-2"
        />
      )}
      <Button
        writes
        disabled={fault !== undefined}
        title={fault && cellFaultSentences[fault]}
        onClick={() => onSet(field, text)}
      >
        Set it
      </Button>
      <span className="ml-auto flex gap-2">
        {one && <HistoryButton thing={`${thing} ${one.id}`} called={look.titleOf(one.cells)} />}
        {props.children}
        <Button look="danger" onClick={onRemove}>
          Delete
        </Button>
        <Button look="quiet" onClick={onClear}>
          Select none
        </Button>
      </span>
    </div>
  );
}
