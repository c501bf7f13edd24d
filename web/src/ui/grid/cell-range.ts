import Papa from 'papaparse';

/** A stretch of cells by their positions, both corners included. */
export interface CellRange {
  readonly fromRow: number;
  readonly toRow: number;
  readonly fromColumn: number;
  readonly toColumn: number;
}

/** A text for one cell. */
export type CellText = readonly [row: number, column: number, text: string];

/** A block out of a spreadsheet laid over the cells from a corner on, also beyond the range; one cell fills the whole range. */
export function textsOfBlock(range: CellRange, block: readonly (readonly string[])[]): CellText[] {
  const isSingle = block.length === 1 && block[0]!.length === 1;
  if (isSingle) return cellsOf(range).map(([row, column]) => [row, column, block[0]![0]!]);
  return block.flatMap((line, down) =>
    line.map((text, right): CellText => [range.fromRow + down, range.fromColumn + right, text]),
  );
}

/** The first row of a range copied into the rows below it. */
export function textsOfFillDown(range: CellRange, textAt: (row: number, column: number) => string): CellText[] {
  return cellsOf({ ...range, fromRow: range.fromRow + 1 }).map(([row, column]) => [
    row,
    column,
    textAt(range.fromRow, column),
  ]);
}

/** A range as a spreadsheet takes it from the clipboard: tabs between cells, quotes round what has a tab, a quote or a break. */
export function blockOfRange(range: CellRange, textAt: (row: number, column: number) => string): string {
  const lines = new Map<number, string[]>();
  for (const [row, column] of cellsOf(range)) lines.set(row, [...(lines.get(row) ?? []), textAt(row, column)]);
  return Papa.unparse([...lines.values()], { delimiter: '\t', newline: '\n' });
}

/** The cells of a text from the clipboard, as spreadsheets write them: a quoted cell may hold tabs and line breaks. */
export function blockOfText(text: string): string[][] {
  const whole = text.replace(/\r?\n$/, '');
  if (whole === '') return [['']];
  const { data, errors } = Papa.parse<string[]>(whole, { delimiter: '\t' });
  // A quote that begins a cell and ends none is a quote: the text is not a quoted one.
  if (errors.some(({ type }) => type === 'Quotes')) return whole.split(/\r?\n/).map((line) => line.split('\t'));
  return data;
}

/** Row by row, from left to right. */
export function cellsOf({ fromRow, toRow, fromColumn, toColumn }: CellRange): (readonly [number, number])[] {
  const cells: (readonly [number, number])[] = [];
  for (let row = fromRow; row <= toRow; row++)
    for (let column = fromColumn; column <= toColumn; column++) cells.push([row, column]);
  return cells;
}
