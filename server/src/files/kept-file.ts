import { checkChoice, countOutcomes, isLeftOut, noOutcomes, type FileChoice } from '#core/files';
import type { ChooseColumnsRequest, FilePlanReply, FileRowsQuery } from '#contract/files';
import { readRows, type FieldFault } from '#server/platform';
import type { ReportedItem } from '#server/period-view';
import type { KeptFile } from './file-imports.repository.js';

/** Which columns hold what, as it was chosen last. */
export function choiceOfFile({ idColumn, sectionId, sectionColumn, grades }: KeptFile) {
  return { idColumn, sectionId, sectionColumn, grades };
}

/** What the file would bring; null before it is planned. */
export function planOf({ plan, planNumber }: KeptFile): FilePlanReply | null {
  if (!plan) return null;
  return { ...plan, number: planNumber, counts: { ...noOutcomes(), ...plan.counts } };
}

/** How many rows a filter lets through. */
export function linesOf(plan: FilePlanReply, show: FileRowsQuery['show']): number {
  if (show === undefined) return countOutcomes(plan, () => true);
  return show === 'left-out' ? countOutcomes(plan, isLeftOut) : plan.counts[show];
}

/** What is wrong with a choice of columns and sections. */
export function faultsOf(request: ChooseColumnsRequest, columns: number, items: readonly ReportedItem[]): FieldFault[] {
  const sectionIds = new Set(items.flatMap(({ sections }) => sections.map(({ id }) => id)));
  const isKnown = (id: unknown) => typeof id === 'number' && sectionIds.has(id);
  const detail = 'a section that reports in the period';
  return [
    ...checkChoice(request, columns, new Set(items.map(({ item }) => item.id))),
    ...(request.sectionId === null || isKnown(request.sectionId) ? [] : [{ field: 'sectionId', detail }]),
    ...Object.entries(request.namedSections).flatMap(([name, id]) =>
      isKnown(id) ? [] : [{ field: `namedSections.${name}`, detail }],
    ),
  ];
}

/** Where several sheets can be seen, which is meant is for somebody to say. */
export function asksForSheet({ sheets, isSheetChosen }: Pick<KeptFile, 'sheets' | 'isSheetChosen'>): boolean {
  return !isSheetChosen && sheets.filter(({ isHidden }) => !isHidden).length > 1;
}

export const nothingChosen: FileChoice = { idColumn: null, sectionId: null, sectionColumn: null, grades: [] };

/** Rows that say what a file's columns mean. */
const rowsForMeaning = 1_000;

/** The first rows of a file that is kept. */
export async function firstRowsOf(bytes: AsyncIterable<Buffer>, form: KeptFile['form']): Promise<string[][]> {
  const first: string[][] = [];
  for await (const { rows } of readRows(bytes, form)) {
    for (const row of rows) first.push([...row]);
    if (first.length >= rowsForMeaning) break;
  }
  return first.slice(0, rowsForMeaning);
}
