import { useCallback, useEffect } from 'react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { courseFields, courseHeadings } from '#core/courses';
import { useCellCursor } from '../ui/grid/use-cell-cursor';
import { useLatest } from '../ui/use-latest';
import { fieldWidths, markWidth, scaleWidth, staysAt, totalWidth } from './course-layout';
import { CourseLine } from './course-line';
import { reasonOf, type CellEdit, type CourseRow } from './course-sheet';

interface CourseGridProps {
  readonly rows: readonly CourseRow[];
  readonly marked: ReadonlySet<string>;
  readonly onMark: (keys: readonly string[], isMarked: boolean) => void;
  readonly onEdit: (edits: readonly CellEdit[]) => void;
  /** The course that the address asks to see first, by the key of its row; a new one has the focus as well. */
  readonly sought: string | null;
}

const rowHeight = 32;

/** The facts of courses as a spreadsheet. */
export function CourseGrid({ rows, marked, onMark, onEdit, sought }: CourseGridProps) {
  const firstRow = Math.max(
    0,
    rows.findIndex(({ key }) => key === sought),
  );
  const cells = useCellCursor({
    rows: rows.length,
    columns: courseFields.length,
    firstRow,
    textAt: (row, column) => rows[row]?.cells[courseFields[column]!] ?? '',
    onEdit: (texts) => onEdit(texts.map(([row, column, text]): CellEdit => [rows[row]!, courseFields[column]!, text])),
    onReach: (row) => virtual.scrollToIndex(row),
    onSpace: ({ fromRow, toRow }, row) =>
      onMark(
        rows.slice(fromRow, toRow + 1).map(({ key }) => key),
        !marked.has(rows[row]?.key ?? ''),
      ),
  });
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => cells.grid.ref.current,
    estimateSize: () => rowHeight,
    overscan: 12,
    initialOffset: Math.max(0, firstRow - 4) * rowHeight,
  });
  const latestMark = useLatest(onMark);
  const mark = useCallback<typeof onMark>((keys, isMarked) => latestMark.current(keys, isMarked), [latestMark]);
  const isNew = sought !== null && rows[firstRow]?.key === sought && rows[firstRow].reply === undefined;
  const { ref } = cells.grid;
  useEffect(() => {
    if (isNew) ref.current?.focus();
  }, [isNew, ref]);
  const allMarked = rows.length > 0 && rows.every(({ key }) => marked.has(key));
  const atCursor = rows[cells.cursor.row];
  const cursorField = courseFields[cells.cursor.column]!;
  return (
    <>
      <div
        {...cells.grid}
        aria-label="Courses"
        aria-colcount={courseFields.length + 2}
        className="min-h-0 flex-1 overflow-auto text-[13px] outline-offset-[-2px]"
      >
        <CourseHeads
          areAllMarked={allMarked}
          onMarkAll={() =>
            onMark(
              rows.map(({ key }) => key),
              !allMarked,
            )
          }
        />
        <div className="relative" style={{ height: virtual.getTotalSize(), minWidth: totalWidth }}>
          {virtual.getVirtualItems().map(({ index, start }) => {
            const row = rows[index]!;
            return (
              <CourseLine
                key={row.key}
                row={row}
                place={index}
                start={start}
                isMarked={marked.has(row.key)}
                onMark={mark}
                cursor={cells.inRow(index)}
                actions={cells.actions}
              />
            );
          })}
        </div>
      </div>
      <p role="status" className="min-h-7 border-t border-hairline px-4 py-1 text-[12px] text-quiet">
        {atCursor && `${courseHeadings[cursorField]} of ${atCursor.cells.title || 'the new course'}`}
        {atCursor && reasonOf(atCursor, cursorField) && `: ${reasonOf(atCursor, cursorField)}`}
        {atCursor?.reply?.scale && `. Its scale is set by ${atCursor.reply.scale.from}.`}
      </p>
    </>
  );
}

function CourseHeads({ areAllMarked, onMarkAll }: { areAllMarked: boolean; onMarkAll: () => void }) {
  const look =
    'sticky top-0 z-10 flex h-10 items-center border-b border-hairline bg-surface px-2 leading-tight font-semibold text-quiet';
  return (
    <div role="row" aria-rowindex={1} className="sticky top-0 z-10 flex" style={{ minWidth: totalWidth }}>
      <div
        role="columnheader"
        aria-colindex={1}
        style={{ width: markWidth }}
        className={`${look} left-0 z-20 justify-center`}
      >
        <input
          type="checkbox"
          aria-label="Select all courses shown"
          checked={areAllMarked}
          onChange={onMarkAll}
          className="size-3.5 accent-eucalypt"
        />
      </div>
      {courseFields.map((field, column) => (
        <div
          key={field}
          role="columnheader"
          aria-colindex={column + 2}
          style={{ width: fieldWidths[field], flexGrow: field === 'title' ? 1 : 0, left: staysAt[field] }}
          className={`${look} ${staysAt[field] === undefined ? '' : 'z-20'} ${field === 'title' ? 'border-r' : ''}`}
        >
          {courseHeadings[field]}
        </div>
      ))}
      <div role="columnheader" aria-colindex={courseFields.length + 2} style={{ width: scaleWidth }} className={look}>
        Scale
      </div>
    </div>
  );
}
