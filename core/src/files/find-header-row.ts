type Rows = readonly (readonly string[])[];

/** Rows in which the names of columns are looked for; title lines stand above them. */
export const leadingRows = 30;

/**
 * The row that names the columns, where the first row of the table does. Undefined where that row holds figures or
 * somebody's id: rows of data begin there, and none below names anything.
 * @param isId whether a cell is known to be data
 */
export function findHeaderRow(rows: Rows, isId: (cell: string) => boolean = () => false): number | undefined {
  const at = firstRowOfTable(rows);
  return at === undefined || rows[at]!.some((cell) => isFigure(cell) || isId(cell)) ? undefined : at;
}

/**
 * The first of the leading rows with nearly as many filled cells as any of them; title lines above a table are shorter.
 * Undefined where no row has two.
 */
export function firstRowOfTable(rows: Rows): number | undefined {
  const filled = rows.slice(0, leadingRows).map((row) => row.filter((cell) => cell.trim() !== '').length);
  const most = Math.max(0, ...filled);
  return most < 2 ? undefined : filled.findIndex((count) => count * 10 >= most * 8);
}

function isFigure(cell: string): boolean {
  return /^-?\d+([.,]\d+)?\s*%?$/.test(cell.trim());
}
