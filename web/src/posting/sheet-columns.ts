import type { SheetReply } from '#contract/posting';

/** Columns that are typed into, from left to right; a block from a spreadsheet has them in this order. */
const editableColumns = ['percent', 'mark', 'lastDate', 'hours', 'comment', 'reason'] as const;
export type EditableColumn = (typeof editableColumns)[number];

/**
 * The columns of a sheet: hours only where the item asks for them, comments only where it takes them, reasons only where something
 * is computed that a grade could override.
 */
export function columnsOf({
  asksHours,
  commentRule,
  rows,
}: Pick<SheetReply, 'asksHours' | 'commentRule' | 'rows'>): EditableColumn[] {
  const isComputed = rows.some(({ computed, composite }) => computed !== null || composite !== null);
  return editableColumns.filter(
    (column) =>
      (column !== 'hours' || asksHours) &&
      (column !== 'comment' || commentRule !== 'none') &&
      (column !== 'reason' || isComputed),
  );
}

/** What a column is called in a sentence. */
export const columnNames: Record<EditableColumn, string> = {
  percent: 'posted percentage',
  mark: 'label or code',
  reason: 'reason for the override',
  lastDate: 'last date of attendance',
  hours: 'hours attended',
  comment: 'comment',
};

/** Widths in pixels. */
export const columnWidths: Record<EditableColumn, number> = {
  percent: 84,
  mark: 64,
  reason: 110,
  lastDate: 110,
  hours: 72,
  comment: 146,
};
export const [nameWidth, computedWidth, computedLabelWidth, notesWidth] = [180, 84, 46, 190];

/** How many columns stand before those that are typed into. */
export const columnsBefore = 3;

const digits = /^[\d.,]$/;
/** Whether a key begins to type into a column; the others stay keys of the screen. */
export function beginsTyping(column: EditableColumn, key: string): boolean {
  if (column === 'percent' || column === 'hours') return digits.test(key);
  return key.length === 1 && !'/?[]='.includes(key);
}
