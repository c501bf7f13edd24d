import { courseHeadings, type CourseField, type InheritableFact } from '#core/courses';
import { OnPoint } from '../ui/on-point';
import { EditCell } from '../ui/grid/edit-cell';
import type { CellActions, RowCursor } from '../ui/grid/use-cell-cursor';
import { reasonOf, type CourseRow } from './course-sheet';

interface CourseCellProps {
  readonly row: CourseRow;
  /** Where the row stands. */
  readonly place: number;
  readonly field: CourseField;
  readonly column: number;
  readonly width: number;
  /** Distance from the left at which it stays; undefined where it scrolls. */
  readonly staysAt: number | undefined;
  readonly cursor: RowCursor;
  readonly actions: CellActions;
}

const numbers: ReadonlySet<CourseField> = new Set(['credits', 'mostCredits']);

/** Decimals that credits usually have; one with more goes beyond the others. */
const creditDecimals = 2;

function Text({ text, isNumber }: { text: string; isNumber: boolean }) {
  return isNumber ? <OnPoint text={text} decimals={creditDecimals} /> : <span className="truncate">{text}</span>;
}

/** One fact of a course. What is inherited is grey and names its source; what is wrong says what would be right. */
export function CourseCell({ row, place, field, column, width, staysAt, cursor, actions }: CourseCellProps) {
  const fault = row.faults[field];
  const inherited = row.cells[field] === '' ? row.reply?.inherited[field as InheritableFact] : undefined;
  const isTitle = field === 'title';
  const isNumber = numbers.has(field);
  const ink = fault
    ? 'bg-waratah-soft text-waratah'
    : row.changed.has(field)
      ? 'font-semibold text-wattle'
      : isTitle
        ? 'font-semibold'
        : '';
  // A cell that stays covers what scrolls beneath it.
  const place3d = staysAt === undefined ? '' : `sticky z-[1] ${fault ? '' : 'bg-inherit'}`;
  return (
    <EditCell
      row={place}
      column={column}
      ariaColumn={column + 2}
      cursor={cursor}
      actions={actions}
      label={`${courseHeadings[field]} of ${row.cells.title || 'the new course'}`}
      fault={fault}
      title={reasonOf(row, field)}
      style={{ width, flexGrow: isTitle ? 1 : 0, left: staysAt }}
      look={`${place3d} ${isTitle ? 'border-r border-hairline' : ''} ${isNumber || field === 'code' ? 'figures' : ''} ${isNumber ? 'justify-end' : ''} ${ink}`}
    >
      {row.cells[field] === '' ? (
        <span className="text-quiet italic">
          {fault ? 'needed' : <Text text={inherited?.text ?? ''} isNumber={isNumber} />}
        </span>
      ) : (
        <Text text={row.cells[field]} isNumber={isNumber} />
      )}
    </EditCell>
  );
}
