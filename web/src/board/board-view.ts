import { isLacking, sheetState, totalsOf, type SheetState, type SheetTotals } from '#core/board';
import type { BoardItemReply, BoardReply, BoardSectionReply, BoardSheetReply } from '#contract/board';

/** A sheet as the board shows it. */
export interface BoardSheet extends SheetState {
  readonly section: BoardSectionReply;
  readonly item: BoardItemReply;
  readonly sheet: BoardSheetReply;
}

/** What is looked for on the board. */
export const boardFilters = [
  'all',
  'open',
  'late',
  'blanks',
  'dates',
  'comments',
  'overrides',
  'codes',
  'requests',
] as const;
export type BoardFilter = (typeof boardFilters)[number];

export const groupings = ['section', 'teacher', 'department'] as const;
export type Grouping = (typeof groupings)[number];

/** Some sheets in one line: those of a section, of a teacher or of a department. */
export interface BoardRow extends SheetTotals {
  readonly key: string;
  /** The first of them, for whatever the line is called by. */
  readonly section: BoardSectionReply;
  readonly sheets: readonly BoardSheet[];
  readonly requests: number;
  /** The last reminder of any of them. */
  readonly reminded: BoardSheetReply['reminded'];
}

/** All sheets of a board, of one item where one is chosen. */
export function sheetsOf({ items, sections, sealedAt }: BoardReply, now: string, itemId: number | null): BoardSheet[] {
  const itemOf = new Map(items.map((item) => [item.itemId, item]));
  return sections.flatMap((section) =>
    section.sheets.flatMap((sheet): BoardSheet[] => {
      const item = itemOf.get(sheet.itemId);
      if (!item || (itemId !== null && sheet.itemId !== itemId)) return [];
      const facts = { counts: sheet, isSignedOff: sheet.signedOff !== null, window: item.window };
      return [{ section, item, sheet, ...sheetState({ ...facts, isSealed: sealedAt !== null }, now) }];
    }),
  );
}

const finds: Record<BoardFilter, (sheet: BoardSheet) => boolean> = {
  all: () => true,
  open: ({ isOpen }) => isOpen,
  late: ({ late }) => late > 0,
  blanks: ({ sheet }) => sheet.blanks > 0,
  dates: ({ sheet }) => sheet.missingDates > 0,
  comments: ({ sheet }) => sheet.missingComments > 0,
  overrides: ({ sheet }) => sheet.overrides > 0,
  codes: ({ sheet }) => sheet.codes > 0,
  requests: ({ sheet }) => sheet.requests > 0,
};

/** The sheets that a filter finds. Whatever lacks on a sheet that is not due yet is no work, and is not found. */
export function found(sheets: readonly BoardSheet[], filter: BoardFilter): BoardSheet[] {
  return sheets.filter(
    (sheet) => finds[filter](sheet) && (filter === 'all' || sheet.isDue || sheet.sheet.requests > 0),
  );
}

const keyOf: Record<Grouping, (section: BoardSectionReply) => string> = {
  section: ({ sectionId }) => String(sectionId),
  teacher: ({ teacherId }) => String(teacherId),
  department: ({ department }) => department,
};

/** Lines of the board, what is late first, then what is open, by how much is left to do. */
export function rowsOf(sheets: readonly BoardSheet[], grouping: Grouping): BoardRow[] {
  const groups = new Map<string, BoardSheet[]>();
  for (const sheet of sheets) {
    const key = keyOf[grouping](sheet.section);
    const own = groups.get(key);
    if (own) own.push(sheet);
    else groups.set(key, [sheet]);
  }
  return [...groups].map(([key, own]) => rowOf(key, own)).toSorted((a, b) => urgency(b) - urgency(a));
}

function rowOf(key: string, sheets: readonly BoardSheet[]): BoardRow {
  const reminders = sheets.flatMap(({ sheet }) => sheet.reminded ?? []);
  return {
    ...totalsOf(sheets.map(({ sheet, ...state }) => ({ ...state, counts: sheet }))),
    key,
    section: sheets[0]!.section,
    sheets,
    requests: sheets.reduce((sum, { sheet }) => sum + sheet.requests, 0),
    reminded: reminders.toSorted((a, b) => (a.at < b.at ? 1 : -1))[0] ?? null,
  };
}

function urgency({ late, due, signedOff, requests, ...counts }: BoardRow): number {
  const isOpen = signedOff < due;
  return (
    (late > 0 ? 1e9 : 0) +
    (requests > 0 ? 1e8 : 0) +
    (isOpen ? 1e6 : 0) +
    (isOpen && isLacking(counts) ? 1e5 : 0) +
    counts.blanks
  );
}
