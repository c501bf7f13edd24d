import { readTypedDay } from '#core/calendar';
import { decimalOrThrow, formatAtLeast } from '#core/numbers';
import {
  enterLabelOrCode,
  enterPercent,
  isBlank,
  lastDateFault,
  readHours,
  type EntryRules,
  type Mark,
} from '#core/posting';
import type { PostingRequestReply, SheetReply } from '#contract/posting';
import type { CellText } from '../ui/grid/cell-range';
import type { EditKind } from '../ui/grid/use-cell-cursor';
import { dayOrderOf } from '../ui/day/day-order';
import { entryFaultWords } from './entry-words';
import { changeMarks, marksOf, type MarkDraft } from './mark-drafts';
import { columnsOf, type EditableColumn } from './sheet-columns';
import { draftOfMark, middleOf, type SheetRow } from './sheet-view';

/** As long as a reason may be. */
export const longestReason = 200;

type Entry = { readonly mark: Mark } | { readonly fault: string };

/** What was typed into a cell and could not be read. */
export interface EntryFault {
  readonly enrollmentId: number;
  readonly column: EditableColumn;
  readonly text: string;
  readonly says: string;
}

/** What typing, pasting and filling do to the drafts of a sheet. */
export function createSheetEntry(sheetId: string, sheet: SheetReply, rows: readonly SheetRow[], rules: EntryRules) {
  const columns = columnsOf(sheet);
  const known = [...rules.bands.map(({ label }) => label), ...rules.codes.map(({ code }) => code)];
  const { highestLevel } = sheet;
  const taken = {
    known,
    period: sheet.period,
    highestPercent: sheet.highestPercent,
    highestLevel: highestLevel === null ? null : formatAtLeast(decimalOrThrow(highestLevel), 0),
  };

  const read = (mark: Mark, column: EditableColumn, text: string): Entry => {
    if (column === 'comment')
      return text.length > sheet.commentLength
        ? { fault: `At most ${sheet.commentLength} characters.` }
        : { mark: { ...mark, comment: text.trim() } };
    if (column === 'reason')
      return text.length > longestReason
        ? { fault: `At most ${longestReason} characters.` }
        : { mark: { ...mark, overrideReason: text.trim() } };
    if (column === 'hours') {
      const hours = readHours(text);
      return hours === undefined ? { fault: entryFaultWords('hours-unreadable', taken) } : { mark: { ...mark, hours } };
    }
    if (column === 'lastDate') {
      const day = readTypedDay(text, middleOf(sheet.period), dayOrderOf());
      if (day.kind === 'unreadable' || day.kind === 'placeholder')
        return { fault: entryFaultWords(`day-${day.kind}`, taken) };
      const lastDate = day.kind === 'day' ? day.day : null;
      const fault = lastDate && lastDateFault(lastDate, sheet.period);
      return fault ? { fault: entryFaultWords(fault, taken) } : { mark: { ...mark, lastDate } };
    }
    const entered = column === 'percent' ? enterPercent(mark, text, rules) : enterLabelOrCode(mark, text, rules);
    return entered.kind === 'fault' ? { fault: entryFaultWords(entered.code, taken) } : { mark: entered.mark };
  };

  const change = (changes: readonly (readonly [SheetRow, Mark])[]) => {
    const drafts: Record<number, MarkDraft | null> = {};
    for (const [{ reply }, mark] of changes) {
      const draft = draftOfMark(reply, mark);
      const asked = marksOf(sheetId)[reply.enrollmentId]?.asked;
      drafts[reply.enrollmentId] = draft && asked !== undefined ? { ...draft, asked } : draft;
    }
    if (changes.length > 0) changeMarks(sheetId, drafts);
  };

  const blanks = rows.filter(({ reply, mark }) => reply.withdrawnOn === null && isBlank(mark));
  const dateless = rows.filter(({ proposedDay }) => proposedDay !== null);
  const computedBlanks = blanks.filter(({ proposal }) => proposal !== null);
  return {
    blanks,
    computedBlanks,
    /** Those whose last date is missing, and for whom one is proposed. */
    dateless,
    /**
     * Takes texts for cells, row by row and from left to right, in one step; answers with those that could not be read. An empty
     * cell of a pasted block changes nothing, so that a percent keeps the label it fills, and a block passes over who has left.
     */
    edit(texts: readonly CellText[], kind: EditKind): EntryFault[] {
      const faults: EntryFault[] = [];
      const marks = new Map<SheetRow, Mark>();
      for (const [at, of, text] of texts) {
        const [row, column] = [rows[at]!, columns[of]!];
        if (kind === 'pasted' && (row.reply.withdrawnOn !== null || text.trim() === '')) continue;
        const entry = read(marks.get(row) ?? row.mark, column, text);
        if ('mark' in entry) marks.set(row, entry.mark);
        else faults.push({ enrollmentId: row.reply.enrollmentId, column, text, says: entry.fault });
      }
      change([...marks]);
      return faults;
    },
    /** Which cells texts are for. */
    cellsOf: (texts: readonly CellText[]) =>
      texts.map(([at, of]) => ({ enrollmentId: rows[at]!.reply.enrollmentId, column: columns[of]! })),
    /** The comment of a row, and whether it is for the school alone. */
    comment: (row: SheetRow, comment: string, isInternal: boolean) =>
      change([[row, { ...row.mark, comment, isInternal: isInternal && comment.trim() !== '' }]]),
    /** Lays what somebody asks to have posted over the sheet, on the versions that they typed it over. */
    putRequest({ id, changes }: Pick<PostingRequestReply, 'id' | 'changes'>): void {
      const drafts: Record<number, MarkDraft | null> = {};
      for (const { enrollmentId, version, ...mark } of changes)
        if (rows.some(({ reply }) => reply.enrollmentId === enrollmentId))
          drafts[enrollmentId] = { mark, version, asked: id };
      changeMarks(sheetId, drafts);
    },
    takeComputed: (chosen: readonly SheetRow[]) =>
      change(
        chosen.flatMap((row) => (row.proposal && row.reply.withdrawnOn === null ? [[row, row.proposal] as const] : [])),
      ),
    /** Puts the proposed last dates of some rows in. */
    takeDays: (chosen: readonly SheetRow[]) =>
      change(
        chosen.flatMap((row) => (row.proposedDay ? [[row, { ...row.mark, lastDate: row.proposedDay }] as const] : [])),
      ),
    takeComputedForBlanks: () => change(computedBlanks.map((row) => [row, row.proposal!])),
    /** Fills every blank with one percentage, label or code; answers with what is wrong, or undefined. */
    fillBlanks(text: string): string | undefined {
      const column = /^[\d.,]/.test(text.trim()) ? 'percent' : 'mark';
      const entries = blanks.map((row) => [row, read(row.mark, column, text)] as const);
      const fault = entries.map(([, entry]) => entry).find((entry) => 'fault' in entry);
      if (fault && 'fault' in fault) return fault.fault;
      change(entries.flatMap(([row, entry]) => ('mark' in entry ? [[row, entry.mark] as const] : [])));
      return undefined;
    },
  };
}

export type SheetEntry = ReturnType<typeof createSheetEntry>;
