import { useCallback, useImperativeHandle, type Ref } from 'react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRowHeight } from '../ui/own-view';
import type { SheetReply } from '#contract/posting';
import type { CellText } from '../ui/grid/cell-range';
import { useCellCursor, type EditKind } from '../ui/grid/use-cell-cursor';
import { useLatest } from '../ui/use-latest';
import {
  beginsTyping,
  columnsBefore,
  columnsOf,
  columnWidths,
  computedLabelWidth,
  computedWidth,
  nameWidth,
  notesWidth,
  type EditableColumn,
} from './sheet-columns';
import type { EntryFault } from './sheet-entry';
import { SheetLine } from './sheet-line';
import { textsOfRow, type SheetRow } from './sheet-view';

/** What a page asks of the grid: to put the cursor on a student. */
export interface SheetGridHandle {
  readonly goTo: (row: number) => void;
  /** The students whose cells are selected: the one with the cursor, or several. */
  readonly selected: () => readonly SheetRow[];
}

interface SheetGridProps {
  readonly sheet: Pick<SheetReply, 'asksHours' | 'commentRule' | 'commentLength' | 'highestLevel' | 'rows'>;
  readonly rows: readonly SheetRow[];
  readonly faults: readonly EntryFault[];
  readonly isReadOnly: boolean;
  readonly chosen: number | null;
  readonly onChoose: (enrollmentId: number) => void;
  readonly onEdit: (texts: readonly CellText[], kind: EditKind) => void;
  readonly onTakeComputed: (row: SheetRow) => void;
  readonly onExplain: (row: SheetRow) => void;
  readonly ref?: Ref<SheetGridHandle>;
}

const noFaults: readonly EntryFault[] = [];

/** Who has left has nothing to type but a last date; a reason is for what differs. What stands there can be removed. */
const isLockedFor = (column: EditableColumn, row: SheetRow) =>
  textsOfRow(row)[column] === '' &&
  ((row.reply.withdrawnOn !== null && column !== 'lastDate') || (column === 'reason' && !row.isOverride));

/** A section's students, computed beside posted, for the keyboard. */
export function SheetGrid(props: SheetGridProps) {
  const { rows, faults, sheet, isReadOnly, chosen } = props;
  const columns = columnsOf(sheet);
  const faultsOf = new Map(faults.map((fault) => [`${fault.enrollmentId}/${fault.column}`, fault]));
  const cells = useCellCursor({
    rows: rows.length,
    keyAt: (at) => rows[at]?.reply.enrollmentId,
    columns: columns.length,
    columnKeyAt: (at) => columns[at],
    isReadOnly,
    textAt: (at, column) => {
      const [row, name] = [rows[at]!, columns[column]!];
      return faultsOf.get(`${row.reply.enrollmentId}/${name}`)?.text ?? textsOfRow(row)[name];
    },
    onEdit: props.onEdit,
    onReach: (row) => {
      props.onChoose(rows[row]!.reply.enrollmentId);
      virtual.scrollToIndex(row);
    },
    isBeginning: (key, _, column) => beginsTyping(columns[column]!, key),
    isLocked: (row, column) => isLockedFor(columns[column]!, rows[row]!),
    isPassed: (row) => rows[row]!.reply.withdrawnOn !== null,
  });
  const rowHeight = useRowHeight();
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => cells.grid.ref.current,
    estimateSize: () => rowHeight + 1,
    overscan: 8,
  });
  useImperativeHandle(props.ref, () => ({
    goTo: (row) => cells.moveTo(row, cells.cursor.column),
    selected: () => rows.slice(cells.range.fromRow, cells.range.toRow + 1),
  }));
  const latest = useLatest(props);
  const explain = useCallback((row: SheetRow) => latest.current.onExplain(row), [latest]);
  const takeComputed = useCallback((row: SheetRow) => latest.current.onTakeComputed(row), [latest]);
  const editable = columns.reduce((sum, column) => sum + columnWidths[column], 0);
  const width = nameWidth + computedWidth + computedLabelWidth + editable + notesWidth;
  return (
    <div
      {...cells.grid}
      aria-label="Grade sheet"
      aria-colcount={columns.length + columnsBefore + 1}
      className="min-h-0 flex-1 overflow-auto text-[13px] outline-offset-[-2px]"
    >
      <Heads columns={columns} isLevel={sheet.highestLevel !== null} width={width} />
      <div className="relative" style={{ height: virtual.getTotalSize(), minWidth: width }}>
        {virtual.getVirtualItems().map(({ index, start }) => {
          const row = rows[index]!;
          const { enrollmentId } = row.reply;
          const own = faults.filter((fault) => fault.enrollmentId === enrollmentId);
          return (
            <SheetLine
              key={enrollmentId}
              row={row}
              place={index}
              start={start}
              columns={columns}
              isLevel={sheet.highestLevel !== null}
              commentLength={sheet.commentLength}
              isReadOnly={isReadOnly}
              isLocked={isLockedFor}
              isChosen={enrollmentId === chosen}
              faults={own.length === 0 ? noFaults : own}
              onTakeComputed={takeComputed}
              onExplain={explain}
              measure={virtual.measureElement}
              cursor={cells.inRow(index)}
              actions={cells.actions}
            />
          );
        })}
      </div>
    </div>
  );
}

interface HeadsProps {
  readonly columns: readonly EditableColumn[];
  readonly isLevel: boolean;
  readonly width: number;
}

function Heads({ columns, isLevel, width }: HeadsProps) {
  const heads: Record<EditableColumn, readonly [string, string]> = {
    percent: [isLevel ? 'Posted level' : 'Posted %', 'justify-end text-ink'],
    mark: ['Label', 'justify-center text-ink'],
    reason: ['Reason', ''],
    lastDate: ['Last date', ''],
    hours: ['Hours', 'justify-end'],
    comment: ['Comment', ''],
  };
  const look = 'flex h-8 shrink-0 items-center px-2 font-semibold';
  return (
    <div
      role="row"
      aria-rowindex={1}
      style={{ minWidth: width }}
      className="sticky top-0 z-10 flex border-b border-hairline bg-surface text-quiet"
    >
      <div
        role="columnheader"
        aria-colindex={1}
        style={{ width: nameWidth }}
        className={`${look} sticky left-0 z-20 bg-surface pl-2.5`}
      >
        Student
      </div>
      <div
        role="columnheader"
        aria-colindex={2}
        aria-colspan={2}
        style={{ width: computedWidth + computedLabelWidth }}
        className={`${look} pl-6`}
      >
        Computed
      </div>
      {columns.map((column, at) => (
        <div
          key={column}
          role="columnheader"
          aria-colindex={at + columnsBefore + 1}
          style={{ width: columnWidths[column] }}
          className={`${look} ${heads[column][1]}`}
        >
          {heads[column][0]}
        </div>
      ))}
      <div
        role="columnheader"
        aria-colindex={columns.length + columnsBefore + 1}
        style={{ minWidth: notesWidth }}
        className={`${look} flex-1`}
      >
        Notes
      </div>
    </div>
  );
}
