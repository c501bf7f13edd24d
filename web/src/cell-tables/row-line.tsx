import { memo } from 'react';
import type { KeptRow } from '#contract/cell-tables';
import type { CellActions, RowCursor } from '../ui/grid/use-cell-cursor';
import { RowCell } from './row-cell';
import { markWidth, type TableLook, type TableRow } from './table-look';

interface RowLineProps<Field extends string, Kept extends KeptRow<Field>> {
  readonly look: TableLook<Field, Kept>;
  readonly row: TableRow<Field, Kept>;
  readonly place: number;
  /** Pixels from the top of the list. */
  readonly start: number;
  readonly isMarked: boolean;
  readonly onMark: (keys: readonly string[], isMarked: boolean) => void;
  readonly cursor: RowCursor;
  readonly actions: CellActions;
}

function Line<Field extends string, Kept extends KeptRow<Field>>(props: RowLineProps<Field, Kept>) {
  const { look, row, place, start, isMarked, onMark, cursor, actions } = props;
  const { fields } = look.table;
  return (
    <div
      role="row"
      aria-rowindex={place + 2}
      style={{ transform: `translateY(${start}px)` }}
      className={`absolute inset-x-0 flex h-(--row) border-b border-hairline ${isMarked ? 'bg-eucalypt-soft' : 'bg-surface'}`}
    >
      <div
        role="gridcell"
        aria-colindex={1}
        style={{ width: markWidth }}
        className={`sticky left-0 z-[1] grid shrink-0 place-items-center bg-inherit ${row.changed.size > 0 ? 'shadow-[inset_3px_0_0_var(--wattle-fill)]' : ''}`}
      >
        <input
          type="checkbox"
          tabIndex={-1}
          aria-label={`Select ${look.titleOf(row.cells) || look.newOne}`}
          checked={isMarked}
          onChange={(event) => onMark([row.key], event.target.checked)}
          className="size-3.5 accent-eucalypt"
        />
      </div>
      {fields.map((field, column) => (
        <RowCell
          key={field}
          look={look}
          row={row}
          place={place}
          field={field}
          column={column}
          cursor={cursor}
          actions={actions}
        />
      ))}
      <div
        role="gridcell"
        aria-colindex={fields.length + 2}
        style={{ width: look.told.width }}
        title={row.reply && look.told.reasonOf(row.reply)}
        className="flex shrink-0 items-center truncate px-2 text-quiet"
      >
        {row.reply ? look.told.cell(row.reply) : '–'}
      </div>
    </div>
  );
}

/** One row of the spreadsheet; drawn again only when it changes. `memo` forgets what the fields are, so they are said again. */
export const RowLine = memo(Line) as typeof Line;
