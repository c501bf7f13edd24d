import { useRef, useState, type KeyboardEvent } from 'react';
import type { CourseField, InheritableFact } from '#core/courses';
import type { CourseRow } from './course-sheet';

interface CourseCellProps {
  readonly row: CourseRow;
  readonly field: CourseField;
  readonly width: number;
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
  const { row, field, width, isCursor, isChosen, editing, onChoose, onBegin } = props;
  const fault = row.faults[field];
  const inherited = row.cells[field] === '' ? row.reply?.inherited[field as InheritableFact] : undefined;
  const source =
    inherited &&
    { department: 'the department says so', school: 'the school says so', course: '', nowhere: 'nobody says' }[
      inherited.from
    ];
  return (
    <div
      role="gridcell"
      aria-selected={isChosen}
      aria-invalid={fault !== undefined}
      data-cell={`${row.key}/${field}`}
      style={{ width, flexGrow: field === 'title' ? 1 : 0 }}
      title={fault ?? source}
      onMouseDown={(event) => {
        if (editing !== undefined) return;
        event.preventDefault();
        onChoose(event.shiftKey);
      }}
      onDoubleClick={onBegin}
      className={`flex shrink-0 items-center overflow-hidden px-2 whitespace-nowrap ${numbers.has(field) || field === 'code' ? 'figures' : ''} ${numbers.has(field) ? 'justify-end' : ''} ${fault ? 'bg-waratah-soft text-waratah' : row.changed.has(field) ? 'font-semibold text-wattle' : field === 'title' ? 'font-semibold' : ''} ${isCursor ? 'outline-2 outline-offset-[-2px] outline-eucalypt' : isChosen ? 'bg-eucalypt-soft' : ''}`}
    >
      {editing === undefined ? (
        row.cells[field] === '' ? (
          <span className="text-quiet italic">{fault ? 'needed' : (inherited?.text ?? '')}</span>
        ) : (
          <span className="truncate">{row.cells[field]}</span>
        )
      ) : (
        <CellInput {...props} start={editing} />
      )}
    </div>
  );
}

function CellInput({ row, field, start, onTake, onCancel }: CourseCellProps & { start: string }) {
  const [text, setText] = useState(start);
  const isDone = useRef(false);
  /** Once: a key that takes the text also takes the focus away. */
  const take = (then: 'down' | 'right' | 'stay') => {
    if (isDone.current) return;
    isDone.current = true;
    onTake(text, then);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    event.stopPropagation();
    if (event.key === 'Enter') take('down');
    else if (event.key === 'Tab') take('right');
    else if (event.key === 'Escape') {
      isDone.current = true;
      onCancel();
    } else return;
    event.preventDefault();
  };
  return (
    <input
      // The cell was chosen and a key was pressed: the field goes on where that key began.
      // oxlint-disable-next-line jsx-a11y/no-autofocus
      autoFocus
      aria-label={`${field} of ${row.cells.title || 'the new course'}`}
      value={text}
      onChange={(event) => setText(event.target.value)}
      onKeyDown={onKeyDown}
      onBlur={() => take('stay')}
      className="-mx-1 w-full min-w-0 rounded-[2px] bg-surface px-1 text-ink outline-none"
    />
  );
}
