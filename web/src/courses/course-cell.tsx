import type { CourseField, InheritableFact } from '#core/courses';
import { CellInput } from '../ui/grid/cell-input';
import { reasonOf, type CourseRow } from './course-sheet';

interface CourseCellProps {
  readonly row: CourseRow;
  readonly field: CourseField;
  readonly width: number;
  /** Distance from the left at which it stays; undefined where it scrolls. */
  readonly staysAt: number | undefined;
  readonly isCursor: boolean;
  readonly isChosen: boolean;
  /** What its field began with while it is edited. */
  readonly editing: string | undefined;
  readonly onChoose: (keepsAnchor: boolean) => void;
  readonly onBegin: () => void;
  readonly onTake: (text: string, then: 'down' | 'right' | 'stay') => void;
  readonly onCancel: () => void;
}

const numbers: ReadonlySet<CourseField> = new Set(['credits', 'mostCredits']);

/** One fact of a course. What is inherited is grey and names its source; what is wrong says what would be right. */
export function CourseCell(props: CourseCellProps) {
  const { row, field, width, staysAt, isCursor, isChosen, editing, onChoose, onBegin, onTake, onCancel } = props;
  const fault = row.faults[field];
  const inherited = row.cells[field] === '' ? row.reply?.inherited[field as InheritableFact] : undefined;
  return (
    <div
      role="gridcell"
      aria-selected={isChosen}
      aria-invalid={fault !== undefined}
      data-cell={`${row.key}/${field}`}
      style={{ width, flexGrow: field === 'title' ? 1 : 0, left: staysAt }}
      title={reasonOf(row, field)}
      onMouseDown={(event) => {
        if (editing !== undefined) return;
        event.preventDefault();
        onChoose(event.shiftKey);
      }}
      onDoubleClick={onBegin}
      className={`flex shrink-0 items-center overflow-hidden px-2 whitespace-nowrap ${staysAt === undefined ? '' : 'sticky z-[1]'} ${field === 'title' ? 'border-r border-hairline' : ''} ${numbers.has(field) || field === 'code' ? 'figures' : ''} ${numbers.has(field) ? 'justify-end' : ''} ${fault ? 'text-waratah' : row.changed.has(field) ? 'font-semibold text-wattle' : field === 'title' ? 'font-semibold' : ''} ${isCursor ? 'outline-2 outline-offset-[-2px] outline-eucalypt' : ''} ${backgroundOf(fault !== undefined, isChosen && !isCursor, staysAt !== undefined)}`}
    >
      {editing === undefined ? (
        row.cells[field] === '' ? (
          <span className="text-quiet italic">{fault ? 'needed' : (inherited?.text ?? '')}</span>
        ) : (
          <span className="truncate">{row.cells[field]}</span>
        )
      ) : (
        <CellInput
          label={`${field} of ${row.cells.title || 'the new course'}`}
          start={editing}
          onTake={onTake}
          onCancel={onCancel}
        />
      )}
    </div>
  );
}

/** A cell that stays covers what scrolls beneath it. */
function backgroundOf(isFaulty: boolean, isChosen: boolean, stays: boolean): string {
  if (isFaulty) return 'bg-waratah-soft';
  if (isChosen) return 'bg-eucalypt-soft';
  return stays ? 'bg-inherit' : '';
}
