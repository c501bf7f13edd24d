import { memo } from 'react';
import { showDay } from '../../ui/format';
import type { CellActions, RowCursor } from '../../ui/grid/use-cell-cursor';
import type { CategoryColumns } from './book-columns';
import { nameWidth, stickyLook } from './book-layout';
import type { BookRow } from './book-view';
import { CategoryCell, WholeCells } from './result-cells';
import { ScoreCell } from './score-cell';
import type { StudentDrafts } from './score-drafts';

interface BookLineProps {
  readonly row: BookRow;
  readonly place: number;
  /** Pixels from the top of the list. */
  readonly start: number;
  readonly groups: readonly CategoryColumns[];
  readonly decimals: number;
  readonly drafts: StudentDrafts | undefined;
  readonly isLevel: boolean;
  readonly isChosen: boolean;
  readonly onExplain: (row: BookRow) => void;
  readonly cursor: RowCursor;
  readonly actions: CellActions;
}

/** One student of a grade book; drawn again only when something of the student changes. */
export const BookLine = memo(function BookLine(props: BookLineProps) {
  const { row, place, start, groups, decimals, drafts, isLevel, isChosen, onExplain, cursor, actions } = props;
  const { student } = row;
  let column = -1;
  let ariaColumn = 3;
  return (
    <div
      role="row"
      aria-rowindex={place + 2}
      style={{ transform: `translateY(${start}px)` }}
      className={`absolute inset-x-0 flex h-(--row) border-b border-hairline ${student.withdrawnOn ? 'text-quiet' : ''}`}
    >
      <div
        role="rowheader"
        aria-colindex={1}
        style={{ width: nameWidth }}
        className={`${stickyLook} left-0 px-3 ${isChosen ? 'bg-eucalypt-soft!' : ''}`}
      >
        <button
          type="button"
          tabIndex={-1}
          title={student.withdrawnOn ? `withdrawn ${showDay(student.withdrawnOn)}` : student.student}
          onClick={() => onExplain(row)}
          className="min-w-0 truncate text-left font-semibold hover:underline"
        >
          <span className={`truncate ${student.withdrawnOn ? 'line-through' : ''}`}>{student.student}</span>
        </button>
      </div>
      <WholeCells row={row} isRow={isChosen} onExplain={() => onExplain(row)} />
      {groups.map(({ category, assignments }) => {
        ariaColumn++;
        return (
          <div key={category.id} role="presentation" className="flex">
            <CategoryCell
              result={row.categories.get(category.id)}
              tint={category.tint}
              isLevel={isLevel}
              ariaColumn={ariaColumn}
            />
            {assignments.map((assignment) => {
              column++;
              ariaColumn++;
              return (
                <ScoreCell
                  key={assignment.id}
                  assignment={assignment}
                  row={row}
                  place={place}
                  column={column}
                  ariaColumn={ariaColumn}
                  decimals={decimals}
                  drafts={drafts}
                  cursor={cursor}
                  actions={actions}
                />
              );
            })}
          </div>
        );
      })}
    </div>
  );
});
