import { useVirtualizer } from '@tanstack/react-virtual';
import { useImperativeHandle, type Ref } from 'react';
import { formatDecimal } from '#core/numbers';
import { EditCell } from '../ui/grid/edit-cell';
import { useCellCursor } from '../ui/grid/use-cell-cursor';
import { useRowHeight } from '../ui/own-view';
import { showComputed, showDay } from '../ui/format';
import { beginsTyping, columnNames, columnsOf } from './sheet-columns';
import { textsOfRow } from './sheet-view';
import type { useStandardsDraft } from './use-standards-draft';

export interface StandardsGridHandle {
  readonly goTo: (row: number, column: number) => void;
}

interface StandardsGridProps {
  readonly ref: Ref<StandardsGridHandle>;
  readonly draft: ReturnType<typeof useStandardsDraft>;
  readonly isReadOnly: boolean;
  readonly onReach: (row: number, column: number) => void;
}

const [nameWidth, levelWidth, commentWidth] = [200, 116, 280];

/** Students × standards for the keyboard: a figure from 0 to the highest level fills a cell at once. */
export function StandardsGrid({ ref, draft, isReadOnly, onReach }: StandardsGridProps) {
  const { standards, commentAt, placeOf, faults } = draft;
  const students = standards[0]!.rows;
  const columns = standards.length + (commentAt === -1 ? 0 : 1);
  const textOf = (row: number, column: number) => {
    const { standard, own } = placeOf(column);
    const name = columnsOf(standard.sheet)[own]!;
    const at = standard.rows[row]!;
    const fault = faults.find(
      (each) =>
        each.itemId === standard.sheet.itemId && each.enrollmentId === at.reply.enrollmentId && each.column === name,
    );
    const texts = textsOfRow(at);
    // Whole levels stand as they are typed.
    const level = name !== 'percent' ? texts[name] : texts.percent.replace(/[.,]0$/, '') || texts.mark;
    const contested = at.isContested ? at.remarks.find(({ severity }) => severity === 'blocks')?.says : undefined;
    return { text: fault?.text ?? level, fault: fault?.says ?? contested, at, name };
  };
  const cells = useCellCursor({
    rows: students.length,
    keyAt: (row) => students[row]?.reply.enrollmentId,
    columns,
    columnKeyAt: (column) => standards[column]?.sheet.itemId ?? 'comment',
    isReadOnly,
    textAt: (row, column) => textOf(row, column).text,
    onEdit: draft.edit,
    onReach: (row, column) => {
      onReach(row, column);
      virtual.scrollToIndex(row);
    },
    isBeginning: (key, row, column) => {
      const { name } = textOf(row, column);
      return name === 'percent' ? beginsTyping('percent', key) || beginsTyping('mark', key) : beginsTyping(name, key);
    },
    isWhole: (key, _row, column) => {
      const highest = standards[column]?.sheet.highestLevel ?? null;
      return highest !== null && /^\d$/.test(key) && Number(key) <= Number(highest);
    },
    isLocked: (row, column) =>
      textOf(row, column).text === '' &&
      (students[row]!.reply.withdrawnOn !== null || (standards[column]?.sheet.signedOff ?? null) !== null),
    isPassed: (row) => students[row]!.reply.withdrawnOn !== null,
  });
  useImperativeHandle(ref, () => ({ goTo: cells.moveTo }));
  const rowHeight = useRowHeight();
  const virtual = useVirtualizer({
    count: students.length,
    getScrollElement: () => cells.grid.ref.current,
    estimateSize: () => rowHeight + 1,
    overscan: 8,
  });
  const width = nameWidth + standards.length * levelWidth + (commentAt === -1 ? 0 : commentWidth);
  const head = 'flex h-9 shrink-0 items-center px-2 font-semibold';
  return (
    <div
      {...cells.grid}
      aria-label="Standards sheet"
      aria-colcount={columns + 1}
      className="min-h-0 flex-1 overflow-auto text-[13px] outline-offset-[-2px]"
    >
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
          className={`${head} sticky left-0 z-20 bg-surface`}
        >
          Student
        </div>
        {standards.map(({ sheet }, column) => (
          <div
            key={sheet.itemId}
            role="columnheader"
            aria-colindex={column + 2}
            title={sheet.itemName}
            style={{ width: levelWidth }}
            className={`${head} justify-center text-ink`}
          >
            <span className="truncate">{sheet.itemName}</span>
          </div>
        ))}
        {commentAt !== -1 && (
          <div
            role="columnheader"
            aria-colindex={columns + 1}
            style={{ minWidth: commentWidth }}
            className={`${head} flex-1`}
          >
            Comment
          </div>
        )}
      </div>
      <div className="relative" style={{ height: virtual.getTotalSize(), minWidth: width }}>
        {virtual.getVirtualItems().map(({ index, start }) => {
          const { reply } = students[index]!;
          const isUnsaved = standards.some(({ rows }) => rows[index]!.isUnsaved);
          const cursor = cells.inRow(index);
          return (
            <div
              key={reply.enrollmentId}
              role="row"
              aria-rowindex={index + 2}
              data-index={index}
              ref={virtual.measureElement}
              style={{ transform: `translateY(${start}px)` }}
              className={`absolute inset-x-0 flex min-h-(--row) border-b border-hairline bg-surface ${reply.withdrawnOn ? 'text-quiet' : ''}`}
            >
              <div
                role="rowheader"
                aria-colindex={1}
                title={reply.student}
                style={{ width: nameWidth }}
                className={`sticky left-0 z-[1] flex shrink-0 items-center bg-inherit px-2.5 ${isUnsaved ? 'shadow-[inset_3px_0_0_var(--wattle-fill)]' : ''}`}
              >
                <span className="truncate font-semibold">{reply.student}</span>
                {reply.withdrawnOn && <span className="ml-1 text-[12px]">withdrawn {showDay(reply.withdrawnOn)}</span>}
              </div>
              {Array.from({ length: columns }, (_each, column) => {
                const { text, fault, at, name } = textOf(index, column);
                const isComment = column === standards.length;
                const itemName = standards[column]?.sheet.itemName;
                return (
                  <EditCell
                    key={column}
                    row={index}
                    column={column}
                    ariaColumn={column + 2}
                    cursor={cursor}
                    actions={cells.actions}
                    label={`${reply.student}, ${isComment ? columnNames.comment : itemName}`}
                    isLocked={isReadOnly || (reply.withdrawnOn !== null && text === '')}
                    maxLength={isComment ? standards[commentAt]!.sheet.commentLength : 12}
                    fault={fault}
                    title={fault ?? (text.length > 12 ? text : undefined)}
                    style={isComment ? { minWidth: commentWidth, flex: 1 } : { width: levelWidth }}
                    look={`${isComment ? '' : 'justify-center'} ${fault ? 'bg-waratah-soft text-waratah' : ''}`}
                  >
                    <span className={`truncate ${isComment ? '' : 'figures font-bold'}`}>{text}</span>
                    {!isComment && name === 'percent' && at.mark.label !== null && text !== at.mark.label && (
                      <span className="ml-1.5 text-quiet">{at.mark.label}</span>
                    )}
                    {!isComment && at.computed && (
                      <span
                        className={`figures ml-auto pl-1 text-[11px] ${at.isOverride ? 'font-bold text-wattle' : 'text-quiet'}`}
                        title="computed"
                      >
                        {showComputed(formatDecimal(at.computed))}
                      </span>
                    )}
                  </EditCell>
                );
              })}
            </div>
          );
        })}
      </div>
    </div>
  );
}
