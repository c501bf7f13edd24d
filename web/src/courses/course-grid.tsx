import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef, useState, type ClipboardEvent, type KeyboardEvent } from 'react';
import { courseFields, courseHeadings, type CourseField } from '#core/courses';
import { CourseCell } from './course-cell';
import {
  blockOfText,
  editsOfBlock,
  editsOfFillDown,
  textOfRange,
  type CellEdit,
  type CellRange,
  type CourseRow,
} from './course-sheet';

interface CourseGridProps {
  readonly rows: readonly CourseRow[];
  readonly marked: ReadonlySet<string>;
  readonly onMark: (keys: readonly string[], isMarked: boolean) => void;
  readonly onEdit: (edits: readonly CellEdit[]) => void;
  /** The course that the address asks to see first. */
  readonly soughtId: number;
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

/** Where the cursor is, and the other corner of what is chosen. */
interface Cursor {
  readonly row: number;
  readonly field: number;
  readonly anchorRow: number;
  readonly anchorField: number;
}

/** The facts of courses as a spreadsheet: arrows move, typing replaces, a block pastes, Ctrl+D fills down. */
export function CourseGrid({ rows, marked, onMark, onEdit, soughtId }: CourseGridProps) {
  const scroller = useRef<HTMLDivElement>(null);
  const [cursor, setCursor] = useState<Cursor>(() => {
    const row = Math.max(
      0,
      rows.findIndex(({ reply }) => reply?.id === soughtId),
    );
    return { row, field: 0, anchorRow: row, anchorField: 0 };
  });
  const [editing, setEditing] = useState<string | undefined>();
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan: 12,
    initialOffset: Math.max(0, cursor.row - 4) * rowHeight,
  });
  const range: CellRange = {
    fromRow: Math.min(cursor.row, cursor.anchorRow),
    toRow: Math.max(cursor.row, cursor.anchorRow),
    fromField: Math.min(cursor.field, cursor.anchorField),
    toField: Math.max(cursor.field, cursor.anchorField),
  };
  const moveTo = (row: number, field: number, keepsAnchor: boolean) => {
    const to = {
      row: Math.min(rows.length - 1, Math.max(0, row)),
      field: Math.min(courseFields.length - 1, Math.max(0, field)),
    };
    setCursor((before) => ({
      ...to,
      anchorRow: keepsAnchor ? before.anchorRow : to.row,
      anchorField: keepsAnchor ? before.anchorField : to.field,
    }));
    setEditing(undefined);
    virtual.scrollToIndex(to.row);
    scroller.current?.focus({ preventScroll: true });
  };
  const take = (text: string) => {
    const row = rows[cursor.row];
    const field = courseFields[cursor.field]!;
    if (row && text !== row.cells[field]) onEdit([[row, field, text]]);
    setEditing(undefined);
  };
  const clear = () => {
    const edits = rows
      .slice(range.fromRow, range.toRow + 1)
      .flatMap((row) =>
        courseFields.slice(range.fromField, range.toField + 1).map((field): CellEdit => [row, field, '']),
      );
    onEdit(edits);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (editing !== undefined || event.target !== scroller.current) return;
    const step = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[event.key];
    const isControl = event.ctrlKey || event.metaKey;
    if (step) moveTo(cursor.row + step[0]!, cursor.field + step[1]!, event.shiftKey);
    else if (event.key === 'Tab') moveTo(cursor.row, cursor.field + (event.shiftKey ? -1 : 1), false);
    else if (event.key === 'Home') moveTo(isControl ? 0 : cursor.row, 0, event.shiftKey);
    else if (event.key === 'End')
      moveTo(isControl ? rows.length - 1 : cursor.row, courseFields.length - 1, event.shiftKey);
    else if (event.key === 'PageDown' || event.key === 'PageUp')
      moveTo(cursor.row + (event.key === 'PageDown' ? 15 : -15), cursor.field, event.shiftKey);
    else if (event.key === 'Enter' || event.key === 'F2')
      setEditing(rows[cursor.row]?.cells[courseFields[cursor.field]!] ?? '');
    else if (event.key === 'Delete' || event.key === 'Backspace') clear();
    else if (isControl && event.key.toLowerCase() === 'd') onEdit(editsOfFillDown(rows, range));
    else if (event.key === ' ')
      onMark(
        rows.slice(range.fromRow, range.toRow + 1).map(({ key }) => key),
        !marked.has(rows[cursor.row]?.key ?? ''),
      );
    else if (event.key.length === 1 && !isControl && !event.altKey) setEditing(event.key);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const onCopy = (event: ClipboardEvent) => {
    if (editing !== undefined) return;
    event.preventDefault();
    event.clipboardData.setData('text/plain', textOfRange(rows, range));
  };
  const onPaste = (event: ClipboardEvent) => {
    if (editing !== undefined) return;
    event.preventDefault();
    onEdit(editsOfBlock(rows, range, blockOfText(event.clipboardData.getData('text/plain'))));
  };
  const allMarked = rows.length > 0 && rows.every(({ key }) => marked.has(key));
  const headLook =
    'sticky top-0 z-10 flex h-10 items-center border-b border-hairline bg-surface px-2 leading-tight font-semibold text-quiet';
  return (
    <div
      ref={scroller}
      role="grid"
      aria-label="Courses"
      aria-rowcount={rows.length}
      tabIndex={0}
      onKeyDown={onKeyDown}
      onCopy={onCopy}
      onPaste={onPaste}
      className="min-h-0 flex-1 overflow-auto text-[13px] outline-offset-[-2px]"
    >
      <div role="row" className="sticky top-0 z-10 flex" style={{ minWidth: totalWidth }}>
        <div role="columnheader" style={{ width: markWidth }} className={`${headLook} justify-center`}>
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
            style={{ width: widths[field], flexGrow: field === 'title' ? 1 : 0 }}
            className={headLook}
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
              className={`absolute inset-x-0 flex h-8 border-b border-hairline ${marked.has(row.key) ? 'bg-eucalypt-soft' : ''} ${row.changed.size > 0 ? 'shadow-[inset_3px_0_0_var(--wattle-fill)]' : ''}`}
            >
              <div role="gridcell" style={{ width: markWidth }} className="grid shrink-0 place-items-center">
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
                  isCursor={index === cursor.row && at === cursor.field}
                  isChosen={
                    index >= range.fromRow && index <= range.toRow && at >= range.fromField && at <= range.toField
                  }
                  editing={index === cursor.row && at === cursor.field ? editing : undefined}
                  onChoose={(keepsAnchor) => moveTo(index, at, keepsAnchor)}
                  onBegin={() => setEditing(row.cells[field])}
                  onTake={(text, then) => {
                    take(text);
                    moveTo(index + (then === 'down' ? 1 : 0), at + (then === 'right' ? 1 : 0), false);
                  }}
                  onCancel={() => moveTo(index, at, false)}
                />
              ))}
              <div
                role="gridcell"
                style={{ width: scaleWidth }}
                title={row.reply?.scale ? `because of ${row.reply.scale.from}` : undefined}
                className="flex shrink-0 items-center truncate px-2 text-quiet"
              >
                {row.reply ? (row.reply.scale?.name ?? <span className="text-waratah">none</span>) : '–'}
              </div>
            </div>
          );
        })}
      </div>
    </div>
  );
}
