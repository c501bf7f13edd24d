import { useVirtualizer } from '@tanstack/react-virtual';
import type { AssignmentReply, BookReply } from '#contract/calculation';
import { isOfEvidence, type CategoryWorkings } from '#core/calculation';
import { formatAtLeast, formatDecimal, roundDown, roundTo } from '#core/numbers';
import { showDay, showLabel, showPercent } from '../ui/format';
import { useCellCursor } from '../ui/use-cell-cursor';
import { CellInput } from '../ui/cell-input';
import type { CategoryColumns } from './book-columns';
import { scoreKey, type BookRow } from './book-view';
import { categoryTint } from './category-tint';
import { isGiven, textOfScore, type ReadDrafts, type ScoreDrafts } from './score-drafts';
import { flagMarks, standingWords, treatmentWords } from './words';

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

const [nameWidth, wholeWidth, labelWidth, resultWidth, scoreWidth] = [176, 62, 46, 62, 76];
const rowHeight = 32;
const stickyLook = 'sticky z-[1] flex h-full shrink-0 items-center bg-surface';

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
              <Whole row={row} isRow={isRow} onExplain={() => onExplain(row)} />
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

function AssignmentHead({ assignment, onOpen }: { assignment: AssignmentReply; onOpen: () => void }) {
  const { name, possible, dueOn, isExtra, isCounted, isPublished, givenTo } = assignment;
  const notes = [
    isExtra && 'extra',
    !isCounted && 'not counted',
    !isPublished && 'not published',
    givenTo && `for ${givenTo.length}`,
  ].filter(Boolean);
  return (
    <div role="columnheader" style={{ width: scoreWidth }} className="flex shrink-0">
      <button
        type="button"
        tabIndex={-1}
        onClick={onOpen}
        title={[name, `due ${showDay(dueOn)}`, `out of ${possible}`, ...notes].join(', ')}
        className="flex w-full flex-col justify-end px-2 pb-1 text-right text-[12px] leading-tight hover:bg-raised"
      >
        <span className={`line-clamp-2 [overflow-wrap:anywhere] ${isCounted ? '' : 'text-quiet line-through'}`}>
          {name}
        </span>
        <span className="figures text-[11px] text-quiet">
          {notes.length > 0 && <i className="font-sans">{notes[0]} </i>}/{Number(possible)}
        </span>
      </button>
    </div>
  );
}

function Whole({ row, isRow, onExplain }: { row: BookRow; isRow: boolean; onExplain: () => void }) {
  const { rounded, label, workings, differs, student } = row;
  const isBlocked = workings.blockedBy.length > 0;
  const look = isRow ? 'bg-eucalypt-soft!' : '';
  return (
    <>
      <div
        role="gridcell"
        style={{ width: wholeWidth, left: nameWidth }}
        className={`${stickyLook} figures justify-end px-2 ${look} ${isBlocked ? 'text-waratah' : differs ? 'text-wattle' : ''}`}
      >
        <button
          type="button"
          tabIndex={-1}
          onClick={onExplain}
          title={differs ? `posted as ${student.posted!.percent}` : undefined}
          className="font-bold hover:underline"
        >
          {isBlocked ? 'blocked' : rounded ? showPercent(formatDecimal(rounded)) : '–'}
        </button>
      </div>
      <div
        role="gridcell"
        style={{ width: labelWidth, left: nameWidth + wholeWidth }}
        className={`${stickyLook} figures justify-center border-r border-hairline font-bold ${look}`}
      >
        {label ? showLabel(label) : ''}
      </div>
    </>
  );
}

/** Cut to one decimal, so that a category never looks as if it had reached what it has not. */
function CategoryCell({
  result,
  tint,
  isLevel,
}: {
  result: CategoryWorkings | undefined;
  tint: number;
  isLevel: boolean;
}) {
  const value = isLevel ? result?.level : result?.limited;
  return (
    <div
      role="gridcell"
      style={{ width: resultWidth, background: `color-mix(in srgb, ${categoryTint(tint).fill} 35%, var(--surface))` }}
      title={result?.standing ? standingWords[result.standing] : undefined}
      className="figures flex shrink-0 items-center justify-end px-2 font-semibold"
    >
      {value ? formatAtLeast(roundTo(value, isLevel ? 2 : 1, roundDown), 1) : '–'}
    </div>
  );
}

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
function ScoreCell(props: ScoreCellProps) {
  const { assignment, row, text, isDraft, fault, isStale, isCursor, isChosen, editing, onChoose, onBegin } = props;
  const given = isGiven(assignment, row.student.enrollmentId);
  const score = row.scores.get(assignment.id);
  const treatment = score?.treatment;
  const why = !given
    ? 'not given to this student'
    : isStale
      ? 'somebody else saved this score first'
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

/** How far from the left a score's column begins. */
function leftOf(groups: readonly CategoryColumns[], column: number): number {
  let [left, passed] = [nameWidth + wholeWidth + labelWidth, 0];
  for (const { assignments } of groups) {
    left += resultWidth;
    if (column < passed + assignments.length) return left + (column - passed) * scoreWidth;
    left += assignments.length * scoreWidth;
    passed += assignments.length;
  }
  return left;
}

/** Scrolls sideways until a column is between the columns that stay and the right edge. */
function reveal(scroller: HTMLElement | null, left: number, staying: number): void {
  if (!scroller) return;
  if (left - scroller.scrollLeft < staying) scroller.scrollLeft = left - staying;
  const over = left + scoreWidth - scroller.scrollLeft - scroller.clientWidth;
  if (over > 0) scroller.scrollLeft += over;
}
