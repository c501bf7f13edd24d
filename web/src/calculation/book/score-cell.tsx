import type { AssignmentReply } from '#contract/calculation';
import { EditCell } from '../../ui/grid/edit-cell';
import type { CellActions, RowCursor } from '../../ui/grid/use-cell-cursor';
import { OnPoint } from '../../ui/on-point';
import { scoreWidth } from './book-layout';
import type { BookRow } from './book-view';
import { isGiven, type StudentDrafts } from './score-drafts';
import { flagMarks, treatmentWords } from '../words';

interface ScoreCellProps {
  readonly assignment: AssignmentReply;
  readonly row: BookRow;
  readonly place: number;
  readonly column: number;
  readonly ariaColumn: number;
  /** Decimals that the scores of the book have at most. */
  readonly decimals: number;
  readonly drafts: StudentDrafts | undefined;
  readonly cursor: RowCursor;
  readonly actions: CellActions;
}

/** One score: struck through when it is dropped, quiet when it does not count, its flag in a few letters. */
export function ScoreCell(props: ScoreCellProps) {
  const { assignment, row, place, column, ariaColumn, decimals, drafts, cursor, actions } = props;
  const { id } = assignment;
  const given = isGiven(assignment, row.student.enrollmentId);
  const score = row.scores.get(id);
  const fault = drafts?.faults[id];
  const isStale = drafts?.stale.includes(id) ?? false;
  const treatment = score?.treatment;
  const why = !given
    ? 'not given to this student'
    : isStale
      ? 'someone else saved this score'
      : score?.isDropped
        ? 'dropped: without it the rest gives the most'
        : treatment && treatment !== 'counted'
          ? treatmentWords[treatment]
          : undefined;
  const counts = treatment === 'counted' || treatment === 'countedAsZero' || treatment === 'extra';
  const ink = fault
    ? 'bg-waratah-soft text-waratah'
    : isStale
      ? 'bg-waratah-soft'
      : drafts && id in drafts.texts
        ? 'font-semibold text-wattle shadow-[inset_3px_0_0_var(--wattle-fill)]'
        : score?.isDropped || !counts
          ? 'text-quiet'
          : '';
  return (
    <EditCell
      row={place}
      column={column}
      ariaColumn={ariaColumn}
      cursor={cursor}
      actions={actions}
      label={`${assignment.name} of ${row.student.student}`}
      isLocked={!given}
      fault={fault}
      title={fault ?? why}
      style={{ width: scoreWidth }}
      look={`figures justify-end gap-1 ${ink} ${given ? '' : 'bg-raised'}`}
    >
      {fault ? (
        <span className="truncate">{drafts.texts[id]}</span>
      ) : given ? (
        <>
          {score?.flag && <span className="font-sans text-[11px] font-semibold">{flagMarks[score.flag]}</span>}
          {score?.points != null && (
            <OnPoint
              className={score.isDropped ? 'line-through' : ''}
              text={String(Number(score.points))}
              decimals={decimals}
            />
          )}
        </>
      ) : (
        <span aria-label="not given">·</span>
      )}
    </EditCell>
  );
}
