import { beforeEach, describe, expect, it, vi } from 'vitest';
import { dayOrThrow } from '#core/calendar';
import type { MarkBody, SheetReply, SheetRowReply } from '#contract/posting';

vi.stubGlobal('window', {
  localStorage: { getItem: () => null, setItem: () => undefined, removeItem: () => undefined },
});
const { createSheetEntry } = await import('./sheet-entry');
const { draftsOf, useMarkDrafts } = await import('./mark-drafts');
const { entryRulesOf, sheetRows } = await import('./sheet-view');

const blank: MarkBody = { percent: null, label: null, code: null, lastDate: null, comment: '' };
const band = (label: string, lowest: string) => ({
  label,
  lowest,
  points: null,
  passes: true,
  earnsCredit: true,
  descriptor: '',
});
const computed = (percent: string) => ({
  percent,
  fileName: 'a.csv',
  fileRow: 2,
  column: 'Total',
  acceptedAt: '',
  acceptedBy: '',
});
const row = (enrollmentId: number, more: Partial<SheetRowReply> = {}): SheetRowReply => ({
  enrollmentId,
  studentId: enrollmentId,
  student: `Student ${enrollmentId}`,
  studentNumber: `S${enrollmentId}`,
  withdrawnOn: null,
  computed: null,
  mark: blank,
  version: 0,
  postedBy: null,
  postedAt: null,
  scaleVersion: 1,
  ...more,
});
const sheet: SheetReply = {
  sectionId: 1,
  section: 'Shore Life 1',
  course: 'Shore Life',
  teacher: 'Nance, Harun',
  itemId: 1,
  itemName: 'Quarter grade',
  failingNeedsLastDate: false,
  period: { id: 4, name: 'Quarter 2', startsOn: dayOrThrow('2025-11-10'), endsOn: dayOrThrow('2026-01-23') },
  window: null,
  sealedAt: null,
  scaleName: 'Letter scale',
  scaleVersion: 1,
  digits: 1,
  rounding: 'halfUp',
  receipts: [],
  codes: [
    {
      code: 'EXM',
      meaning: 'Exempt',
      forbidsPercent: true,
      needsLastDate: false,
      triesCredit: false,
      onTranscript: false,
    },
  ],
  scales: [{ version: 1, bands: [band('A', '90'), band('B', '0')] }],
  rows: [
    row(1, { computed: computed('91.27') }),
    row(2),
    row(3, { withdrawnOn: dayOrThrow('2025-12-01'), computed: computed('80') }),
    row(4, { mark: { ...blank, label: 'B' }, version: 1 }),
  ],
};

const entry = () => {
  const rows = sheetRows(sheet, draftsOf(useMarkDrafts.getState(), 'x'), entryRulesOf(sheet));
  return { rows, ...createSheetEntry('x', sheet, rows, entryRulesOf(sheet)) };
};
const drafted = () =>
  Object.fromEntries(
    Object.entries(draftsOf(useMarkDrafts.getState(), 'x').marks).map(([id, { mark }]) => [
      id,
      mark.code ?? `${mark.percent ?? ''}${mark.label ?? ''}`,
    ]),
  );

beforeEach(() => useMarkDrafts.setState({ sheets: {} }));

describe('typing', () => {
  it('is taken, or answered with what would be right', () => {
    const { rows, enter } = entry();
    expect(enter(rows[1]!, 'percent', '92')).toBeUndefined();
    expect(drafted()).toEqual({ 2: '92A' });
    expect(enter(rows[1]!, 'percent', 'many')).toBe('A percent is a number such as 86.4.');
    expect(enter(rows[1]!, 'mark', 'Z')).toBe('One of A, B, EXM.');
    expect(enter(rows[1]!, 'lastDate', '1899-12-30')).toContain('stands for “no date”');
    expect(enter(rows[1]!, 'comment', 'x'.repeat(101))).toBe('At most 100 characters.');
    expect(drafted()).toEqual({ 2: '92A' });
  });

  it('what is saved already makes no draft', () => {
    const { rows, enter } = entry();
    enter(rows[3]!, 'mark', 'b');
    expect(drafted()).toEqual({});
  });
});

describe('a block from a spreadsheet', () => {
  it('fills down and to the right, passes over who has left, and names what it could not take', () => {
    const { rows, paste } = entry();
    const faults = paste(rows[0]!, 'percent', [
      ['95', '', '16 jan'],
      ['high'],
      ['50'],
      ['70', 'EXM', '', 'Well begun.'],
      ['1'],
    ]);
    expect(faults).toEqual(['Student 2: “high”. A percent is a number such as 86.4.']);
    expect(drafted()).toEqual({ 1: '95A', 4: 'EXM' });
    expect(draftsOf(useMarkDrafts.getState(), 'x').marks[1]!.mark.lastDate).toBe('2026-01-16');
  });
});

describe('filling the blanks', () => {
  it('with what is computed leaves alone what is posted and who has left', () => {
    const { blanks, computedBlanks, takeComputedForBlanks } = entry();
    expect([blanks.length, computedBlanks.length]).toEqual([2, 1]);
    takeComputedForBlanks();
    expect(drafted()).toEqual({ 1: '91.3A' });
  });

  it('with one value takes a percent, a label or a code, or says why not', () => {
    expect(entry().fillBlanks('nothing')).toBe('One of A, B, EXM.');
    expect(drafted()).toEqual({});
    expect(entry().fillBlanks('ex')).toBeUndefined();
    expect(drafted()).toEqual({ 1: 'EXM', 2: 'EXM' });
  });
});
