import { describe, expect, it } from 'vitest';
import { dayOrThrow } from '#core/calendar';
import { enterPercent } from '#core/posting';
import { markOfBody, type MarkBody, type SheetReply, type SheetRowReply } from '#contract/posting';
import { draftOfMark, entryRulesOf, middleOf, sheetRows, showMark } from './sheet-view';

const blank: MarkBody = { percent: null, label: null, code: null, lastDate: null, comment: '' };
const band = (label: string, lowest: string) => ({
  label,
  lowest,
  points: null,
  passes: true,
  earnsCredit: true,
  descriptor: '',
});
const row = (more: Partial<SheetRowReply> = {}): SheetRowReply => ({
  enrollmentId: 7,
  studentId: 1,
  student: 'Carrow, Hale',
  studentNumber: 'S100',
  withdrawnOn: null,
  computed: null,
  mark: { ...blank, percent: '89.60', label: 'B+' },
  version: 2,
  postedBy: 'Harun Nance',
  postedAt: '2026-01-20T10:00:00Z',
  scaleVersion: 1,
  ...more,
});
const sheet = (...rows: SheetRowReply[]): SheetReply => ({
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
  scaleVersion: 2,
  digits: 1,
  rounding: 'halfUp',
  codes: [],
  rows,
  receipts: [],
  scales: [
    { version: 1, bands: [band('A-', '90'), band('B+', '0')] },
    { version: 2, bands: [band('A-', '89.5'), band('B+', '0')] },
  ],
});
const view = (reply: SheetReply, drafts = {}) => sheetRows(reply, { marks: drafts, undo: [] }, entryRulesOf(reply));

describe('a row of the sheet', () => {
  it('judges a saved mark by the scale version it was posted under, an unsaved one by the version in force', () => {
    expect(view(sheet(row()))[0]!.remarks).toEqual([]);
    const drafted = view(sheet(row()), { 7: { mark: { ...row().mark, comment: 'Steady.' }, version: 2 } });
    expect(drafted[0]!.remarks.map(({ says }) => says)).toEqual(['89.60 % is A- on Letter scale, but B+ is posted.']);
  });

  it('says when somebody else saved the grade after the draft was begun', () => {
    const [contested] = view(sheet(row({ version: 3 })), { 7: { mark: { ...blank, label: 'A-' }, version: 2 } });
    expect([contested!.isContested, contested!.remarks[0]!.says]).toEqual([
      true,
      'Harun Nance saved 89.60 % B+ meanwhile.',
    ]);
  });

  it('shows what the computed percent would be without posting it', () => {
    const computed = {
      percent: '89.46',
      fileName: 'a.csv',
      fileRow: 2,
      column: 'Total',
      acceptedAt: '',
      acceptedBy: '',
    };
    const [shown] = view(sheet(row({ computed, mark: blank, version: 0 })));
    expect([shown!.computedLabel, shown!.mark.percent, shown!.isUnsaved]).toEqual(['A-', null, false]);
  });
});

describe('a draft', () => {
  it('is none when the mark is what is saved, however its percent is written', () => {
    const rules = entryRulesOf(sheet(row()));
    const entered = enterPercent(markOfBody(row().mark), '89.6', rules);
    if (entered.kind !== 'entered') throw new Error('a plain percent was not taken');
    expect(draftOfMark(row(), { ...entered.mark, label: 'B+' })).toBeNull();
    expect(draftOfMark(row(), entered.mark)).toEqual({
      mark: { ...row().mark, percent: '89.6', label: 'A-' },
      version: 2,
    });
  });
});

it('a typed day is read near the middle of the period', () => {
  expect(middleOf(sheet().period)).toBe('2025-12-17');
});

it('says a mark in a few characters', () => {
  expect([showMark(row().mark), showMark({ ...blank, code: 'INC' }), showMark(blank)]).toEqual([
    '89.60 % B+',
    'INC',
    'a blank',
  ]);
});
