import type { ExchangeFile, ExchangeRow, ExchangeRows } from './exchange-format.js';

/** By the id that a roster has of a record: the id of the record that it was merged into. */
export type MergedIds = ReadonlyMap<string, string>;

const references: Readonly<Partial<Record<ExchangeFile, string>>> = {
  enrollments: 'userSourcedId',
  results: 'studentSourcedId',
};

/**
 * The rows of a zip as they are meant here: what names a record that was merged into another names that one.
 * @example asMerged({ enrollments: [{ userSourcedId: 'b' }] }, new Map([['b', 'a']])).enrollments // [{ userSourcedId: 'a' }]
 */
export function asMerged(files: ExchangeRows, merged: MergedIds): ExchangeRows {
  if (merged.size === 0) return files;
  const changed = (Object.entries(references) as [ExchangeFile, string][]).flatMap(([file, field]) => {
    const rows = files[file]?.map((row): ExchangeRow => {
      const kept = merged.get(row[field] ?? '');
      return kept === undefined ? row : { ...row, ...withIdOf(row, row[field]!, kept), [field]: kept };
    });
    return rows ? [[file, rows] as const] : [];
  });
  return { ...files, ...Object.fromEntries(changed) };
}

/** An id that Wombat made up, of the line item and the student, names the one kept too. */
function withIdOf({ sourcedId, lineItemSourcedId }: ExchangeRow, gone: string, kept: string): ExchangeRow {
  return sourcedId === `${lineItemSourcedId}/${gone}` ? { sourcedId: `${lineItemSourcedId}/${kept}` } : {};
}

/** Whether a row is the record itself that was merged: what it says of the person is the kept one's to say. */
export function isOfMerged(file: ExchangeFile, row: ExchangeRow, merged: MergedIds): boolean {
  if (file === 'roles') return merged.has(row['userSourcedId'] ?? '');
  return (file === 'users' || file === 'demographics') && merged.has(row['sourcedId'] ?? '');
}
