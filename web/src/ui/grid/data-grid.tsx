import { useEffect, useRef, type ReactNode } from 'react';
import {
  createSortedRowModel,
  rowSortingFeature,
  sortFn_alphanumeric,
  sortFn_basic,
  tableFeatures,
  useTable,
  type ColumnDef,
} from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRowHeight } from '../own-view';
import { ColumnHead } from './column-head';
import { arranged, useColumnLayout } from './column-layouts';
import { ColumnMenu } from './column-menu';
import { Empty } from '../panel';
import { FilterButton, RowFilter } from './row-filter';
import { useRowCursor } from './use-row-cursor';
import { useRowFilter } from './use-row-filter';
import { useSorting } from './use-sorting';

/** A column of a grid that is read, not edited. */
export interface GridColumn<Row> {
  readonly id: string;
  readonly header: ReactNode;
  /** What the column is called in the menu of columns; its header where that is a text. */
  readonly name?: string;
  /** CSS width; one column without it takes what is left. */
  readonly width?: string;
  readonly align?: 'left' | 'right' | 'center';
  /** What the filter finds in the column, where a component shows it and not the texts of the cell. */
  readonly findBy?: (row: Row) => string;
  /** What the column sorts by. Without it the column does not sort. */
  readonly sortBy?: (row: Row) => string | number;
  readonly cell: (row: Row) => ReactNode;
}

interface DataGridProps<Row> {
  readonly label: string;
  readonly columns: readonly GridColumn<Row>[];
  readonly rows: readonly Row[];
  readonly rowKey: (row: Row) => string;
  readonly chosenKey?: string | null;
  /** Opens a row: by a click, Enter or Space. */
  readonly onOpen?: (row: Row) => void;
  /** The cursor came to a row, for what is shown beside the list. */
  readonly onReach?: (row: Row) => void;
  readonly empty: ReactNode;
  /** Narrower than this the grid scrolls sideways rather than squeeze its columns. */
  readonly minWidth?: number;
  /** Called when the last row comes into sight, where more can be asked for. */
  readonly onEnd?: (() => void) | undefined;
  /** Where the address keeps the order; null in a dialog, whose columns stay as they are. */
  readonly sortIn?: string | null;
  /** Where the address keeps the filter; null where rows are asked for as they are scrolled to, or searched otherwise. */
  readonly filterIn?: string | null;
}

const features = tableFeatures({
  rowSortingFeature,
  sortedRowModel: createSortedRowModel(),
  sortFns: { alphanumeric: sortFn_alphanumeric, basic: sortFn_basic },
});
const roomToRead = 180;
const menuWidth = 56;
const alignment = { left: 'text-left', right: 'text-right', center: 'text-center' };

/**
 * A grid to read and choose from. It draws only the rows in sight, so that thousands scroll as well as ten; columns sort, and
 * are hidden, moved and made wider as each person likes. Where it scrolls sideways, the first column stays, as it says whose
 * row it is.
 */
export function DataGrid<Row extends object>(props: DataGridProps<Row>) {
  const { label, rows, rowKey, chosenKey, onOpen, onReach, empty, minWidth, onEnd } = props;
  const { sortIn = 'sort', filterIn = 'filter' } = props;
  const scroller = useRef<HTMLDivElement>(null);
  const isOfDialog = sortIn === null;
  const filter = useRowFilter(rows, props.columns, isOfDialog || onEnd !== undefined ? null : filterIn);
  const { layout, change, reset } = useColumnLayout(label);
  const columns = arranged(props.columns, layout);
  const sorts = columns.filter(({ sortBy }) => sortBy !== undefined).map(({ id }) => id);
  const { sorting, onSortingChange } = useSorting(sortIn, sorts);
  const table = useTable({
    features,
    data: filter.shown,
    columns: columns.map(({ id, sortBy }): ColumnDef<typeof features, Row> => ({
      id,
      accessorFn: sortBy ?? (() => ''),
      enableSorting: sortBy !== undefined,
    })),
    getRowId: rowKey,
    state: { sorting },
    onSortingChange,
  });
  const sorted = table.getRowModel().rows;
  const rowHeight = useRowHeight();
  const virtual = useVirtualizer({
    count: sorted.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan: 12,
  });
  const inSight = virtual.getVirtualItems();
  const isAtEnd = inSight.at(-1)?.index === sorted.length - 1;
  useEffect(() => {
    if (isAtEnd) onEnd?.();
  }, [isAtEnd, onEnd]);
  const above = inSight[0]?.start ?? 0;
  const below = virtual.getTotalSize() - (inSight.at(-1)?.end ?? 0);
  const headers = table.getHeaderGroups()[0]!.headers;
  const open = onOpen ?? onReach;
  const first = columns.find(({ sortBy }) => sortBy !== undefined);
  const cursor = useRowCursor({
    rows: sorted.length,
    chosen: sorted.findIndex(({ id }) => id === chosenKey),
    textOf: (row) => String(first?.sortBy?.(sorted[row]!.original) ?? ''),
    onReach: onReach && ((row) => onReach(sorted[row]!.original)),
    onOpen: open && ((row) => open(sorted[row]!.original)),
    onShow: (row) => virtual.scrollToIndex(row),
  });
  /** Filter and columns stand at the end of the head, over no column. */
  const hasMenu = !isOfDialog && props.columns.length > 2;
  const nameOf = ({ id, name, header }: GridColumn<Row>) => name ?? (typeof header === 'string' ? header : id);
  return (
    <div className="relative flex min-h-0 flex-1 flex-col">
      {hasMenu && (
        <div className="absolute top-1 right-1 z-30 flex bg-surface">
          {filterIn !== null && onEnd === undefined && !filter.isOpen && <FilterButton onOpen={filter.open} />}
          <ColumnMenu
            columns={props.columns.map((column) => ({ id: column.id, name: nameOf(column) }))}
            layout={layout}
            onChange={change}
            onReset={reset}
          />
        </div>
      )}
      {filter.isOpen && (
        <RowFilter
          label={label}
          text={filter.text}
          shown={filter.shown.length}
          all={rows.length}
          onText={filter.onText}
          onClose={filter.close}
        />
      )}
      <div
        ref={scroller}
        {...(open ? {} : { tabIndex: 0, role: 'region', 'aria-label': label })}
        className="min-h-0 flex-1 overflow-auto outline-offset-[-2px]"
      >
        <table
          {...(open ? { ...cursor.list, role: 'grid', 'aria-label': label } : {})}
          style={{ minWidth: (minWidth ?? leastWidth(columns, layout.widths)) + (hasMenu ? menuWidth : 0) }}
          className="w-full table-fixed border-separate border-spacing-0 text-[13px] focus-visible:outline-none"
          aria-rowcount={sorted.length + 1}
        >
          <thead>
            <tr>
              {columns.map((column, index) => {
                const head = headers[index]!.column;
                return (
                  <ColumnHead
                    key={column.id}
                    name={nameOf(column)}
                    width={layout.widths[column.id] ?? column.width}
                    align={column.align ?? 'left'}
                    sort={
                      column.sortBy && {
                        direction: head.getIsSorted(),
                        onToggle: head.getToggleSortingHandler() as (() => void) | undefined,
                      }
                    }
                    isLast={index === columns.length - 1}
                    onResize={
                      isOfDialog ? undefined : (width) => change({ widths: { ...layout.widths, [column.id]: width } })
                    }
                  >
                    {column.header}
                  </ColumnHead>
                );
              })}
              {hasMenu && (
                <td
                  aria-hidden
                  style={{ width: menuWidth }}
                  className="sticky top-0 right-0 z-20 border-b border-hairline bg-surface"
                />
              )}
            </tr>
          </thead>
          <tbody>
            {above > 0 && <Spacer height={above} />}
            {inSight.map(({ index }) => {
              const { id, original } = sorted[index]!;
              const isChosen = id === chosenKey;
              const isAt = open !== undefined && index === cursor.at;
              return (
                <tr
                  key={id}
                  id={open && cursor.idOf(index)}
                  aria-rowindex={index + 2}
                  aria-selected={open ? isChosen : undefined}
                  onClick={
                    open &&
                    (() => {
                      cursor.point(index);
                      open(original);
                    })
                  }
                  className={`h-(--row) ${isChosen ? 'bg-eucalypt-soft' : open ? 'bg-surface hover:bg-raised' : 'bg-surface'} ${open ? 'cursor-pointer' : ''} ${isAt ? 'cursor-row' : ''}`}
                >
                  {columns.map(({ id: columnId, align = 'left', cell }) => (
                    <td
                      key={columnId}
                      className={`h-(--row) truncate border-b border-hairline px-2.5 first:sticky first:left-0 first:z-[1] first:bg-inherit ${alignment[align]}`}
                    >
                      {cell(original)}
                    </td>
                  ))}
                  {hasMenu && <td aria-hidden className="border-b border-hairline" />}
                </tr>
              );
            })}
            {below > 0 && <Spacer height={below} />}
          </tbody>
        </table>
        {rows.length === 0 && empty}
        {rows.length > 0 && filter.shown.length === 0 && (
          <Empty title="No row has these words">End the filter to see all rows.</Empty>
        )}
      </div>
    </div>
  );
}

/** What the columns ask for, and room to read for one that takes what is left. */
function leastWidth<Row>(columns: readonly GridColumn<Row>[], own: Readonly<Record<string, number>>): number {
  return columns.reduce((sum, { id, width }) => sum + (own[id] ?? (width ? Number.parseInt(width) : roomToRead)), 0);
}

function Spacer({ height }: { height: number }) {
  return (
    <tr aria-hidden>
      <td style={{ height }} />
    </tr>
  );
}
