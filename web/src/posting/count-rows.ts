import { countSheet, type SheetCounts } from '#core/board';
import type { EntryRules } from '#core/posting';
import type { SheetReply } from '#contract/posting';
import { bandsOf, judgedItemOf, type SheetRow } from './sheet-view';

/** What a sheet has and lacks as it is shown, unsaved entries included: counted as the board counts what is saved. */
export function countRows(sheet: SheetReply, rows: readonly SheetRow[], rules: EntryRules): SheetCounts {
  const graded = rows.filter(({ reply }) => reply.withdrawnOn === null);
  const groups = graded.map(({ reply, mark, isOverride, isUnsaved }) => ({
    students: 1,
    mark,
    isOverride,
    bands: isUnsaved ? rules.bands : bandsOf(sheet, reply.scaleVersion),
  }));
  const codes = new Map(rules.codes.map((code) => [code.code, code]));
  return countSheet(groups, { item: judgedItemOf(sheet), period: sheet.period, codes });
}
