import { memo } from 'react';
import { formatDecimal } from '#core/numbers';
import { isBlank } from '#core/posting';
import { EditCell } from '../ui/grid/edit-cell';
import type { CellActions, RowCursor } from '../ui/grid/use-cell-cursor';
import { onThePoint, showComputed, showDay, showLabel } from '../ui/format';
import { SeverityDiamond } from '../ui/state-marks';
import {
  columnNames,
  columnsBefore,
  columnWidths,
  computedLabelWidth,
  computedWidth,
  nameWidth,
  notesWidth,
  type EditableColumn,
} from './sheet-columns';
import { longestReason, type EntryFault } from './sheet-entry';
import { textsOfRow, type SheetRow } from './sheet-view';

interface SheetLineProps {
  readonly row: SheetRow;
  readonly place: number;
  /** Pixels from the top of the list. */
  readonly start: number;
  readonly columns: readonly EditableColumn[];
  /** The item takes levels rather than percentages. */
  readonly isLevel: boolean;
  readonly commentLength: number;
  readonly isReadOnly: boolean;
  readonly isLocked: (column: EditableColumn, row: SheetRow) => boolean;
  readonly isChosen: boolean;
  /** What was typed and could not be read. */
  readonly faults: readonly EntryFault[];
  readonly onTakeComputed: (row: SheetRow) => void;
  readonly onExplain: (row: SheetRow) => void;
  readonly measure: (element: HTMLElement | null) => void;
  readonly cursor: RowCursor;
  readonly actions: CellActions;
}

const alignments: Record<EditableColumn, string> = {
  percent: 'figures justify-end',
  mark: 'figures justify-center font-bold',
  reason: '',
  lastDate: '',
  hours: 'figures justify-end',
  comment: '',
};

/** One student of a sheet; drawn again only when something of the student changes. */
export const SheetLine = memo(function SheetLine(props: SheetLineProps) {
  const {
    row,
    place,
    start,
    columns,
    isLevel,
    isReadOnly,
    isLocked,
    isChosen,
    faults,
    commentLength,
    measure,
    cursor,
    actions,
  } = props;
  const { reply, mark, isUnsaved } = row;
  const isWithdrawn = reply.withdrawnOn !== null;
  const texts = textsOfRow(row);
  return (
    <div
      role="row"
      aria-rowindex={place + 2}
      data-index={place}
      ref={measure}
      style={{ transform: `translateY(${start}px)` }}
      className={`absolute inset-x-0 flex min-h-(--row) border-b border-hairline ${isChosen ? 'bg-eucalypt-soft' : 'bg-surface'} ${isWithdrawn ? 'text-quiet' : ''}`}
    >
      <div
        role="rowheader"
        aria-colindex={1}
        title={reply.student}
        style={{ width: nameWidth }}
        className={`sticky left-0 z-[1] flex shrink-0 items-center bg-inherit px-2.5 ${isUnsaved || faults.length > 0 ? 'shadow-[inset_3px_0_0_var(--wattle-fill)]' : ''}`}
      >
        <span className={`truncate ${isWithdrawn ? '' : 'font-semibold'}`}>{reply.student}</span>
        {isWithdrawn && <span className="ml-1 text-[12px]">withdrawn</span>}
        {isUnsaved && <span className="sr-only"> not saved</span>}
      </div>
      <ComputedCells {...props} />
      {columns.map((column, at) => {
        const fault = faults.find((each) => each.column === column);
        const text = fault?.text ?? texts[column];
        return (
          <EditCell
            key={column}
            row={place}
            column={at}
            ariaColumn={at + columnsBefore + 1}
            cursor={cursor}
            actions={actions}
            label={`${reply.student}, ${isLevel && column === 'percent' ? 'posted level' : columnNames[column]}`}
            isLocked={isReadOnly || isLocked(column, row)}
            maxLength={column === 'comment' ? commentLength : column === 'reason' ? longestReason : 40}
            fault={fault?.says}
            title={fault?.says ?? (text.length > 12 ? text : undefined)}
            style={{ width: columnWidths[column] }}
            look={`${alignments[column]} ${fault ? 'bg-waratah-soft text-waratah' : ''}`}
          >
            {text !== '' ? (
              <span className="truncate">
                {text}
                {column === 'comment' && mark.isInternal && <span className="text-quiet italic"> school only</span>}
              </span>
            ) : (
              <>
                {column === 'percent' && !isWithdrawn && isBlank(mark) && (
                  <span className="text-quiet italic">blank</span>
                )}
                {column === 'lastDate' && row.proposedDay && (
                  <span className="text-quiet italic" title="proposed; press = to take it">
                    {showDay(row.proposedDay)}?
                  </span>
                )}
              </>
            )}
          </EditCell>
        );
      })}
      <Notes row={row} faults={faults} ariaColumn={columns.length + columnsBefore + 1} />
    </div>
  );
});

/** What the grade book, a file or the parts come to, and the label of it, which is posted by a click. */
function ComputedCells({ row, isReadOnly, onExplain, onTakeComputed }: SheetLineProps) {
  const { reply, mark, computed, computedLabel } = row;
  const differs = computed && mark.percent && computedLabel !== mark.label;
  return (
    <>
      <div
        role="gridcell"
        aria-colindex={2}
        style={{ width: computedWidth }}
        className="figures flex shrink-0 items-center justify-end px-2.5 text-quiet"
      >
        {computed ? (
          <button
            type="button"
            tabIndex={-1}
            title="how it came about (w)"
            onClick={() => onExplain(row)}
            className="rounded-sm hover:text-ink hover:underline"
          >
            {onThePoint(showComputed(formatDecimal(computed)), 2)}
          </button>
        ) : (
          '–'
        )}
      </div>
      <div
        role="gridcell"
        aria-colindex={3}
        style={{ width: computedLabelWidth }}
        className="figures flex shrink-0 items-center px-1"
      >
        {computed && reply.withdrawnOn === null && computedLabel && (
          <button
            type="button"
            tabIndex={-1}
            disabled={isReadOnly}
            title="post what is computed"
            onClick={() => onTakeComputed(row)}
            className={`rounded-sm px-1 enabled:hover:bg-eucalypt-soft ${differs ? 'font-bold text-wattle' : 'text-quiet'}`}
          >
            {showLabel(computedLabel)}
            <span className="sr-only">, post what is computed for {reply.student}</span>
          </button>
        )}
      </div>
    </>
  );
}

function Notes({ row, faults, ariaColumn }: { row: SheetRow; faults: readonly EntryFault[]; ariaColumn: number }) {
  const { reply, remarks } = row;
  return (
    <div
      role="gridcell"
      aria-colindex={ariaColumn}
      style={{ minWidth: notesWidth }}
      className="flex-1 self-center px-2.5 py-1 text-[12px] leading-tight"
    >
      {faults.map(({ column, text, says }) => (
        <Remark key={column} severity="blocks" isAlert>
          “{text}”: {says}
        </Remark>
      ))}
      {reply.withdrawnOn !== null && remarks.length === 0 && `Withdrawn ${showDay(reply.withdrawnOn)}; is not graded`}
      {remarks.map(({ severity, says }) => (
        <Remark key={says} severity={severity}>
          {says}
        </Remark>
      ))}
    </div>
  );
}

interface RemarkProps {
  readonly severity: SheetRow['remarks'][number]['severity'];
  readonly isAlert?: boolean;
  readonly children: React.ReactNode;
}

function Remark({ severity, isAlert = false, children }: RemarkProps) {
  return (
    <span
      role={isAlert ? 'alert' : undefined}
      className={`flex gap-1.5 ${severity === 'blocks' ? 'text-waratah' : 'text-wattle'}`}
    >
      <span className="mt-[2px]">
        <SeverityDiamond severity={severity} />
      </span>
      <span>{children}</span>
    </span>
  );
}
