import { scoreKey, type AssignmentReply } from '#contract/calculation';
import { CellInput } from '../../ui/grid/cell-input';
import { scoreWidth } from './book-layout';
import type { BookRow } from './book-view';
import { isGiven } from './score-drafts';
import { flagMarks, treatmentWords } from '../words';

interface ScoreCellProps {
  readonly assignment: AssignmentReply;
  readonly row: BookRow;
  readonly text: string;
  readonly isDraft: boolean;
  readonly fault: string | undefined;
  readonly isStale: boolean;
  readonly isCursor: boolean;
  readonly isChosen: boolean;
  readonly editing: string | undefined;
  readonly onChoose: (keepsAnchor: boolean) => void;
  readonly onBegin: () => void;
  readonly onTake: (text: string, then: 'down' | 'right' | 'stay') => void;
  readonly onCancel: () => void;
}

/** One score: struck through when it is dropped, quiet when it does not count, its flag in a few letters. */
export function ScoreCell(props: ScoreCellProps) {
  const { assignment, row, text, isDraft, fault, isStale, isCursor, isChosen, editing, onChoose, onBegin } = props;
  const given = isGiven(assignment, row.student.enrollmentId);
  const score = row.scores.get(assignment.id);
  const treatment = score?.treatment;
  const why = !given
    ? 'not given to this student'
    : isStale
      ? 'someone else saved this score'
      : score?.isDropped
        ? 'dropped: without it the rest comes to the most'
        : treatment && treatment !== 'counted'
          ? treatmentWords[treatment]
          : undefined;
  const counts = treatment === 'counted' || treatment === 'countedAsZero' || treatment === 'extra';
  const ink = fault
    ? 'bg-waratah-soft text-waratah'
    : isStale
      ? 'bg-waratah-soft'
      : isDraft
        ? 'font-semibold text-wattle shadow-[inset_3px_0_0_var(--wattle-fill)]'
        : score?.isDropped || !counts
          ? 'text-quiet'
          : '';
  return (
    <div
      role="gridcell"
      aria-selected={isChosen}
      aria-invalid={fault !== undefined}
      data-cell={scoreKey({ assignmentId: assignment.id, enrollmentId: row.student.enrollmentId })}
      style={{ width: scoreWidth }}
      title={fault ?? why}
      onMouseDown={(event) => {
        if (editing !== undefined) return;
        event.preventDefault();
        onChoose(event.shiftKey);
      }}
      onDoubleClick={() => given && onBegin()}
      className={`figures flex shrink-0 items-center justify-end gap-1 overflow-hidden px-2 whitespace-nowrap ${ink} ${given ? '' : 'bg-raised'} ${isCursor ? 'outline-2 outline-offset-[-2px] outline-eucalypt' : isChosen ? 'bg-eucalypt-soft' : ''}`}
    >
      {editing !== undefined && given ? (
        <CellInput
          label={`${assignment.name} of ${row.student.student}`}
          start={editing}
          onTake={props.onTake}
          onCancel={props.onCancel}
        />
      ) : fault ? (
        <span className="truncate">{text}</span>
      ) : given ? (
        <>
          {score?.flag && <span className="font-sans text-[11px] font-semibold">{flagMarks[score.flag]}</span>}
          {score?.points != null &&
            (score.isDropped ? <s>{Number(score.points)}</s> : <span>{Number(score.points)}</span>)}
        </>
      ) : (
        <span aria-label="not given">·</span>
      )}
    </div>
  );
}
