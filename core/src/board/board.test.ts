import { describe, expect, it } from 'vitest';
import { dayOrThrow } from '#core/calendar';
import type { SpecialCode } from '#core/codes';
import { decimalOrThrow } from '#core/numbers';
import { noMark, type Mark } from '#core/posting';
import type { ReportItem } from '#core/report-items';
import type { Band } from '#core/scales';
import {
  countSheet,
  isDue,
  isLacking,
  lateBy,
  lateness,
  noCounts,
  sheetStage,
  totalsOf,
  sheetState,
  type AlikeGrades,
} from './index.js';

const band = (label: string, lowest: string, passes: boolean): Band => ({
  label,
  lowest: decimalOrThrow(lowest),
  points: decimalOrThrow(passes ? '2' : '0'),
  passes,
  earnsCredit: passes,
  descriptor: '',
  isOff: false,
});
const bands = [band('A', '90', true), band('C', '60', true), band('F', '0', false)];
const code = (name: string, needsLastDate: boolean) => ({ code: name, needsLastDate }) as SpecialCode;
const rules = {
  item: {
    digits: 1,
    rounding: 'halfUp',
    failingNeedsLastDate: true,
    commentRule: 'requiredBelow',
    commentBelow: 'C',
    commentLength: 100,
  } as ReportItem,
  period: { startsOn: dayOrThrow('2025-11-10'), endsOn: dayOrThrow('2026-01-23') },
  codes: new Map([
    ['WD', code('WD', true)],
    ['EX', code('EX', false)],
  ]),
};
const alike = (students: number, mark: Partial<Mark>, isOverride = false): AlikeGrades => ({
  students,
  mark: { ...noMark, ...mark },
  isOverride,
  bands,
});
const day = dayOrThrow('2026-01-12');

describe('what is counted of a sheet', () => {
  it.each<[string, AlikeGrades, Partial<typeof noCounts>]>([
    ['a blank', alike(3, {}), { blanks: 3 }],
    ['a comment alone is a blank', alike(1, { comment: 'Late' }), { blanks: 1 }],
    ['a grade', alike(20, { percent: decimalOrThrow('91'), label: 'A' }), {}],
    ['a code that needs no date', alike(2, { code: 'EX' }), { codes: 2 }],
    ['a code that needs one', alike(2, { code: 'WD' }), { codes: 2, missingDates: 2 }],
    ['a code with its date', alike(1, { code: 'WD', lastDate: day }), { codes: 1 }],
    ['a failing label without date and comment', alike(4, { label: 'F' }), { missingDates: 4, missingComments: 4 }],
    ['a failing label with both', alike(1, { label: 'F', lastDate: day, comment: 'Absent' }), {}],
    [
      'a date outside of the period will not do',
      alike(1, { label: 'F', lastDate: dayOrThrow('2026-02-02'), comment: 'Absent' }),
      { missingDates: 1 },
    ],
    [
      'nor will a placeholder',
      alike(1, { code: 'WD', lastDate: dayOrThrow('1900-01-01') }),
      { codes: 1, missingDates: 1 },
    ],
    ['an override without a reason', alike(2, { label: 'A' }, true), { overrides: 2, unexplained: 2 }],
    ['one with a reason', alike(1, { label: 'A', overrideReason: 'Late work accepted' }, true), { overrides: 1 }],
    [
      'a reason of spaces is none',
      alike(1, { label: 'A', overrideReason: '  ' }, true),
      { overrides: 1, unexplained: 1 },
    ],
  ])('%s', (_name, group, counts) => {
    expect(countSheet([group], rules)).toEqual({ ...noCounts, expected: group.students, ...counts });
  });

  it('groups add up, and in any order', () => {
    const groups = [alike(3, {}), alike(2, { code: 'WD' }), alike(20, { label: 'A' }), alike(1, { label: 'A' }, true)];
    const sum = {
      expected: 26,
      blanks: 3,
      codes: 2,
      missingDates: 2,
      missingComments: 0,
      overrides: 1,
      unexplained: 1,
    };
    expect(countSheet(groups, rules)).toEqual(sum);
    expect(countSheet(groups.toReversed(), rules)).toEqual(sum);
    expect(countSheet([], rules)).toEqual(noCounts);
  });
});

describe('how far a sheet is', () => {
  it.each([
    ['not started', 25, 25, false],
    ['begun', 25, 24, false],
    ['complete', 25, 0, false],
    ['complete', 0, 0, false],
    ['signed off', 25, 0, true],
    ['signed off', 25, 2, true],
  ] as const)('%s: %i students, %i blank', (stage, expected, blanks, isSignedOff) => {
    expect(sheetStage({ ...noCounts, expected, blanks }, isSignedOff)).toBe(stage);
  });

  const window = { opensAt: '2026-01-19T08:00:00Z', closesAt: '2026-01-23T17:00:00Z' };
  it.each([
    ['2026-01-19T07:59:59Z', false, 0],
    ['2026-01-19T08:00:00Z', true, 0],
    ['2026-01-23T17:00:00Z', true, 0],
    ['2026-01-23T17:00:01Z', true, 1000],
    ['2026-01-25T17:00:00Z', true, 2 * 24 * 3600 * 1000],
  ])('at %s it is due: %s, and late by %i ms', (now, due, late) => {
    expect([isDue(window, now), lateBy(window, now)]).toEqual([due, late]);
    expect([isDue(null, now), lateBy(null, now)]).toEqual([false, 0]);
  });

  it('several together count what is work by now, and no more', () => {
    const sheet = (blanks: number, more: object = {}) => ({
      stage: 'begun' as const,
      isDue: true,
      isOpen: true,
      late: 0,
      counts: { ...noCounts, expected: 20, blanks },
      ...more,
    });
    expect(
      totalsOf([sheet(3, { late: 50 }), sheet(0, { isOpen: false }), sheet(20, { isDue: false, isOpen: false })]),
    ).toEqual({ ...noCounts, expected: 40, blanks: 3, due: 2, signedOff: 1, late: 50 });
    expect(totalsOf([])).toEqual({ ...noCounts, due: 0, signedOff: 0, late: 0 });
  });

  it('codes and explained overrides are nothing that is left to do', () => {
    expect(isLacking({ ...noCounts, expected: 5, codes: 2, overrides: 1 })).toBe(false);
    for (const key of ['blanks', 'missingDates', 'missingComments', 'unexplained'])
      expect(isLacking({ ...noCounts, [key]: 1 })).toBe(true);
  });
});

it.each([
  [0, [0, 'minute']],
  [59 * 60_000, [59, 'minute']],
  [60 * 60_000, [1, 'hour']],
  [47 * 3_600_000, [47, 'hour']],
  [48 * 3_600_000, [2, 'day']],
  [71 * 3_600_000, [2, 'day']],
])('%i ms late is told as %j', (late, expected) => expect(lateness(late)).toEqual(expected));

describe('what a sheet is at a moment', () => {
  const window = { opensAt: '2026-01-19T08:00:00Z', closesAt: '2026-01-23T17:00:00Z' };
  const counts = { ...noCounts, expected: 20, blanks: 3 };
  const facts = { counts, isSignedOff: false, window, isSealed: false };
  const [before, during, after] = ['2026-01-18T10:00:00Z', '2026-01-21T10:00:00Z', '2026-01-23T18:00:00Z'];
  const idle = { stage: 'begun', isDue: false, isOpen: false, late: 0 };
  it.each([
    ['before its window opens', facts, before, idle],
    ['while it is open', facts, during, { ...idle, isDue: true, isOpen: true }],
    ['an hour after it closed', facts, after, { ...idle, isDue: true, isOpen: true, late: 3_600_000 }],
    ['signed off', { ...facts, isSignedOff: true }, after, { ...idle, stage: 'signed off', isDue: true }],
    ['of a sealed period', { ...facts, isSealed: true }, after, idle],
    ['without a window', { ...facts, window: null }, after, idle],
    ['in which nobody is graded', { ...facts, counts: noCounts }, after, { ...idle, stage: 'complete' }],
  ])('%s', (_when, given, now, state) => expect(sheetState(given, now)).toEqual(state));
});
