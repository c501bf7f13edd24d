import type { CSSProperties, ReactNode } from 'react';
import { CellInput } from './cell-input';
import type { CellActions, RowCursor } from './use-cell-cursor';

interface EditCellProps {
  /** Where the cell is, counted as the cursor counts. */
  readonly row: number;
  readonly column: number;
  /** Its column among all those shown, the first one being 1. */
  readonly ariaColumn: number;
  readonly cursor: RowCursor;
  readonly actions: CellActions;
  /** What the field is called while the cell is edited. */
  readonly label: string;
  readonly isLocked?: boolean;
  readonly maxLength?: number | undefined;
  readonly fault?: string | undefined;
  /** What stands behind the text: a fault, or where it comes from. */
  readonly title?: string | undefined;
  readonly look: string;
  readonly style?: CSSProperties;
  readonly children: ReactNode;
}

/** A cell of a grid that is typed into: it shows its text, the cursor, and the field while it is edited. */
export function EditCell(props: EditCellProps) {
  const { row, column, cursor, actions, isLocked = false, fault, look } = props;
  const isCursor = cursor.column === column;
  const isSelected = column >= cursor.from && column <= cursor.to;
  const isEditing = isCursor && cursor.editing !== undefined && !isLocked;
  const frame = isCursor ? 'outline-2 outline-offset-[-2px] outline-eucalypt' : isSelected ? 'bg-eucalypt-soft' : '';
  return (
    <div
      role="gridcell"
      id={actions.idOf(row, column)}
      aria-colindex={props.ariaColumn}
      aria-selected={isSelected}
      aria-invalid={fault !== undefined}
      aria-readonly={isLocked}
      title={props.title}
      style={props.style}
      onMouseDown={(event) => {
        if (isEditing) return;
        event.preventDefault();
        actions.choose(row, column, event.shiftKey);
      }}
      onDoubleClick={() => actions.begin(row, column)}
      className={`flex shrink-0 items-center overflow-hidden px-2 whitespace-nowrap ${look} ${frame}`}
    >
      {isEditing ? (
        <CellInput
          label={props.label}
          start={cursor.editing}
          maxLength={props.maxLength}
          onTake={actions.take}
          onCancel={actions.cancel}
        />
      ) : (
        props.children
      )}
    </div>
  );
}
