import { describe, expect, it } from 'vitest';
import { enterPercent } from '#core/posting';
import { newCode } from '#core/codes';
import { markInWords, markOfBody, type SheetReply, type SheetRowReply } from '#contract/posting';
import { bodyOfCode } from '#contract/codes';
import { band, blankMark, computedFrom, sheetOf, sheetRow } from '../../test/sheet.fixture';
import { dayOrThrow } from '#core/calendar';
import { draftOfMark, entryRulesOf, middleOf, sheetRows, type SheetRow } from './sheet-view';

const blank = blankMark;
/** A grade of 89.6, posted as B+ under the first version. */
const row = (more: Partial<SheetRowReply> = {}) =>
  sheetRow(7, {
    student: 'Carrow, Hale',
    mark: { ...blank, percent: '89.60', label: 'B+' },
    version: 2,
    postedBy: 'Harun Nance',
    postedAt: '2026-01-20T10:00:00Z',
    ...more,
  });
/** A sheet whose second version, the one in force, lets A- begin half a point lower. */
const sheet = (...rows: SheetRowReply[]) =>
  sheetOf(rows, {
    scaleVersion: 2,
    scales: [
      { version: 1, bands: [band('A-', '90'), band('B+', '0')] },
      { version: 2, bands: [band('A-', '89.5'), band('B+', '0')] },
    ],
  });
const view = (reply: SheetReply, drafts = {}) => sheetRows(reply, drafts, entryRulesOf(reply));

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

  it('shows what the computed percentage would be without posting it', () => {
    const computed = computedFrom('89.46');
    const [shown] = view(sheet(row({ computed, mark: blank, version: 0 })));
    expect([shown!.computedLabel, shown!.mark.percent, shown!.isUnsaved]).toEqual(['A-', null, false]);
  });
});

describe('what the margin says of an item’s own rules', () => {
  const says = (reply: SheetReply) => view(reply)[0]!.remarks.map((remark) => remark.says);

  it.each([
    [{}, ['blocks']],
    [{ 'percent-and-label-disagree': 'informs' }, ['informs']],
    [{ 'percent-and-label-disagree': 'off' }, []],
    [{ 'grade-missing': 'off' }, ['blocks']],
  ] as const)('with %j set in the course it is %j', (ruleEffects, severities) => {
    const wrong = row({ mark: { ...blank, percent: '95', label: 'B+' } });
    expect(view({ ...sheet(wrong), ruleEffects })[0]!.remarks.map(({ severity }) => severity)).toEqual(severities);
  });

  it('a comment is needed below the label that the item names, and only there', () => {
    const asked = (label: string, comment = '') =>
      says({
        ...sheet(row({ mark: { ...blank, label, comment } })),
        commentRule: 'requiredBelow',
        commentBelow: 'A-',
      });
    expect([asked('B+'), asked('A-'), asked('B+', 'Practise daily.')]).toEqual([
      ['Below A- a comment is needed.'],
      [],
      [],
    ]);
  });

  it('somebody who never attended goes with the first day of the period and no hours', () => {
    const never = bodyOfCode(newCode('NVA', 'Never attended', { needsFirstDay: true, needsLastDate: true }));
    const posted = (lastDate: string, hours: string | null) =>
      says({
        ...sheet(row({ mark: { ...blank, code: 'NVA', lastDate, hours } })),
        codes: [never],
        asksHours: true,
      });
    expect(posted('2025-11-10', '0')).toEqual([]);
    expect(posted('2025-11-10', '3')).toEqual(['NVA goes with no hours; 3 are posted.']);
    expect(posted('2025-12-01', '0')).toHaveLength(1);
  });

  it.each([
    [{ kind: 'missing', parts: ['Exam, Quarter 2'] }, 'No value yet: Exam, Quarter 2 is missing.', null],
    [{ kind: 'blocked', code: 'INC', by: 'Exam, Quarter 2' }, 'Exam, Quarter 2 is INC, so this is INC.', 'INC'],
    [{ kind: 'exempt', code: 'EXM' }, 'Every part is EXM.', null],
  ] as const)('a composite of %j says why it has no value', (composite, sentence, proposed) => {
    const [shown] = view(sheet(row({ mark: blank, version: 0, composite })));
    expect(shown!.remarks.map((remark) => remark.says)).toEqual([sentence]);
    expect(shown!.proposal?.code ?? null).toBe(proposed);
  });

  it('a composite with a value proposes its percent rounded once, or by points its label', () => {
    const value = { kind: 'value', points: null, rounded: null, label: null, parts: [], leftOut: [] } as const;
    const [byPercent] = view(sheet(row({ mark: blank, composite: { ...value, percent: '89.445' } })));
    expect([byPercent!.proposal?.percent, byPercent!.proposal?.label]).toEqual([{ units: 894n, digits: 1 }, 'B+']);
    const [byPoints] = view(
      sheet(row({ mark: blank, composite: { ...value, percent: null, points: '3.4', rounded: '3.4', label: 'B+' } })),
    );
    expect([byPoints!.proposal?.percent, byPoints!.computedLabel]).toEqual([null, 'B+']);
  });
});

describe('a draft', () => {
  it('is none when the mark is what is saved, however its percentage is written', () => {
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
  expect([markInWords(row().mark), markInWords({ ...blank, code: 'INC' }), markInWords(blank)]).toEqual([
    '89.60 % B+',
    'INC',
    'a blank',
  ]);
});

describe('a last date that is needed and missing', () => {
  const codes = [
    newCode('WDR', 'Withdrawn', { needsLastDate: true }),
    newCode('NVA', 'Never attended', { needsLastDate: true, needsFirstDay: true }),
  ];
  const attendance = { lastPresent: dayOrThrow('2026-01-14'), lastMissed: null, daysTaken: 12, daysMissed: 3 };
  const of = (mark: Partial<SheetRowReply['mark']>, more: Partial<SheetRowReply> = {}) =>
    view({ ...sheet(row({ mark: { ...blank, ...mark }, attendance, ...more })), codes: codes.map(bodyOfCode) })[0]!;

  it.each<[string, SheetRow, string | null]>([
    ['is proposed as the last day present', of({ code: 'WDR' }), '2026-01-14'],
    ['is the first day of the period for who never came', of({ code: 'NVA' }), '2025-11-10'],
    ['is proposed to nobody who needs none', of({ percent: '91', label: 'A-' }), null],
    ['that is there is not proposed again', of({ code: 'WDR', lastDate: dayOrThrow('2026-01-12') }), null],
    ['is not proposed without attendance', of({ code: 'WDR' }, { attendance: null }), null],
    [
      'is not proposed for who came on no day',
      of({ code: 'WDR' }, { attendance: { ...attendance, lastPresent: null } }),
      null,
    ],
  ])('%s', (_says, { proposedDay, mark }, expected) => {
    expect(proposedDay).toBe(expected);
    // Never put in unasked.
    expect([null, '2026-01-12']).toContain(mark.lastDate);
  });

  it('says which day, and by which key it is taken', () => {
    expect(of({ code: 'WDR' }).remarks.map(({ says }) => says)).toEqual([
      'WDR needs a last date of attendance.',
      expect.stringMatching(/^Last present .*14.*; = takes it\.$/),
    ]);
  });
});
