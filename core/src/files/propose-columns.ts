import { readExportedPercent } from './read-exported-percent.js';
import { foldKey } from './roster.js';

export interface ColumnProposal {
  /** Position from the left, 0 for the first. */
  readonly column: number;
  /** 0 to 100. */
  readonly confidence: number;
  readonly reason: ColumnReason;
}

/** What is proposed for the columns of a file, and why. */
export interface FileProposals {
  readonly id: ColumnProposal | null;
  readonly sectionColumn: ColumnProposal | null;
  /** The one section that the file seems to be for; in percent how many of its rows, and whose count, speak for it. */
  readonly section: { readonly sectionId: number; readonly confidence: number; readonly known: number } | null;
  readonly grades: readonly { readonly itemId: number; readonly proposal: ColumnProposal }[];
}

export type ColumnReason =
  /** A file with the same columns was read so before, and accepted. */
  | { readonly code: 'earlier'; readonly fileName: string }
  | { readonly code: 'ids-known'; readonly known: number; readonly rows: number }
  | { readonly code: 'sections-known'; readonly known: number; readonly rows: number }
  | { readonly code: 'named-as-item'; readonly percents: number; readonly rows: number }
  | { readonly code: 'name-and-percents'; readonly word: string; readonly percents: number; readonly rows: number }
  | { readonly code: 'percents'; readonly percents: number; readonly rows: number };

/** Words that head a column of totals, best first; of two such columns the rightmost with the better word is meant. */
const totalWords = [
  'final percent',
  'total percent',
  'course total',
  'final',
  'total',
  'overall',
  'result',
  'percent',
  'grade',
  'score',
];

/** The column whose values are most often ids of known people. Undefined when no column knows a tenth of its rows. */
export function proposeIdColumn(
  header: readonly string[],
  rows: readonly (readonly string[])[],
  isKnown: (foldedId: string) => boolean,
): ColumnProposal | undefined {
  const known = mostKnown(header, rows, isKnown);
  if (!known || known.count * 10 < rows.length) return undefined;
  return {
    column: known.column,
    confidence: Math.floor((100 * known.count) / rows.length),
    reason: { code: 'ids-known', known: known.count, rows: rows.length },
  };
}

/** The column that names a known section in at least half of the rows, and does not say the same in all of them. */
export function proposeSectionColumn(
  header: readonly string[],
  rows: readonly (readonly string[])[],
  sections: ReadonlyMap<string, number>,
): ColumnProposal | undefined {
  const known = mostKnown(header, rows, (name) => sections.has(name));
  if (!known || known.count * 2 < rows.length) return undefined;
  const names = new Set(rows.map((row) => foldKey(row[known.column] ?? '')));
  if (names.size < 2) return undefined;
  return {
    column: known.column,
    confidence: Math.floor((100 * known.count) / rows.length),
    reason: { code: 'sections-known', known: known.count, rows: rows.length },
  };
}

/** The column with most of what is known, and how much that is; undefined where no column has any. */
function mostKnown(
  header: readonly string[],
  rows: readonly (readonly string[])[],
  isKnown: (folded: string) => boolean,
): { readonly column: number; readonly count: number } | undefined {
  const counts = header.map((_name, column) => rows.filter((row) => isKnown(foldKey(row[column] ?? ''))).length);
  const count = Math.max(0, ...counts);
  return count === 0 ? undefined : { column: counts.indexOf(count), count };
}

/** A report item that a column may be for. */
export interface ProposedItem {
  readonly id: number;
  readonly name: string;
  readonly heading: string;
}

/**
 * The columns of percents, each for a report item: those headed by an item's name or short heading, and for the first
 * item without one the column that is called a total. Columns that mean something else already are passed by.
 */
export function proposeGradeColumns(
  header: readonly string[],
  rows: readonly (readonly string[])[],
  taken: readonly (number | undefined)[],
  items: readonly ProposedItem[],
): { readonly itemId: number; readonly proposal: ColumnProposal }[] {
  const free = percentColumns(header, rows).filter(({ column }) => !taken.includes(column));
  const named = items.map(({ name, heading }) =>
    best(free.filter((column) => [name, heading].some((each) => isHeadedBy(column.heading, each))).map(namedAsItem)),
  );
  const first = named.findIndex((proposal) => !proposal);
  const used = new Set(named.map((proposal) => proposal?.column));
  return items.flatMap(({ id }, at) => {
    const total = at === first ? best(free.filter(({ column }) => !used.has(column)).map(asTotal)) : undefined;
    const proposal = named[at] ?? total;
    return proposal ? [{ itemId: id, proposal }] : [];
  });
}

interface PercentColumn {
  readonly column: number;
  /** In small letters, nothing but words. */
  readonly heading: string;
  readonly percents: number;
  readonly rows: number;
}

/** Columns with percents in at least half of the rows. */
function percentColumns(header: readonly string[], rows: readonly (readonly string[])[]): PercentColumn[] {
  return header.flatMap((name, column) => {
    const percents = rows.filter((row) => readExportedPercent(row[column] ?? '').kind === 'percent').length;
    return rows.length === 0 || percents * 2 < rows.length
      ? []
      : [{ column, heading: wordsOf(name), percents, rows: rows.length }];
  });
}

function wordsOf(name: string): string {
  return name
    .toLowerCase()
    .replace(/[^\p{L}%\d]+/gu, ' ')
    .replace('%', ' percent')
    .replace(/\s+/g, ' ')
    .trim();
}

function isHeadedBy(heading: string, name: string): boolean {
  const words = wordsOf(name);
  return words !== '' && ` ${heading} `.includes(` ${words} `);
}

function namedAsItem({ column, percents, rows }: PercentColumn): ColumnProposal {
  const confidence = Math.floor((97 * percents) / rows);
  return { column, confidence, reason: { code: 'named-as-item', percents, rows } };
}

function asTotal({ column, heading, percents, rows }: PercentColumn): ColumnProposal {
  const rank = totalWords.findIndex((word) => heading.includes(word));
  const confidence = Math.floor((60 * percents) / rows) + (rank === -1 ? 0 : 38 - 3 * rank);
  const reason: ColumnReason =
    rank === -1
      ? { code: 'percents', percents, rows }
      : { code: 'name-and-percents', word: totalWords[rank]!, percents, rows };
  return { column, confidence, reason };
}

/** The surest; of those that are as sure, the rightmost. */
function best(proposals: readonly ColumnProposal[]): ColumnProposal | undefined {
  return proposals.reduce<ColumnProposal | undefined>(
    (sure, each) => (!sure || each.confidence >= sure.confidence ? each : sure),
    undefined,
  );
}
