import { parseDecimal, type Decimal, type GradePoints, type Percent } from '#core/numbers';

/** A line of a scale's table as another program wrote it. */
export interface StatedLine {
  readonly label: string;
  readonly lowest: Percent;
  /** Null where the table states only the lower end. */
  readonly highest: Percent | null;
  readonly points: GradePoints | null;
  readonly descriptor: string;
}

export interface StatedScale {
  readonly lines: readonly StatedLine[];
  /** Rows that hold something but no band, counted from 1. */
  readonly unreadable: readonly { readonly row: number; readonly reason: 'no-label' | 'no-lowest' }[];
}

/**
 * Reads a scale out of a table of any layout: the first column that holds no numbers is the label, the next columns of
 * numbers are the two ends (in either order) and the grade points, what is left is the descriptor. A range in one cell,
 * "90–100" or "90 to 100", counts as both ends. A first row without numbers is a heading.
 */
export function readStatedScale(rows: readonly (readonly string[])[]): StatedScale {
  const filled = rows.map((cells, index) => ({ cells, row: index + 1 })).filter(({ cells }) => cells.some(isFilled));
  const body = filled.filter(({ cells }, index) => index > 0 || cells.some((cell) => rangeOf(cell) || numberOf(cell)));
  const lines: StatedLine[] = [];
  const unreadable: { row: number; reason: 'no-label' | 'no-lowest' }[] = [];
  for (const { cells, row } of body) {
    const words = cells.filter((cell) => isFilled(cell) && !numberOf(cell) && !rangeOf(cell));
    const [label, descriptor = ''] = words.length > 0 ? words : [cells.find(isFilled)!];
    const rest = words.length > 0 ? cells : cells.slice(cells.findIndex(isFilled) + 1);
    const numbers = rest.flatMap((cell) => rangeOf(cell) ?? numberOf(cell) ?? []);
    const [first, second, third] = numbers;
    if (!label) unreadable.push({ row, reason: 'no-label' });
    else if (!first) unreadable.push({ row, reason: 'no-lowest' });
    else lines.push({ label: label.trim(), descriptor: descriptor.trim(), ...ends(first, second, third) });
  }
  return { lines, unreadable };
}

function ends(first: Decimal, second?: Decimal, third?: Decimal): Omit<StatedLine, 'label' | 'descriptor'> {
  const value = (decimal: Decimal) => Number(decimal.units) / 10 ** decimal.digits;
  if (!second) return { lowest: first, highest: null, points: null };
  // Two numbers are both ends unless the second is small enough to be grade points only.
  if (!third && value(second) <= 5 && value(first) > 5) return { lowest: first, highest: null, points: second };
  const [lowest, highest] = value(first) <= value(second) ? [first, second] : [second, first];
  return { lowest, highest, points: third ?? null };
}

function isFilled(cell: string): boolean {
  return cell.trim() !== '';
}

function numberOf(cell: string): Decimal | undefined {
  return parseDecimal(
    cell
      .trim()
      .replace(/\s*%$/, '')
      .replace(/^(\d+),(\d+)$/, '$1.$2'),
  );
}

function rangeOf(cell: string): [Decimal, Decimal] | undefined {
  const match = /^(\d+(?:[.,]\d+)?)\s*%?\s*(?:–|—|-|to)\s*(\d+(?:[.,]\d+)?)\s*%?$/.exec(cell.trim());
  return match ? [numberOf(match[1]!)!, numberOf(match[2]!)!] : undefined;
}
