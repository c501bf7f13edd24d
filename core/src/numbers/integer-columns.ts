const [tab, lineBreak, minus, nought] = [9, 10, 45, 48];
const rowsAtFirst = 1024;

/**
 * Columns of whole numbers out of text with tabs between numbers and a line for each row, as databases write much at
 * once: byte by byte, as making a text of each of ten million numbers would take far longer. Numbers have 32 bits.
 */
export class IntegerColumns {
  private columns: Int32Array[];
  /** How many rows were read so far. */
  rows = 0;
  private column = 0;
  private value = 0;
  private sign = 1;

  /** @param width how many numbers a row has */
  constructor(width: number) {
    this.columns = Array.from({ length: width }, () => new Int32Array(rowsAtFirst));
  }

  /** Reads on; a piece may end anywhere, in a number too. */
  take(piece: Uint8Array): void {
    let { rows: row, column, value, sign } = this;
    for (let at = 0; at < piece.length; at++) {
      const byte = piece[at]!;
      if (byte >= nought) value = value * 10 + byte - nought;
      else if (byte === minus) sign = -1;
      else {
        if (row === this.columns[0]!.length) this.columns = this.columns.map(twiceAsLong);
        this.columns[column]![row] = sign * value;
        [value, sign] = [0, 1];
        if (byte === tab) column++;
        else if (byte === lineBreak) [row, column] = [row + 1, 0];
      }
    }
    Object.assign(this, { rows: row, column, value, sign });
  }

  /** The last row that was read; zeros where there is none. */
  lastRow(): number[] {
    return this.columns.map((column) => (this.rows === 0 ? 0 : column[this.rows - 1]!));
  }

  /** What was read so far. */
  read(): Int32Array[] {
    return this.columns.map((column) => column.subarray(0, this.rows));
  }
}

/** The columns of a whole text. */
export function readIntegers(text: Uint8Array, width: number): Int32Array[] {
  const columns = new IntegerColumns(width);
  columns.take(text);
  return columns.read();
}

function twiceAsLong(column: Int32Array): Int32Array {
  const longer = new Int32Array(column.length * 2);
  longer.set(column);
  return longer;
}
