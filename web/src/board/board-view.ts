import {
  addCounts,
  isDue,
  isLacking,
  lateBy,
  noCounts,
  sheetStage,
  type SheetCounts,
  type SheetStage,
} from '#core/board';
import type { BoardItemReply, BoardReply, BoardSectionReply, BoardSheetReply } from '#contract/board';

/** A sheet as the board shows it. */
export interface BoardSheet {
  readonly section: BoardSectionReply;
  readonly item: BoardItemReply;
  readonly sheet: BoardSheetReply;
  readonly stage: SheetStage;
  /** Work by now: the window has opened, somebody is graded there, and the period is not sealed. */
  readonly isDue: boolean;
  /** How long the window has been closed without a sign-off, in milliseconds; 0 where it is not late. */
  readonly late: number;
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
export interface BoardRow extends SheetCounts {
  readonly key: string;
  /** The first of them, for whatever the line is called by. */
  readonly section: BoardSectionReply;
  readonly sheets: readonly BoardSheet[];
  /** Those of them that are work by now. */
  readonly due: number;
  readonly signedOff: number;
  readonly late: number;
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
      const stage = sheetStage(sheet, sheet.signedOff !== null);
      const due = sealedAt === null && isDue(item.window, now) && sheet.expected > 0;
      const late = due && stage !== 'signed off' ? lateBy(item.window, now) : 0;
      return [{ section, item, sheet, stage, isDue: due, late }];
    }),
  );
}

const finds: Record<BoardFilter, (sheet: BoardSheet) => boolean> = {
  all: () => true,
  open: ({ isDue, stage }) => isDue && stage !== 'signed off',
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
  const due = sheets.filter((sheet) => sheet.isDue);
  const sums = due.reduce((sum, { sheet }) => addCounts(sum, sheet), noCounts);
  const reminders = sheets.flatMap(({ sheet }) => sheet.reminded ?? []);
  return {
    ...sums,
    key,
    section: sheets[0]!.section,
    sheets,
    due: due.length,
    signedOff: due.filter(({ stage }) => stage === 'signed off').length,
    late: Math.max(0, ...sheets.map(({ late }) => late)),
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

/** "3 days", "2 hours", "12 minutes": how long something has been late, cut to its largest unit. */
export function lateness(late: number): readonly [count: number, unit: 'day' | 'hour' | 'minute'] {
  const minutes = Math.floor(late / 60_000);
  if (minutes < 60) return [minutes, 'minute'];
  if (minutes < 48 * 60) return [Math.floor(minutes / 60), 'hour'];
  return [Math.floor(minutes / (24 * 60)), 'day'];
}
