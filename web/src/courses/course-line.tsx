import { memo } from 'react';
import { courseFields } from '#core/courses';
import type { CellActions, RowCursor } from '../ui/grid/use-cell-cursor';
import { CourseCell } from './course-cell';
import { fieldWidths, markWidth, scaleWidth, staysAt } from './course-layout';
import type { CourseRow } from './course-sheet';

interface CourseLineProps {
  readonly row: CourseRow;
  readonly place: number;
  /** Pixels from the top of the list. */
  readonly start: number;
  readonly isMarked: boolean;
  readonly onMark: (keys: readonly string[], isMarked: boolean) => void;
  readonly cursor: RowCursor;
  readonly actions: CellActions;
}

/** One course of the spreadsheet; drawn again only when it changes. */
export const CourseLine = memo(function CourseLine(props: CourseLineProps) {
  const { row, place, start, isMarked, onMark, cursor, actions } = props;
  return (
    <div
      role="row"
      aria-rowindex={place + 2}
      style={{ transform: `translateY(${start}px)` }}
      className={`absolute inset-x-0 flex h-8 border-b border-hairline ${isMarked ? 'bg-eucalypt-soft' : 'bg-surface'}`}
    >
      <div
        role="gridcell"
        aria-colindex={1}
        style={{ width: markWidth }}
        className={`sticky left-0 z-[1] grid shrink-0 place-items-center bg-inherit ${row.changed.size > 0 ? 'shadow-[inset_3px_0_0_var(--wattle-fill)]' : ''}`}
      >
        <input
          type="checkbox"
          tabIndex={-1}
          aria-label={`Select ${row.cells.title || 'the new course'}`}
          checked={isMarked}
          onChange={(event) => onMark([row.key], event.target.checked)}
          className="size-3.5 accent-eucalypt"
        />
      </div>
      {courseFields.map((field, column) => (
        <CourseCell
          key={field}
          row={row}
          place={place}
          field={field}
          column={column}
          width={fieldWidths[field]}
          staysAt={staysAt[field]}
          cursor={cursor}
          actions={actions}
        />
      ))}
      <div
        role="gridcell"
        aria-colindex={courseFields.length + 2}
        style={{ width: scaleWidth }}
        title={row.reply?.scale ? `set by ${row.reply.scale.from}` : undefined}
        className="flex shrink-0 items-center truncate px-2 text-quiet"
      >
        {row.reply ? (row.reply.scale?.name ?? <span className="text-waratah">none</span>) : '–'}
      </div>
    </div>
  );
});
