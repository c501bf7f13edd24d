import { useCallback, useEffect } from 'react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRowHeight } from '../ui/own-view';
import type { Cells } from '#core/cell-tables';
import type { KeptRow } from '#contract/cell-tables';
import { useCellCursor } from '../ui/grid/use-cell-cursor';
import { useLatest } from '../ui/use-latest';
import { RowLine } from './row-line';
import { markWidth, staysAt, totalWidth, type TableLook, type TableRow } from './table-look';
import type { CellEdit } from './table-rows';

interface CellTableGridProps<Field extends string, Kept extends KeptRow<Field>> {
  readonly look: TableLook<Field, Kept>;
  readonly rows: readonly TableRow<Field, Kept>[];
  readonly marked: ReadonlySet<string>;
  readonly onMark: (keys: readonly string[], isMarked: boolean) => void;
  /** Cells of rows that are there, and rows that were pasted below them. */
  readonly onEdit: (edits: readonly CellEdit<Field, Kept>[], added: readonly Partial<Cells<Field>>[]) => void;
  /** A pasted block with its columns named: true where it was taken as a whole. */
  readonly takesBlock: (block: readonly (readonly string[])[]) => boolean;
  /** The row that the address asks to see first, by its key; a new one has the focus as well. */
  readonly sought: string | null;
}

/** Rows of cells as a spreadsheet. */
export function CellTableGrid<Field extends string, Kept extends KeptRow<Field>>({
  look,
  rows,
  marked,
  onMark,
  onEdit,
  takesBlock,
  sought,
}: CellTableGridProps<Field, Kept>) {
  const { fields, headings } = look.table;
  const firstRow = Math.max(
    0,
    rows.findIndex(({ place }) => place === sought),
  );
  const cells = useCellCursor({
    rows: rows.length,
    columns: fields.length,
    columnKeyAt: (column) => fields[column],
    firstRow,
    keyAt: (row) => rows[row]?.place,
    textAt: (row, column) => rows[row]?.cells[fields[column]!] ?? '',
    isGrowing: true,
    takesBlock,
    onEdit(texts) {
      const inside = texts.filter(([row]) => row < rows.length);
      const below = new Map<number, Partial<Record<Field, string>>>();
      for (const [row, column, text] of texts)
        if (row >= rows.length) below.set(row, { ...below.get(row), [fields[column]!]: text });
      onEdit(
        inside.map(([row, column, text]): CellEdit<Field, Kept> => [rows[row]!, fields[column]!, text]),
        [...below.values()],
      );
    },
    onReach: (row) => virtual.scrollToIndex(row),
    onSpace: ({ fromRow, toRow }, row) =>
      onMark(
        rows.slice(fromRow, toRow + 1).map(({ key }) => key),
        !marked.has(rows[row]?.key ?? ''),
      ),
  });
  const rowHeight = useRowHeight();
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => cells.grid.ref.current,
    estimateSize: () => rowHeight,
    overscan: 12,
    initialOffset: Math.max(0, firstRow - 4) * rowHeight,
  });
  const latestMark = useLatest(onMark);
  const mark = useCallback<typeof onMark>((keys, isMarked) => latestMark.current(keys, isMarked), [latestMark]);
  const isNew = sought !== null && rows[firstRow]?.place === sought && rows[firstRow].reply === undefined;
  const { ref } = cells.grid;
  useEffect(() => {
    if (isNew) ref.current?.focus();
  }, [isNew, ref]);
  const allMarked = rows.length > 0 && rows.every(({ key }) => marked.has(key));
  const atCursor = rows[cells.cursor.row];
  const cursorField = fields[cells.cursor.column]!;
  const reason = atCursor && (atCursor.faults[cursorField] ?? look.reasonOf(atCursor, cursorField));
  const told = atCursor?.reply && look.told.reasonOf(atCursor.reply);
  return (
    <>
      <div
        {...cells.grid}
        aria-label={look.label}
        aria-colcount={fields.length + 2}
        className="min-h-0 flex-1 overflow-auto text-[13px] outline-offset-[-2px]"
      >
        <Heads
          look={look}
          areAllMarked={allMarked}
          onMarkAll={() =>
            onMark(
              rows.map(({ key }) => key),
              !allMarked,
            )
          }
        />
        <div className="relative" style={{ height: virtual.getTotalSize(), minWidth: totalWidth(look) }}>
          {virtual.getVirtualItems().map(({ index, start }) => {
            const row = rows[index]!;
            return (
              <RowLine
                key={row.place}
                look={look}
                row={row}
                place={index}
                start={start}
                isMarked={marked.has(row.key)}
                onMark={mark}
                cursor={cells.inRow(index)}
                actions={cells.actions}
              />
            );
          })}
        </div>
      </div>
      <p role="status" className="min-h-7 border-t border-hairline px-4 py-1 text-[12px] text-quiet">
        {atCursor && `${headings[cursorField]} of ${look.titleOf(atCursor.cells) || look.newOne}`}
        {reason !== undefined && `: ${reason}`}
        {told !== undefined && `. ${told}`}
      </p>
    </>
  );
}

interface HeadsProps<Field extends string, Kept extends KeptRow<Field>> {
  readonly look: TableLook<Field, Kept>;
  readonly areAllMarked: boolean;
  readonly onMarkAll: () => void;
}

function Heads<Field extends string, Kept extends KeptRow<Field>>(props: HeadsProps<Field, Kept>) {
  const { look, areAllMarked, onMarkAll } = props;
  const { fields, headings } = look.table;
  const style =
    'sticky top-0 z-10 flex h-10 items-center border-b border-hairline bg-surface px-2 leading-tight font-semibold text-quiet';
  return (
    <div role="row" aria-rowindex={1} className="sticky top-0 z-10 flex" style={{ minWidth: totalWidth(look) }}>
      <div
        role="columnheader"
        aria-colindex={1}
        style={{ width: markWidth }}
        className={`${style} left-0 z-20 justify-center`}
      >
        <input
          type="checkbox"
          aria-label={`Select all ${look.label.toLowerCase()} shown`}
          checked={areAllMarked}
          onChange={onMarkAll}
          className="size-3.5 accent-eucalypt"
        />
      </div>
      {fields.map((field, column) => {
        const left = staysAt(look, field);
        return (
          <div
            key={field}
            role="columnheader"
            aria-colindex={column + 2}
            style={{ width: look.widths[field], flexGrow: field === look.main ? 1 : 0, left }}
            className={`${style} ${left === undefined ? '' : 'z-20'} ${field === look.main ? 'border-r' : ''}`}
          >
            {headings[field]}
          </div>
        );
      })}
      <div role="columnheader" aria-colindex={fields.length + 2} style={{ width: look.told.width }} className={style}>
        {look.told.heading}
      </div>
    </div>
  );
}
