import {
  compareDecimals,
  decimalOrThrow,
  parseDecimal,
  type Decimal,
  type GradePoints,
  type Percent,
} from '#core/numbers';

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

/** What a column holds; undefined for one that says nothing of a band. */
type Role = 'label' | 'end' | 'points' | 'descriptor' | undefined;

/**
 * Reads a scale out of a table of any layout. What a column holds is said by its heading, or else by all its cells
 * together, never by one row alone: labels are the first column of short words, columns of numbers are the ends in
 * either order and the grade points, longer words are descriptors. A range in one cell, "90–100" or "90 to 100", is
 * both ends. A first row without numbers is a heading.
 */
export function readStatedScale(rows: readonly (readonly string[])[]): StatedScale {
  const filled = rows.map((cells, index) => ({ cells, row: index + 1 })).filter(({ cells }) => cells.some(isFilled));
  const hasHeading = filled.length > 0 && !filled[0]!.cells.some((cell) => rangeOf(cell) ?? numberOf(cell));
  const body = hasHeading ? filled.slice(1) : filled;
  const roles = rolesOf(
    body.map(({ cells }) => cells),
    hasHeading ? filled[0]!.cells : [],
  );
  const lines: StatedLine[] = [];
  const unreadable: { row: number; reason: 'no-label' | 'no-lowest' }[] = [];
  for (const { cells, row } of body) {
    const held = (role: Role) => cells.filter((cell, at) => roles[at] === role && isFilled(cell));
    const [label] = held('label');
    const [first, second] = held('end').flatMap((cell) => rangeOf(cell) ?? numberOf(cell) ?? []);
    if (!label) unreadable.push({ row, reason: 'no-label' });
    else if (!first) unreadable.push({ row, reason: 'no-lowest' });
    else {
      const isTurned = second !== undefined && compareDecimals(first, second) > 0;
      lines.push({
        label: label.trim(),
        lowest: isTurned ? second : first,
        highest: isTurned ? first : (second ?? null),
        points: numberOf(held('points')[0] ?? '') ?? null,
        descriptor: (held('descriptor')[0] ?? '').trim(),
      });
    }
  }
  return { lines, unreadable };
}

const longestLabel = 12;
const five = decimalOrThrow('5');

const headings: readonly (readonly [Exclude<Role, undefined>, RegExp])[] = [
  ['points', /\b(points?|gpa|quality)\b/i],
  ['end', /\b(from|to|lowest|highest|low|high|min(imum)?|max(imum)?|cut-?\s?offs?|begins?|ends?|percent|range)\b|%/i],
  ['descriptor', /\b(descriptors?|words?|meaning|descriptions?|remarks?)\b/i],
  ['label', /\b(labels?|letters?|grades?|marks?|bands?|levels?|names?)\b/i],
];

function rolesOf(body: readonly (readonly string[])[], heading: readonly string[]): Role[] {
  const width = Math.max(0, ...body.map(({ length }) => length));
  const columns = Array.from({ length: width }, (_column, at) => body.map((cells) => cells[at] ?? '').filter(isFilled));
  const isWords = columns.map((cells) => cells.some((cell) => !numberOf(cell) && !rangeOf(cell)));
  const said = columns.map((_cells, at) => headings.find(([, words]) => words.test(heading[at] ?? ''))?.[0]);
  if (said.includes('label') && said.includes('end')) {
    return said.map((role, at) => role ?? (isWords[at] ? 'descriptor' : undefined));
  }
  const first = columns.findIndex(({ length }) => length > 0);
  const words = columns.findIndex((cells, at) => isWords[at] && cells.every(({ length }) => length <= longestLabel));
  const label = words >= 0 ? words : first;
  const numbers = columns.flatMap((cells, at) => (at !== label && !isWords[at] && cells.length > 0 ? [at] : []));
  const points = pointsAmong(numbers, columns);
  return columns.map((_cells, at) => {
    if (at === label) return 'label';
    if (at === points) return 'points';
    return numbers.includes(at) ? 'end' : isWords[at] ? 'descriptor' : undefined;
  });
}

/** Of three columns of numbers one is points, of two only one that never goes above 5 beside one that does. */
function pointsAmong(numbers: readonly number[], columns: readonly (readonly string[])[]): number | undefined {
  const isSmall = (at: number) =>
    columns[at]!.every((cell) => {
      const value = numberOf(cell);
      return value !== undefined && compareDecimals(value, five) <= 0;
    });
  const small = numbers.filter(isSmall);
  if (small.length > 0 && small.length < numbers.length) return small.at(-1);
  return numbers.length > 2 ? numbers.at(-1) : undefined;
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
