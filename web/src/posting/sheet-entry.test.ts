import { beforeEach, describe, expect, it } from 'vitest';
import { dayOrThrow } from '#core/calendar';
import { newCode } from '#core/codes';
import { bodyOfCode } from '#contract/codes';
import { blankMark, computedFrom, sheetOf, sheetRow } from '../../test/sheet.fixture';
import { createSheetEntry } from './sheet-entry';
import { markDrafts, marksOf } from './mark-drafts';
import { discardDrafts } from '../shell/kept-drafts';
import { entryRulesOf, sheetRows } from './sheet-view';

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
  const rows = sheetRows(sheet, marksOf('x'), entryRulesOf(sheet));
  return { rows, ...createSheetEntry('x', sheet, rows, entryRulesOf(sheet)) };
};
const drafted = () =>
  Object.fromEntries(
    Object.entries(marksOf('x')).map(([id, { mark }]) => [id, mark.code ?? `${mark.percent ?? ''}${mark.label ?? ''}`]),
  );

beforeEach(() => discardDrafts());

/** Columns of this sheet: percent, label or code, last date, comment. */
const typed = (row: number, column: number, text: string) => entry().edit([[row, column, text]], 'typed');

describe('typing', () => {
  it('is taken, or answered with what would be right', () => {
    expect(typed(1, 0, '92')).toEqual([]);
    expect(drafted()).toEqual({ 2: '92A' });
    expect(typed(1, 0, 'many')).toEqual([
      { enrollmentId: 2, column: 'percent', text: 'many', says: 'A percentage is a number such as 86.4.' },
    ]);
    expect(typed(1, 1, 'Z')[0]!.says).toBe('One of A, B, EXM.');
    expect(typed(1, 2, '1899-12-30')[0]!.says).toContain('only means “no date”');
    expect(typed(1, 2, '2026-02-02')[0]!.says).toBe('A day of the period, from Nov 10, 2025 to Jan 23, 2026.');
    expect(typed(1, 3, 'x'.repeat(101))[0]!.says).toBe('At most 100 characters.');
    expect(drafted()).toEqual({ 2: '92A' });
  });

  it('what is saved already makes no draft', () => {
    typed(3, 1, 'b');
    expect(drafted()).toEqual({});
  });

  it('nothing empties a cell, also of who has left', () => {
    entry().edit([[3, 1, '']], 'emptied');
    expect(drafted()).toEqual({ 4: '' });
  });
});

describe('a block from a spreadsheet', () => {
  it('is one step, passes over who has left and what is empty, and names what it could not read', () => {
    const cells = [['95', '', '16 jan'], ['high'], ['50'], ['70', 'EXM', '', 'Well begun.']];
    const faults = entry().edit(
      cells.flatMap((texts, row) => texts.map((text, column) => [row, column, text] as const)),
      'pasted',
    );
    expect(faults).toEqual([
      { enrollmentId: 2, column: 'percent', text: 'high', says: 'A percentage is a number such as 86.4.' },
    ]);
    expect(drafted()).toEqual({ 1: '95A', 4: 'EXM' });
    expect(marksOf('x')[1]!.mark.lastDate).toBe('2026-01-16');
    markDrafts.undo('x');
    expect(drafted()).toEqual({});
  });
});

describe('filling the blanks', () => {
  it('with what is computed leaves alone what is posted and who has left', () => {
    const { blanks, computedBlanks, takeComputedForBlanks } = entry();
    expect([blanks.length, computedBlanks.length]).toEqual([2, 1]);
    takeComputedForBlanks();
    expect(drafted()).toEqual({ 1: '91.3A' });
  });

  it('with one value takes a percentage, a label or a code, or says why not', () => {
    expect(entry().fillBlanks('nothing')).toBe('One of A, B, EXM.');
    expect(drafted()).toEqual({});
    expect(entry().fillBlanks('ex')).toBeUndefined();
    expect(drafted()).toEqual({ 1: 'EXM', 2: 'EXM' });
  });
});
