import type { KeptRow } from '#contract/cell-tables';
import { EditCell } from '../ui/grid/edit-cell';
import type { CellActions, RowCursor } from '../ui/grid/use-cell-cursor';
import { OnPoint } from '../ui/on-point';
import { staysAt, type TableLook, type TableRow } from './table-look';

interface RowCellProps<Field extends string, Kept extends KeptRow<Field>> {
  readonly look: TableLook<Field, Kept>;
  readonly row: TableRow<Field, Kept>;
  /** Where the row stands. */
  readonly place: number;
  readonly field: Field;
  readonly column: number;
  readonly cursor: RowCursor;
  readonly actions: CellActions;
}

/** Decimals that such numbers usually have; one with more goes beyond the others. */
const usualDecimals = 2;

function Text({ text, isNumber }: { text: string; isNumber: boolean }) {
  return isNumber ? <OnPoint text={text} decimals={usualDecimals} /> : <span className="truncate">{text}</span>;
}

/** One fact of a row. What is inherited is grey and names its source; what is wrong says what would be right. */
export function RowCell<Field extends string, Kept extends KeptRow<Field>>(props: RowCellProps<Field, Kept>) {
  const { look, row, place, field, column, cursor, actions } = props;
  const fault = row.faults[field];
  const isMain = field === look.main;
  const isNumber = look.onPoint.has(field);
  const left = staysAt(look, field);
  const ink = fault
    ? 'bg-waratah-soft text-waratah'
    : row.changed.has(field)
      ? 'font-semibold text-wattle'
      : isMain
        ? 'font-semibold'
        : '';
  // A cell that stays covers what scrolls beneath it.
  const place3d = left === undefined ? '' : `sticky z-[1] ${fault ? '' : 'bg-inherit'}`;
  return (
    <EditCell
      row={place}
      column={column}
      ariaColumn={column + 2}
      cursor={cursor}
      actions={actions}
      label={`${look.table.headings[field]} of ${look.titleOf(row.cells) || look.newOne}`}
      fault={fault}
      title={fault ?? look.reasonOf(row, field)}
      style={{ width: look.widths[field], flexGrow: isMain ? 1 : 0, left }}
      look={`${place3d} ${isMain ? 'border-r border-hairline' : ''} ${look.inFigures.has(field) ? 'figures' : ''} ${isNumber ? 'justify-end' : ''} ${ink}`}
    >
      {row.cells[field] === '' ? (
        <span className="text-quiet italic">
          {fault ? 'needed' : <Text text={look.standIn(row, field)} isNumber={isNumber} />}
        </span>
      ) : (
        <Text text={look.shown?.(field, row.cells[field]) ?? row.cells[field]} isNumber={isNumber} />
      )}
    </EditCell>
  );
}
