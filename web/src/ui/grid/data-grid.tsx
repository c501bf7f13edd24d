import { useEffect, useRef, type KeyboardEvent, type ReactNode } from 'react';
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
import { useSorting } from './use-sorting';

/** A column of a grid that is read, not edited. */
export interface GridColumn<Row> {
  readonly id: string;
  readonly header: ReactNode;
  /** CSS width; one column without it takes what is left. */
  readonly width?: string;
  readonly align?: 'left' | 'right' | 'center';
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
  readonly onChoose?: (row: Row) => void;
  readonly empty: ReactNode;
  /** Narrower than this the grid scrolls sideways rather than squeeze its columns. */
  readonly minWidth?: number;
  /** Called when the last row comes into sight, where more can be asked for. */
  readonly onEnd?: (() => void) | undefined;
  /** Where the address keeps the order; null in a dialog. */
  readonly sortIn?: string | null;
}

const features = tableFeatures({
  rowSortingFeature,
  sortedRowModel: createSortedRowModel(),
  sortFns: { alphanumeric: sortFn_alphanumeric, basic: sortFn_basic },
});
const rowHeight = 32;
const alignment = { left: 'text-left', right: 'text-right', center: 'text-center' };

/**
 * A sortable grid that draws only the rows in sight, so that thousands scroll as well as ten. Where it scrolls sideways, the
 * first column stays, as it says whose row it is.
 */
export function DataGrid<Row extends object>({
  label,
  columns,
  rows,
  rowKey,
  chosenKey,
  onChoose,
  empty,
  minWidth = 600,
  onEnd,
  sortIn = 'sort',
}: DataGridProps<Row>) {
  const scroller = useRef<HTMLDivElement>(null);
  const sorts = columns.filter(({ sortBy }) => sortBy !== undefined).map(({ id }) => id);
  const { sorting, onSortingChange } = useSorting(sortIn, sorts);
  const table = useTable({
    features,
    data: rows as Row[],
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

  const onKeyDown = (event: KeyboardEvent) => {
    const step = { ArrowDown: 1, j: 1, ArrowUp: -1, k: -1 }[event.key];
    if (step === undefined || !onChoose || sorted.length === 0) return;
    event.preventDefault();
    const at = sorted.findIndex((row) => row.id === chosenKey);
    const next = Math.min(sorted.length - 1, Math.max(0, at + step));
    onChoose(sorted[next]!.original);
    virtual.scrollToIndex(next);
  };

  return (
    <div
      ref={scroller}
      tabIndex={0}
      role="region"
      aria-label={label}
      onKeyDown={onKeyDown}
      className="min-h-0 flex-1 overflow-auto outline-offset-[-2px]"
    >
      <table
        style={{ minWidth }}
        className="w-full table-fixed border-separate border-spacing-0 text-[13px]"
        aria-rowcount={sorted.length}
      >
        <thead>
          <tr>
            {columns.map(({ id, header, width, align = 'left', sortBy }, index) => {
              const direction = headers[index]!.column.getIsSorted();
              return (
                <th
                  key={id}
                  style={{ width }}
                  aria-sort={direction === 'asc' ? 'ascending' : direction === 'desc' ? 'descending' : undefined}
                  className={`sticky top-0 z-10 h-8 first:left-0 first:z-20 border-b border-hairline bg-surface px-2.5 font-semibold text-quiet ${alignment[align]}`}
                >
                  {sortBy ? (
                    <button
                      type="button"
                      className="rounded-sm font-semibold hover:text-ink"
                      onClick={headers[index]!.column.getToggleSortingHandler()}
                    >
                      {header}
                      {direction && <span aria-hidden> {direction === 'asc' ? '↑' : '↓'}</span>}
                    </button>
                  ) : (
                    header
                  )}
                </th>
              );
            })}
          </tr>
        </thead>
        <tbody>
          {above > 0 && <Spacer height={above} />}
          {inSight.map(({ index }) => {
            const { id, original } = sorted[index]!;
            const isChosen = id === chosenKey;
            return (
              <tr
                key={id}
                aria-rowindex={index + 1}
                aria-selected={onChoose ? isChosen : undefined}
                onClick={onChoose && (() => onChoose(original))}
                className={`h-8 ${isChosen ? 'bg-eucalypt-soft' : onChoose ? 'bg-surface hover:bg-raised' : 'bg-surface'} ${onChoose ? 'cursor-pointer' : ''}`}
              >
                {columns.map(({ id: columnId, align = 'left', cell }) => (
                  <td
                    key={columnId}
                    className={`h-8 truncate border-b border-hairline px-2.5 first:sticky first:left-0 first:z-[1] first:bg-inherit ${alignment[align]}`}
                  >
                    {cell(original)}
                  </td>
                ))}
              </tr>
            );
          })}
          {below > 0 && <Spacer height={below} />}
        </tbody>
      </table>
      {rows.length === 0 && empty}
    </div>
  );
}

function Spacer({ height }: { height: number }) {
  return (
    <tr aria-hidden>
      <td style={{ height }} />
    </tr>
  );
}
