import { useEffect } from 'react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { courseFields, courseHeadings, type CourseField } from '#core/courses';
import { useCellCursor } from '../ui/grid/use-cell-cursor';
import { CourseCell } from './course-cell';
import { reasonOf, type CellEdit, type CourseRow } from './course-sheet';

interface CourseGridProps {
  readonly rows: readonly CourseRow[];
  readonly marked: ReadonlySet<string>;
  readonly onMark: (keys: readonly string[], isMarked: boolean) => void;
  readonly onEdit: (edits: readonly CellEdit[]) => void;
  /** The course that the address asks to see first, by the key of its row; a new one has the focus as well. */
  readonly sought: string | null;
}

const widths: Readonly<Record<CourseField, number>> = {
  code: 78,
  title: 186,
  department: 140,
  kind: 78,
  level: 72,
  length: 78,
  credits: 62,
  mostCredits: 62,
  onTranscript: 80,
  countsInGpa: 52,
};
const markWidth = 34;
const scaleWidth = 112;
const totalWidth = markWidth + scaleWidth + courseFields.reduce((sum, field) => sum + widths[field], 0);
const rowHeight = 32;
/** Where what says which course it is stays while the rest scrolls sideways. */
const staysAt: Partial<Record<CourseField, number>> = { code: markWidth, title: markWidth + widths.code };

/** The facts of courses as a spreadsheet: arrows move, typing replaces, a block pastes, Ctrl+D fills down. */
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
  const isNew = sought !== null && rows[firstRow]?.key === sought && rows[firstRow].reply === undefined;
  const { ref } = cells.grid;
  useEffect(() => {
    if (isNew) ref.current?.focus();
  }, [isNew, ref]);
  const allMarked = rows.length > 0 && rows.every(({ key }) => marked.has(key));
  const headLook =
    'sticky top-0 z-10 flex h-10 items-center border-b border-hairline bg-surface px-2 leading-tight font-semibold text-quiet';
  const atCursor = rows[cells.cursor.row];
  const cursorField = courseFields[cells.cursor.column]!;
  return (
    <>
      <div
        {...cells.grid}
        aria-label="Courses"
        aria-rowcount={rows.length}
        className="min-h-0 flex-1 overflow-auto text-[13px] outline-offset-[-2px]"
      >
        <div role="row" className="sticky top-0 z-10 flex" style={{ minWidth: totalWidth }}>
          <div role="columnheader" style={{ width: markWidth }} className={`${headLook} left-0 z-20 justify-center`}>
            <input
              type="checkbox"
              aria-label="Select all courses shown"
              checked={allMarked}
              onChange={() =>
                onMark(
                  rows.map(({ key }) => key),
                  !allMarked,
                )
              }
              className="size-3.5 accent-eucalypt"
            />
          </div>
          {courseFields.map((field) => (
            <div
              key={field}
              role="columnheader"
              style={{ width: widths[field], flexGrow: field === 'title' ? 1 : 0, left: staysAt[field] }}
              className={`${headLook} ${staysAt[field] === undefined ? '' : 'z-20'} ${field === 'title' ? 'border-r' : ''}`}
            >
              {courseHeadings[field]}
            </div>
          ))}
          <div role="columnheader" style={{ width: scaleWidth }} className={headLook}>
            Scale
          </div>
        </div>
        <div className="relative" style={{ height: virtual.getTotalSize(), minWidth: totalWidth }}>
          {virtual.getVirtualItems().map(({ index, start }) => {
            const row = rows[index]!;
            return (
              <div
                key={row.key}
                role="row"
                aria-rowindex={index + 2}
                style={{ transform: `translateY(${start}px)` }}
                className={`absolute inset-x-0 flex h-8 border-b border-hairline ${marked.has(row.key) ? 'bg-eucalypt-soft' : 'bg-surface'} `}
              >
                <div
                  role="gridcell"
                  style={{ width: markWidth }}
                  className={`sticky left-0 z-[1] grid shrink-0 place-items-center bg-inherit ${row.changed.size > 0 ? 'shadow-[inset_3px_0_0_var(--wattle-fill)]' : ''}`}
                >
                  <input
                    type="checkbox"
                    tabIndex={-1}
                    aria-label={`Select ${row.cells.title || 'the new course'}`}
                    checked={marked.has(row.key)}
                    onChange={(event) => onMark([row.key], event.target.checked)}
                    className="size-3.5 accent-eucalypt"
                  />
                </div>
                {courseFields.map((field, at) => (
                  <CourseCell
                    key={field}
                    row={row}
                    field={field}
                    width={widths[field]}
                    staysAt={staysAt[field]}
                    isCursor={cells.isAt(index, at)}
                    isChosen={cells.isChosen(index, at)}
                    editing={cells.isAt(index, at) ? cells.editing : undefined}
                    onChoose={(keepsAnchor) => cells.moveTo(index, at, keepsAnchor)}
                    onBegin={() => cells.begin(row.cells[field])}
                    onTake={cells.take}
                    onCancel={() => cells.moveTo(index, at)}
                  />
                ))}
                <div
                  role="gridcell"
                  style={{ width: scaleWidth }}
                  title={row.reply?.scale ? `set by ${row.reply.scale.from}` : undefined}
                  className="flex shrink-0 items-center truncate px-2 text-quiet"
                >
                  {row.reply ? (row.reply.scale?.name ?? <span className="text-waratah">none</span>) : '–'}
                </div>
              </div>
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
