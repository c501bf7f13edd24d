import { useVirtualizer } from '@tanstack/react-virtual';
import { scoreKey, type AssignmentReply, type BookReply } from '#contract/calculation';
import { isOfEvidence } from '#core/calculation';
import { showDay } from '../../ui/format';
import { useCellCursor } from '../../ui/grid/use-cell-cursor';
import { AssignmentHead } from './assignment-head';
import type { CategoryColumns } from './book-columns';
import { labelWidth, leftOf, nameWidth, resultWidth, reveal, scoreWidth, stickyLook, wholeWidth } from './book-layout';
import type { BookRow } from './book-view';
import { categoryTint } from '../category-tint';
import { CategoryCell, WholeCells } from './result-cells';
import { ScoreCell } from './score-cell';
import { textOfScore, type ReadDrafts, type ScoreDrafts } from './score-drafts';

interface BookGridProps {
  readonly book: BookReply;
  readonly rows: readonly BookRow[];
  readonly groups: readonly CategoryColumns[];
  readonly drafts: ScoreDrafts;
  readonly read: ReadDrafts;
  readonly chosen: number | null;
  readonly onChoose: (enrollmentId: number) => void;
  readonly onEdit: (texts: readonly { assignmentId: number; enrollmentId: number; text: string }[]) => void;
  readonly onExplain: (row: BookRow) => void;
  readonly onOpenAssignment: (assignment: AssignmentReply) => void;
}

const rowHeight = 32;

/** Students down, assignments across by category; what each category and the whole come to stands before its scores. */
export function BookGrid(props: BookGridProps) {
  const { book, rows, groups, drafts, read, chosen, onChoose, onEdit, onExplain, onOpenAssignment } = props;
  const columns = groups.flatMap(({ assignments }) => assignments);
  const savedTexts = new Map(book.scores.map((score) => [scoreKey(score), textOfScore(score)]));
  const keyAt = (row: number, column: number) =>
    scoreKey({ assignmentId: columns[column]!.id, enrollmentId: rows[row]!.student.enrollmentId });
  const textAt = (row: number, column: number) => {
    const key = keyAt(row, column);
    return drafts[key]?.text ?? savedTexts.get(key) ?? '';
  };
  const cells = useCellCursor({
    rows: rows.length,
    columns: columns.length,
    isReadOnly: !book.canEdit,
    textAt,
    // Digits, and the first letters of the flags; no other letter begins a score.
    isBeginning: (key) => /[\d.,mlieac]/i.test(key),
    onEdit: (texts) =>
      onEdit(
        texts.map(([row, column, text]) => ({
          assignmentId: columns[column]!.id,
          enrollmentId: rows[row]!.student.enrollmentId,
          text,
        })),
      ),
    onReach: (row, column) => {
      const student = rows[row];
      if (student) onChoose(student.student.enrollmentId);
      virtual.scrollToIndex(row);
      reveal(cells.grid.ref.current, leftOf(groups, column), nameWidth + wholeWidth + labelWidth);
    },
  });
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => cells.grid.ref.current,
    estimateSize: () => rowHeight,
    overscan: 12,
  });
  const width = nameWidth + wholeWidth + labelWidth + groups.length * resultWidth + columns.length * scoreWidth;
  const isLevel = isOfEvidence(book.policy.method);
  return (
    <div
      {...cells.grid}
      aria-label="Grade book"
      aria-rowcount={rows.length}
      aria-readonly={!book.canEdit}
      className="min-h-0 flex-1 overflow-auto text-[13px] outline-none"
    >
      <div className="sticky top-0 z-10 bg-surface" style={{ minWidth: width }}>
        <div role="row" className="flex h-[74px] border-b border-hairline">
          <div
            role="columnheader"
            style={{ width: nameWidth }}
            className={`${stickyLook} left-0 px-3 font-semibold text-quiet`}
          >
            Student
          </div>
          <div
            role="columnheader"
            style={{ width: wholeWidth, left: nameWidth }}
            className={`${stickyLook} justify-end px-2 font-semibold text-quiet`}
          >
            Whole
          </div>
          <div
            role="columnheader"
            style={{ width: labelWidth, left: nameWidth + wholeWidth }}
            className={`${stickyLook} justify-center border-r border-hairline`}
          >
            <span className="sr-only">Label</span>
          </div>
          {groups.map(({ category, assignments, weight }) => (
            <div key={category.id} className="flex flex-col" role="presentation">
              <div
                style={{ background: categoryTint(category.tint).fill }}
                className="flex h-[22px] items-center overflow-hidden px-2 font-semibold whitespace-nowrap"
              >
                <span className="truncate">{category.name}</span>
                {book.policy.method !== 'totalPoints' && (
                  <span className="figures ml-1.5 text-[12px] font-normal">{weight ?? 'no weight'}</span>
                )}
              </div>
              <div className="flex min-h-0 flex-1">
                <div
                  role="columnheader"
                  aria-label={`${category.name} together`}
                  style={{ width: resultWidth }}
                  className="flex items-end justify-end px-2 pb-1 text-[12px] text-quiet"
                >
                  {isLevel ? 'level' : 'percent'}
                </div>
                {assignments.map((assignment) => (
                  <AssignmentHead
                    key={assignment.id}
                    assignment={assignment}
                    onOpen={() => onOpenAssignment(assignment)}
                  />
                ))}
              </div>
            </div>
          ))}
        </div>
      </div>
      <div className="relative" style={{ height: virtual.getTotalSize(), minWidth: width }}>
        {virtual.getVirtualItems().map(({ index, start }) => {
          const row = rows[index]!;
          const { student } = row;
          const isRow = student.enrollmentId === chosen;
          let column = -1;
          return (
            <div
              key={student.enrollmentId}
              role="row"
              aria-rowindex={index + 2}
              style={{ transform: `translateY(${start}px)` }}
              className={`absolute inset-x-0 flex h-8 border-b border-hairline ${student.withdrawnOn ? 'text-quiet' : ''}`}
            >
              <div
                role="rowheader"
                style={{ width: nameWidth }}
                className={`${stickyLook} left-0 px-3 ${isRow ? 'bg-eucalypt-soft!' : ''}`}
              >
                <button
                  type="button"
                  tabIndex={-1}
                  title={student.withdrawnOn ? `withdrawn ${showDay(student.withdrawnOn)}` : undefined}
                  onClick={() => {
                    onChoose(student.enrollmentId);
                    onExplain(row);
                  }}
                  className="min-w-0 truncate text-left font-semibold hover:underline"
                >
                  <span className={`truncate ${student.withdrawnOn ? 'line-through' : ''}`}>{student.student}</span>
                </button>
              </div>
              <WholeCells row={row} isRow={isRow} onExplain={() => onExplain(row)} />
              {groups.map(({ category, assignments }) => (
                <div key={category.id} role="presentation" className="flex">
                  <CategoryCell result={row.categories.get(category.id)} tint={category.tint} isLevel={isLevel} />
                  {assignments.map((assignment) => {
                    column++;
                    const at = column;
                    const key = keyAt(index, at);
                    return (
                      <ScoreCell
                        key={assignment.id}
                        assignment={assignment}
                        row={row}
                        text={textAt(index, at)}
                        isDraft={key in drafts}
                        fault={read.faults.get(key)}
                        isStale={read.stale.includes(key)}
                        isCursor={cells.isAt(index, at)}
                        isChosen={cells.isChosen(index, at)}
                        editing={cells.isAt(index, at) ? cells.editing : undefined}
                        onChoose={(keepsAnchor) => cells.moveTo(index, at, keepsAnchor)}
                        onBegin={() => cells.begin(textAt(index, at))}
                        onTake={cells.take}
                        onCancel={() => cells.moveTo(index, at)}
                      />
                    );
                  })}
                </div>
              ))}
            </div>
          );
        })}
      </div>
    </div>
  );
}
