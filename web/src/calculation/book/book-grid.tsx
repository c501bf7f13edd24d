import { useCallback, useMemo } from 'react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRowHeight } from '../../ui/own-view';
import { scoreKey, type AssignmentReply, type BookReply } from '#contract/calculation';
import { isOfEvidence } from '#core/calculation';
import { useCellCursor } from '../../ui/grid/use-cell-cursor';
import { mostDecimals } from '../../ui/on-point';
import { useKeptRows } from '../../ui/grid/use-kept-rows';
import { useLatest } from '../../ui/use-latest';
import { BookLine } from './book-line';
import { AssignmentHead } from './assignment-head';
import type { CategoryColumns } from './book-columns';
import { labelWidth, leftOf, nameWidth, resultWidth, reveal, scoreWidth, stickyLook, wholeWidth } from './book-layout';
import type { BookRow } from './book-view';
import { categoryTint } from '../category-tint';
import { draftsByStudent, isGiven, textOfScore, type ReadDrafts, type ScoreDrafts } from './score-drafts';

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

/** Students down, assignments across by category; what each category and the whole come to stands before its scores. */
export function BookGrid(props: BookGridProps) {
  const { book, rows, groups, drafts, read, chosen, onChoose, onEdit, onExplain, onOpenAssignment } = props;
  const columns = groups.flatMap(({ assignments }) => assignments);
  const savedTexts = new Map(book.scores.map((score) => [scoreKey(score), textOfScore(score)]));
  const scoreAt = (row: number, column: number) =>
    scoreKey({ assignmentId: columns[column]!.id, enrollmentId: rows[row]!.student.enrollmentId });
  const textAt = (row: number, column: number) => {
    const key = scoreAt(row, column);
    return drafts[key]?.text ?? savedTexts.get(key) ?? '';
  };
  const cells = useCellCursor({
    rows: rows.length,
    keyAt: (at) => rows[at]?.student.enrollmentId,
    columns: columns.length,
    columnKeyAt: (at) => columns[at]?.id,
    isReadOnly: !book.canEdit,
    textAt,
    isLocked: (row, column) => !isGiven(columns[column]!, rows[row]!.student.enrollmentId),
    // Digits, and the first letters of the flags; no other letter begins a score.
    isBeginning: (key) => /^[\d.,mlieac]$/i.test(key),
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
  const rowHeight = useRowHeight();
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => cells.grid.ref.current,
    estimateSize: () => rowHeight,
    overscan: 12,
  });
  const width = nameWidth + wholeWidth + labelWidth + groups.length * resultWidth + columns.length * scoreWidth;
  /** The column in which each category begins, counted from 1. */
  const firstColumns = groups.map((_, at) =>
    groups.slice(0, at).reduce((sum, { assignments }) => sum + 1 + assignments.length, 4),
  );
  const decimals = useMemo(
    () => mostDecimals(book.scores.map(({ points }) => points && String(Number(points)))),
    [book],
  );
  const isLevel = isOfEvidence(book.policy.method);
  const draftRows = useKeptRows(
    useMemo(() => draftsByStudent(drafts, read), [drafts, read]),
    ({ enrollmentId }) => enrollmentId,
  );
  const ownDrafts = new Map(draftRows.map((each) => [each.enrollmentId, each]));
  const latest = useLatest({ onChoose, onExplain });
  const explain = useCallback(
    (row: BookRow) => {
      latest.current.onChoose(row.student.enrollmentId);
      latest.current.onExplain(row);
    },
    [latest],
  );
  return (
    <div
      {...cells.grid}
      aria-label="Grade book"
      aria-colcount={3 + groups.length + columns.length}
      className="min-h-0 flex-1 overflow-auto text-[13px] outline-none"
    >
      <div className="sticky top-0 z-10 bg-surface" style={{ minWidth: width }}>
        <div role="row" aria-rowindex={1} className="flex h-[74px] border-b border-hairline">
          <div
            role="columnheader"
            aria-colindex={1}
            style={{ width: nameWidth }}
            className={`${stickyLook} left-0 px-3 font-semibold text-quiet`}
          >
            Student
          </div>
          <div
            role="columnheader"
            aria-colindex={2}
            style={{ width: wholeWidth, left: nameWidth }}
            className={`${stickyLook} justify-end px-2 font-semibold text-quiet`}
          >
            Overall
          </div>
          <div
            role="columnheader"
            aria-colindex={3}
            style={{ width: labelWidth, left: nameWidth + wholeWidth }}
            className={`${stickyLook} justify-center border-r border-hairline`}
          >
            <span className="sr-only">Label</span>
          </div>
          {groups.map(({ category, assignments, weight }, at) => (
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
                  aria-colindex={firstColumns[at]}
                  aria-label={`${category.name} together`}
                  style={{ width: resultWidth }}
                  className="flex items-end justify-end px-2 pb-1 text-[12px] text-quiet"
                >
                  {isLevel ? 'level' : 'percent'}
                </div>
                {assignments.map((assignment, along) => (
                  <AssignmentHead
                    key={assignment.id}
                    assignment={assignment}
                    ariaColumn={firstColumns[at]! + 1 + along}
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
          const { enrollmentId } = row.student;
          return (
            <BookLine
              key={enrollmentId}
              row={row}
              place={index}
              start={start}
              groups={groups}
              decimals={decimals}
              drafts={ownDrafts.get(enrollmentId)}
              isLevel={isLevel}
              isChosen={enrollmentId === chosen}
              onExplain={explain}
              cursor={cells.inRow(index)}
              actions={cells.actions}
            />
          );
        })}
      </div>
    </div>
  );
}
