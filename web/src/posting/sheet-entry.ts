import { readTypedDay } from '#core/calendar';
import { decimalOrThrow, formatAtLeast } from '#core/numbers';
import { enterLabelOrCode, enterPercent, isBlank, readHours, type EntryRules, type Mark } from '#core/posting';
import type { SheetReply } from '#contract/posting';
import { plural } from '../ui/format';
import { entryFaultWords } from './entry-words';
import { changeMarks, type MarkDraft } from './mark-drafts';
import { columnsOf, type EditableColumn } from './sheet-grid';
import { draftOfMark, middleOf, type SheetRow } from './sheet-view';

type Entry = { readonly mark: Mark } | { readonly fault: string };

/** What typing, pasting and filling do to the drafts of a sheet. */
export function createSheetEntry(sheetId: string, sheet: SheetReply, rows: readonly SheetRow[], rules: EntryRules) {
  const columns = columnsOf(sheet);
  const known = [...rules.bands.map(({ label }) => label), ...rules.codes.map(({ code }) => code)];
  const { highestLevel } = sheet;
  const taken = { known, highestLevel: highestLevel === null ? null : formatAtLeast(decimalOrThrow(highestLevel), 0) };

  const read = (mark: Mark, column: EditableColumn, text: string): Entry => {
    if (column === 'comment')
      return text.length > sheet.commentLength
        ? { fault: `At most ${sheet.commentLength} characters.` }
        : { mark: { ...mark, comment: text.trim() } };
    if (column === 'hours') {
      const hours = readHours(text);
      return hours === undefined ? { fault: entryFaultWords('hours-unreadable', taken) } : { mark: { ...mark, hours } };
    }
    if (column === 'lastDate') {
      const day = readTypedDay(text, middleOf(sheet.period));
      if (day.kind === 'unreadable' || day.kind === 'placeholder')
        return { fault: entryFaultWords(`day-${day.kind}`, taken) };
      return { mark: { ...mark, lastDate: day.kind === 'day' ? day.day : null } };
    }
    const entered = column === 'percent' ? enterPercent(mark, text, rules) : enterLabelOrCode(mark, text, rules);
    return entered.kind === 'fault' ? { fault: entryFaultWords(entered.code, taken) } : { mark: entered.mark };
  };

  const change = (changes: readonly (readonly [SheetRow, Mark])[]) => {
    const drafts: Record<number, MarkDraft | null> = {};
    for (const [{ reply }, mark] of changes) drafts[reply.enrollmentId] = draftOfMark(reply, mark);
    if (changes.length > 0) changeMarks(sheetId, drafts);
  };

  const blanks = rows.filter(({ reply, mark }) => reply.withdrawnOn === null && isBlank(mark));
  const computedBlanks = blanks.filter(({ proposal }) => proposal !== null);
  return {
    blanks,
    computedBlanks,
    /** Answers with what is wrong, or undefined when the text was taken. */
    enter(row: SheetRow, column: EditableColumn, text: string): string | undefined {
      const entry = read(row.mark, column, text);
      if ('fault' in entry) return entry.fault;
      change([[row, entry.mark]]);
      return undefined;
    },
    /** Takes a block from a spreadsheet; answers with the cells that could not be taken. */
    paste(row: SheetRow, column: EditableColumn, block: readonly (readonly string[])[]): string[] {
      const faults: string[] = [];
      const from = rows.indexOf(row);
      const changes = block.flatMap((cells, down): (readonly [SheetRow, Mark])[] => {
        const target = rows[from + down];
        if (!target || target.reply.withdrawnOn !== null) return [];
        const mark = cells.reduce((current, text, right) => {
          const into = columns[columns.indexOf(column) + right];
          // An empty cell of the block changes nothing, so that a percent keeps the label it fills.
          const entry = into && text.trim() !== '' ? read(current, into, text) : { mark: current };
          if ('fault' in entry) faults.push(`${target.reply.student}: “${text}”. ${entry.fault}`);
          return 'fault' in entry ? current : entry.mark;
        }, target.mark);
        return [[target, mark]];
      });
      change(changes);
      const beyond = from + block.length - rows.length;
      if (beyond > 0)
        faults.push(`${plural(beyond, 'pasted row')} below the last student ${beyond === 1 ? 'was' : 'were'} skipped.`);
      return faults;
    },
    takeComputed: (row: SheetRow) => row.proposal && change([[row, row.proposal]]),
    takeComputedForBlanks: () => change(computedBlanks.map((row) => [row, row.proposal!])),
    /** Fills every blank with one percent, label or code; answers with what is wrong, or undefined. */
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
