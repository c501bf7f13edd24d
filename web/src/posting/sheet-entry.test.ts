import { beforeEach, describe, expect, it, vi } from 'vitest';
import { dayOrThrow } from '#core/calendar';
import { newCode } from '#core/codes';
import { bodyOfCode } from '#contract/codes';
import { blankMark, computedFrom, sheetOf, sheetRow } from './sheet.fixture';

vi.stubGlobal('window', {
  localStorage: { getItem: () => null, setItem: () => undefined, removeItem: () => undefined },
});
const { createSheetEntry } = await import('./sheet-entry');
const { draftsOf, useMarkDrafts } = await import('./mark-drafts');
const { entryRulesOf, sheetRows } = await import('./sheet-view');

const exempt = bodyOfCode(newCode('EXM', 'Exempt', { onTranscript: false }));
const sheet = sheetOf(
  [
    sheetRow(1, { computed: computedFrom('91.27') }),
    sheetRow(2),
    sheetRow(3, { withdrawnOn: dayOrThrow('2025-12-01'), computed: computedFrom('80') }),
    sheetRow(4, { mark: { ...blankMark, label: 'B' }, version: 1 }),
  ],
  { codes: [exempt] },
);

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
    expect(faults).toEqual([
      'Student 2: “high”. A percent is a number such as 86.4.',
      '1 pasted row below the last student was skipped.',
    ]);
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
