import { useRef, type ClipboardEvent, type KeyboardEvent } from 'react';
import { formatDecimal } from '#core/numbers';
import { isBlank } from '#core/posting';
import type { SheetReply } from '#contract/posting';
import { showComputed, showDay, showLabel, showPercent } from '../ui/format';
import { SeverityDiamond } from '../ui/state-marks';
import type { SheetRow } from './sheet-view';
import { SheetCell } from './sheet-cell';

/** Columns that are typed into, from left to right. */
const editableColumns = ['percent', 'mark', 'lastDate', 'hours', 'comment'] as const;
export type EditableColumn = (typeof editableColumns)[number];

/** The columns of a sheet: hours only where the item asks for them, comments only where it takes them. */
export function columnsOf({
  asksHours,
  commentRule,
}: Pick<SheetReply, 'asksHours' | 'commentRule' | 'highestLevel'>): EditableColumn[] {
  return editableColumns.filter(
    (column) => (column !== 'hours' || asksHours) && (column !== 'comment' || commentRule !== 'none'),
  );
}

interface SheetGridProps {
  readonly sheet: Pick<SheetReply, 'asksHours' | 'commentRule' | 'commentLength' | 'highestLevel'>;
  readonly rows: readonly SheetRow[];
  readonly isReadOnly: boolean;
  readonly chosen: number | null;
  readonly onChoose: (enrollmentId: number) => void;
  /** Takes a typed text; answers with what is wrong with it, or undefined. */
  readonly onEnter: (row: SheetRow, column: EditableColumn, text: string) => string | undefined;
  /** Takes a block of cells from a spreadsheet, from this cell down and to the right. */
  readonly onPaste: (row: SheetRow, column: EditableColumn, block: readonly (readonly string[])[]) => void;
  readonly onTakeComputed: (row: SheetRow) => void;
  readonly onExplain: (row: SheetRow) => void;
}

export const columnNames: Record<EditableColumn, string> = {
  percent: 'posted percent',
  mark: 'label or code',
  lastDate: 'last date of attendance',
  hours: 'hours attended',
  comment: 'comment',
};

/** A section's students, computed beside posted, for the keyboard: arrows and Enter move, typing replaces. */
export function SheetGrid(props: SheetGridProps) {
  const { rows, chosen, sheet } = props;
  const columns = columnsOf(sheet);
  const table = useRef<HTMLTableElement>(null);
  const move = (place: number, column: EditableColumn, byRow: number, byColumn: number) => {
    const nextColumn = columns[columns.indexOf(column) + byColumn];
    const isPassedOver = (at: number) => rows[at]?.reply.withdrawnOn != null;
    let next = place + byRow;
    if (byRow !== 0) while (isPassedOver(next)) next += byRow;
    const cell = table.current?.querySelector<HTMLInputElement>(`[data-cell="${next}/${nextColumn}"]`);
    cell?.focus();
    cell?.scrollIntoView({ block: 'nearest' });
  };
  return (
    <table ref={table} className="w-full min-w-[1000px] table-fixed text-[13px]">
      <colgroup>
        <col className="w-[196px]" />
        <col className="w-[92px]" />
        <col className="w-[46px]" />
        <col className="w-[88px]" />
        <col className="w-[72px]" />
        <col className="w-[116px]" />
        {columns.includes('hours') && <col className="w-[72px]" />}
        {columns.includes('comment') && <col className="w-[200px]" />}
        <col />
      </colgroup>
      <thead>
        <tr className="[&_th]:sticky [&_th]:top-0 [&_th]:z-10 [&_th]:h-8 [&_th]:border-b [&_th]:border-hairline [&_th]:bg-surface [&_th]:px-2.5 [&_th]:font-semibold [&_th]:text-quiet">
          <th className="text-left">Student</th>
          <th className="pl-6! text-left" colSpan={2}>
            Computed
          </th>
          <th className="text-right text-ink!">{sheet.highestLevel === null ? 'Posted %' : 'Posted level'}</th>
          <th className="text-center text-ink!">Label</th>
          <th className="text-left">Last date</th>
          {columns.includes('hours') && <th className="text-right">Hours</th>}
          {columns.includes('comment') && <th className="text-left">Comment</th>}
          <th className="text-left">Notes</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((row, place) => (
          <Row
            key={row.reply.enrollmentId}
            {...props}
            row={row}
            place={place}
            isChosen={chosen === row.reply.enrollmentId}
            onMove={(column, byRow, byColumn) => move(place, column, byRow, byColumn)}
          />
        ))}
      </tbody>
    </table>
  );
}

interface RowProps extends Omit<SheetGridProps, 'rows' | 'chosen'> {
  readonly row: SheetRow;
  readonly place: number;
  readonly isChosen: boolean;
  readonly onMove: (column: EditableColumn, byRow: number, byColumn: number) => void;
}

function Row({
  sheet,
  row,
  place,
  isChosen,
  isReadOnly,
  onChoose,
  onEnter,
  onPaste,
  onTakeComputed,
  onExplain,
  onMove,
}: RowProps) {
  const { reply, mark, computed, computedLabel, isUnsaved, remarks } = row;
  const isWithdrawn = reply.withdrawnOn !== null;
  const texts: Record<EditableColumn, string> = {
    percent: mark.percent ? showPercent(formatDecimal(mark.percent)) : '',
    mark: mark.code ?? (mark.label === null ? '' : showLabel(mark.label)),
    lastDate: mark.lastDate ? showDay(mark.lastDate) : '',
    hours: mark.hours ? formatDecimal(mark.hours) : '',
    comment: mark.comment,
  };
  const onKeyDown = (column: EditableColumn) => (event: KeyboardEvent<HTMLInputElement>) => {
    const { value, selectionStart, selectionEnd } = event.currentTarget;
    const isWhole = selectionStart === 0 && selectionEnd === value.length;
    const atStart = selectionEnd === 0 || isWhole;
    const atEnd = selectionStart === value.length || isWhole;
    const step: readonly [number, number] | undefined =
      event.key === 'ArrowDown' || (event.key === 'Enter' && !event.shiftKey)
        ? [1, 0]
        : event.key === 'ArrowUp' || event.key === 'Enter'
          ? [-1, 0]
          : event.key === 'ArrowLeft' && atStart
            ? [0, -1]
            : event.key === 'ArrowRight' && atEnd
              ? [0, 1]
              : undefined;
    if (!step || event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    onMove(column, ...step);
  };
  const paste = (column: EditableColumn) => (event: ClipboardEvent) => {
    const text = event.clipboardData.getData('text/plain').replace(/\r?\n$/, '');
    if (!/[\t\n]/.test(text)) return;
    event.preventDefault();
    onPaste(
      row,
      column,
      text.split(/\r?\n/).map((line) => line.split('\t')),
    );
  };
  const cell = (column: EditableColumn, align = 'text-left') => (
    <SheetCell
      label={`${reply.student}, ${column === 'percent' && sheet.highestLevel !== null ? 'posted level' : columnNames[column]}`}
      place={`${place}/${column}`}
      text={texts[column]}
      placeholder={column === 'percent' && !isWithdrawn && isBlank(mark) ? 'blank' : ''}
      align={align}
      isReadOnly={isReadOnly || (isWithdrawn && column !== 'lastDate' && texts[column] === '')}
      maxLength={column === 'comment' ? sheet.commentLength : 40}
      onFocus={() => onChoose(reply.enrollmentId)}
      onEnter={(text) => onEnter(row, column, text)}
      onKeyDown={onKeyDown(column)}
      onPaste={paste(column)}
    />
  );
  const differs = computed && mark.percent && computedLabel !== mark.label;
  return (
    <tr
      className={`h-8 [&_td]:border-b [&_td]:border-hairline ${isChosen ? 'bg-eucalypt-soft' : ''} ${isWithdrawn ? 'text-quiet' : ''}`}
      onClick={() => onChoose(reply.enrollmentId)}
    >
      <td className={`truncate px-2.5 ${isUnsaved ? 'shadow-[inset_3px_0_0_var(--wattle-fill)]' : ''}`}>
        <span className={isWithdrawn ? '' : 'font-semibold'}>{reply.student}</span>
        {isWithdrawn && <span className="text-[12px]"> withdrawn</span>}
        {isUnsaved && <span className="sr-only"> not saved</span>}
      </td>
      <td className="figures px-2.5 text-right">
        {computed ? (
          <button
            type="button"
            tabIndex={-1}
            title="how it came about (w)"
            onClick={() => onExplain(row)}
            className="rounded-sm text-quiet hover:text-ink hover:underline"
          >
            {showComputed(formatDecimal(computed))}
          </button>
        ) : (
          <span className="text-quiet">–</span>
        )}
      </td>
      <td className="figures px-1">
        {computed && !isWithdrawn && computedLabel && (
          <button
            type="button"
            tabIndex={-1}
            disabled={isReadOnly}
            title="take what is computed"
            onClick={() => onTakeComputed(row)}
            className={`rounded-sm px-1 enabled:hover:bg-eucalypt-soft ${differs ? 'font-bold text-wattle' : 'text-quiet'}`}
          >
            {showLabel(computedLabel)}
            <span className="sr-only">, take what is computed for {reply.student}</span>
          </button>
        )}
      </td>
      <td className="figures p-0">{cell('percent', 'text-right')}</td>
      <td className="figures p-0 font-bold">{cell('mark', 'text-center')}</td>
      <td className="p-0">{cell('lastDate')}</td>
      {sheet.asksHours && <td className="figures p-0">{cell('hours', 'text-right')}</td>}
      {sheet.commentRule !== 'none' && <td className="p-0">{cell('comment')}</td>}
      <td className="px-2.5 py-1 text-[12px] leading-tight">
        {isWithdrawn && remarks.length === 0 && `Withdrawn ${showDay(reply.withdrawnOn!)}; is not graded`}
        {remarks.map(({ severity, says }) => (
          <span key={says} className={`flex gap-1.5 ${severity === 'blocks' ? 'text-waratah' : 'text-wattle'}`}>
            <span className="mt-[2px]">
              <SeverityDiamond severity={severity} />
            </span>
            {says}
          </span>
        ))}
      </td>
    </tr>
  );
}
