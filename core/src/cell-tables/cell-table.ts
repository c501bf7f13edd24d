/** What is wrong with the text of a cell; words stand in the contract's catalogue. */
export type CellFault =
  | 'cell-needed'
  | 'cell-too-long'
  | 'level-unknown'
  | 'length-unknown'
  | 'credits-unreadable'
  | 'yes-or-no'
  | 'kind-unknown'
  | 'pronoun-unknown'
  | 'day-unreadable'
  | 'birth-day-unlikely'
  | 'birth-day-ahead'
  | 'day-before-birth'
  | 'address-unreadable'
  | 'course-unknown'
  | 'teacher-unknown'
  | 'period-unknown'
  | 'section-unknown'
  | 'student-unknown'
  | 'name-of-several'
  | 'section-number-unreadable'
  | 'seats-unreadable'
  | 'day-outside-year'
  | 'day-outside-period'
  | 'day-before-first'
  | 'day-ahead'
  | 'day-without-classes'
  | 'day-outside-seat'
  | 'student-not-in-section'
  | 'status-unknown';

/** The facts of a thing as text, as in the cells of a spreadsheet. */
export type Cells<Field extends string> = Readonly<Record<Field, string>>;

/** A kind of thing that is kept as rows of cells: its columns, what may stand in them, and how a row is known again. */
export interface CellTable<Field extends string> {
  /** In the order of the columns. */
  readonly fields: readonly Field[];
  /** What a spreadsheet calls each column; what is written here is read back. */
  readonly headings: Readonly<Record<Field, string>>;
  /** What else such columns are called. */
  readonly otherHeadings: Readonly<Partial<Record<Field, readonly string[]>>>;
  /** A row of a file that names these columns is its heading. */
  readonly neededColumns: readonly Field[];
  /** No two rows may have the same here, however it is written; an empty text is none. */
  readonly unique: { readonly field: Field; readonly keyOf: (cells: Cells<Field>) => string };
  /** What is wrong with the text of a cell, or undefined when it can be taken. */
  readonly fault: (field: Field, text: string) => CellFault | undefined;
  /** What is wrong with cells beside one another, none of which is wrong by itself. */
  readonly together: (cells: Cells<Field>) => Readonly<Partial<Record<Field, CellFault>>>;
  /** The text as it will stand once taken. */
  readonly tidy: (field: Field, text: string) => string;
  /** By what a row is known again, the surest first; of rows that share one, none is known by it. */
  readonly identities: (cells: Cells<Field>) => readonly string[];
  /** Whether a row is surely not what it seems to be by one of them. */
  readonly isOther: (said: Cells<Field>, kept: Cells<Field>) => boolean;
}

/** What is wrong with a row: cell by cell, and with its cells beside one another where none is wrong by itself. */
export function faultsOfRow<Field extends string>(
  { fields, fault, together }: CellTable<Field>,
  cells: Cells<Field>,
): readonly { readonly field: Field; readonly fault: CellFault }[] {
  const own = fields.flatMap((field) => {
    const found = fault(field, cells[field]);
    return found ? [{ field, fault: found }] : [];
  });
  if (own.length > 0) return own;
  const found = together(cells);
  return fields.flatMap((field) => (found[field] ? [{ field, fault: found[field] }] : []));
}

/** Cells that hold nothing. */
export function emptyCells<Field extends string>({ fields }: CellTable<Field>): Cells<Field> {
  return Object.fromEntries(fields.map((field) => [field, ''])) as Record<Field, string>;
}

/**
 * A text as two are compared that may not be the same: without case and the space around it.
 * @example foldCell(' Peu-101 ') // 'peu-101'
 */
export function foldCell(text: string): string {
  return text.trim().toLowerCase();
}
