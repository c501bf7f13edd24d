import { noCounts, type SheetCounts } from '#core/board';
import type { BoardItemReply, BoardReply, BoardSectionReply, BoardSheetReply } from '#contract/board';

/** A window of the last week of January, and the Wednesday in it. */
export const now = '2026-01-21T10:42:00.000Z';
export const boardItem = (itemId: number, name: string, more: Partial<BoardItemReply> = {}): BoardItemReply => ({
  itemId,
  name,
  heading: name,
  window: {
    opensAt: '2026-01-19T08:00:00.000Z',
    closesAt: '2026-01-23T17:00:00.000Z',
    graceUntil: null,
    latePosters: 'registrars',
    state: 'open',
  },
  ...more,
});

export const boardSheet = (
  itemId: number,
  counts: Partial<SheetCounts> = {},
  more: Partial<BoardSheetReply> = {},
): BoardSheetReply => ({
  itemId,
  ...noCounts,
  expected: 20,
  ...counts,
  signedOff: null,
  reminded: null,
  requests: 0,
  ...more,
});

export const signedOff = { by: 'Harun Nance', onBehalfOf: null, at: '2026-01-20T12:00:00.000Z', note: '' };

export const boardSection = (
  sectionId: number,
  section: string,
  sheets: readonly BoardSheetReply[],
  more: Partial<BoardSectionReply> = {},
): BoardSectionReply => ({
  sectionId,
  section,
  courseCode: `C${sectionId}`,
  department: 'Sea and Shore',
  teacherId: 7,
  teacher: 'Nance, Harun',
  sheets,
  ...more,
});

/** Two items, four sections: one with blanks, one signed off, one complete, one of another teacher that is not started. */
export const board = (more: Partial<BoardReply> = {}): BoardReply => ({
  now,
  sealedAt: null,
  items: [boardItem(1, 'Quarter grade'), boardItem(2, 'Exam')],
  sections: [
    boardSection(1, 'Knots 1', [boardSheet(1, {}, { signedOff })]),
    boardSection(2, 'Knots 2', [boardSheet(1), boardSheet(2, {}, { signedOff })]),
    boardSection(3, 'Shore Life 1', [boardSheet(1, { blanks: 3, missingDates: 1, codes: 2 })]),
    boardSection(4, 'Letters 1', [boardSheet(1, { blanks: 20 })], {
      teacherId: 8,
      teacher: 'Orr, Coral',
      department: 'Letters',
    }),
  ],
  ...more,
});
