/**
 * The row that names the columns: the first of the leading rows with as many filled cells as any of them, and with no
 * figures in it. Title lines above a table are shorter, rows of data below it hold figures. Undefined for a table
 * without such a row.
 */
export function findHeaderRow(rows: readonly (readonly string[])[]): number | undefined {
  const leading = rows.slice(0, 30);
  const filled = leading.map((row) => row.filter((cell) => cell.trim() !== '').length);
  const most = Math.max(0, ...filled);
  if (most < 2) return undefined;
  const at = leading.findIndex((row, index) => filled[index]! * 10 >= most * 8 && !row.some(isFigure));
  return at === -1 ? undefined : at;
}

function isFigure(cell: string): boolean {
  return /^-?\d+([.,]\d+)?\s*%?$/.test(cell.trim());
}
