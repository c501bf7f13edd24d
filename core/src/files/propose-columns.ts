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
  /** Columns of percentages that are proposed for nothing, and why. */
  readonly doubts: readonly ColumnDoubt[];
}

export interface ColumnDoubt {
  readonly column: number;
  /**
   * It is named after another period; it is one of several that may be meant; its values are no grades out of a hundred; it
   * holds what was not given out; nothing says what it is for.
   */
  readonly code: 'otherPeriod' | 'alike' | 'values' | 'withheld' | 'unnamed';
}

export type ColumnReason =
  /** A file with the same columns was read so before, and accepted. */
  | { readonly code: 'earlier'; readonly fileName: string }
  | { readonly code: 'ids-known'; readonly known: number; readonly rows: number }
  | { readonly code: 'sections-known'; readonly known: number; readonly rows: number }
  | { readonly code: 'named-as-item'; readonly percents: number; readonly rows: number }
  | { readonly code: 'name-and-percents'; readonly word: string; readonly percents: number; readonly rows: number }
  | { readonly code: 'percents'; readonly percents: number; readonly rows: number };

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

/** Words in the heading of a column that tells sections apart. */
const sectionWords = /\b(class|classes|section|course|subject|group)\b/i;

/**
 * Whether a column tells several sections apart, by names that we may not know: then the file is for none of ours alone, though
 * all of its students may sit in one, as in an advisory group.
 */
export function tellsSectionsApart(header: readonly string[], rows: readonly (readonly string[])[]): boolean {
  return header.some((name, column) => {
    const names = new Set(rows.map((row) => foldKey(row[column] ?? '')).filter((each) => each !== ''));
    return sectionWords.test(name) && names.size > 1 && names.size * 2 <= rows.length;
  });
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
