import type { SheetReply } from '#contract/posting';

/** Columns that are typed into, from left to right. */
const editableColumns = ['percent', 'mark', 'lastDate', 'hours', 'comment'] as const;
export type EditableColumn = (typeof editableColumns)[number];

/** The columns of a sheet: hours only where the item asks for them, comments only where it takes them. */
export function columnsOf({ asksHours, commentRule }: Pick<SheetReply, 'asksHours' | 'commentRule'>): EditableColumn[] {
  return editableColumns.filter(
    (column) => (column !== 'hours' || asksHours) && (column !== 'comment' || commentRule !== 'none'),
  );
}

/** What a column is called in a sentence. */
export const columnNames: Record<EditableColumn, string> = {
  percent: 'posted percentage',
  mark: 'label or code',
  lastDate: 'last date of attendance',
  hours: 'hours attended',
  comment: 'comment',
};

/** Widths in pixels. */
export const columnWidths: Record<EditableColumn, number> = {
  percent: 88,
  mark: 72,
  lastDate: 116,
  hours: 72,
  comment: 200,
};
export const [nameWidth, computedWidth, computedLabelWidth, notesWidth] = [196, 92, 46, 190];

/** How many columns stand before those that are typed into. */
export const columnsBefore = 3;

const digits = /^[\d.,]$/;
/** Whether a key begins to type into a column; the others stay keys of the screen. */
export function beginsTyping(column: EditableColumn, key: string): boolean {
  if (column === 'percent' || column === 'hours') return digits.test(key);
  return key.length === 1 && !'/?[]'.includes(key);
}
