import { readExportedPercent } from './read-exported-percent.js';
import { foldKey } from './roster.js';

export interface ColumnProposal {
  /** Position from the left, 0 for the first. */
  readonly column: number;
  /** 0 to 100. */
  readonly confidence: number;
  readonly reason: ColumnReason;
}

export type ColumnReason =
  /** A file with the same columns was read so before, and accepted. */
  | { readonly code: 'earlier'; readonly fileName: string }
  | { readonly code: 'ids-known'; readonly known: number; readonly rows: number }
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
  const known = header.map((_name, column) => rows.filter((row) => isKnown(foldKey(row[column] ?? ''))).length);
  const best = known.indexOf(Math.max(...known));
  const rowCount = rows.length;
  if (best === -1 || known[best]! * 10 < rowCount || known[best] === 0) return undefined;
  const confidence = Math.floor((100 * known[best]!) / rowCount);
  return { column: best, confidence, reason: { code: 'ids-known', known: known[best]!, rows: rowCount } };
}

/** The column of totals: percents in most rows, and a heading that says so. Undefined when no column holds percents. */
export function proposeGradeColumn(
  header: readonly string[],
  rows: readonly (readonly string[])[],
  idColumn: number | undefined,
): ColumnProposal | undefined {
  const proposals = header.flatMap((name, column) => {
    if (column === idColumn || rows.length === 0) return [];
    const percents = rows.filter((row) => readExportedPercent(row[column] ?? '').kind === 'percent').length;
    if (percents * 2 < rows.length) return [];
    const heading = name
      .toLowerCase()
      .replace(/[^\p{L}%]+/gu, ' ')
      .replace('%', ' percent')
      .replace(/\s+/g, ' ')
      .trim();
    const rank = totalWords.findIndex((word) => heading.includes(word));
    const share = Math.floor((60 * percents) / rows.length);
    const confidence = share + (rank === -1 ? 0 : 38 - 3 * rank);
    const reason: ColumnReason =
      rank === -1
        ? { code: 'percents', percents, rows: rows.length }
        : { code: 'name-and-percents', word: totalWords[rank]!, percents, rows: rows.length };
    return [{ column, confidence, reason }];
  });
  return proposals.reduce<ColumnProposal | undefined>(
    (best, each) => (!best || each.confidence >= best.confidence ? each : best),
    undefined,
  );
}
