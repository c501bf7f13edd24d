import { describe, expect, it } from 'vitest';
import { dayOrThrow, type Period, type PeriodKind } from '#core/calendar';
import type { Course } from '#core/courses';
import { decimalOrThrow } from '#core/numbers';
import { checkItem, checkItems, coverage, isPostedIn, partPeriod, type ReportItem } from './index.js';

const period = (
  id: number,
  parentId: number | null,
  kind: PeriodKind,
  name: string,
  from: string,
  to: string,
): Period => ({
  id,
  parentId,
  kind,
  name,
  startsOn: dayOrThrow(from),
  endsOn: dayOrThrow(to),
});
const periods = [
  period(1, null, 'year', '2025–26', '2025-09-01', '2026-06-12'),
  period(2, 1, 'semester', 'Semester 1', '2025-09-01', '2026-01-23'),
  period(3, 2, 'quarter', 'Quarter 1', '2025-09-01', '2025-11-07'),
  period(4, 2, 'quarter', 'Quarter 2', '2025-11-10', '2026-01-23'),
  period(5, 1, 'semester', 'Semester 2', '2026-01-26', '2026-06-12'),
  period(6, 5, 'quarter', 'Quarter 3', '2026-01-26', '2026-04-02'),
  period(7, 5, 'quarter', 'Quarter 4', '2026-04-13', '2026-06-12'),
];
const item = (id: number, name: string, more: Partial<ReportItem> = {}): ReportItem => ({
  id,
  categoryId: null,
  schoolId: 1,
  name,
  heading: name,
  kind: 'period',
  periodKind: 'quarter',
  ordinals: null,
  scaleId: null,
  highestPercent: decimalOrThrow('100'),
  source: 'gradeBook',
  countBy: 'percent',
  parts: [],
  digits: 1,
  rounding: 'halfUp',
  commentRule: 'none',
  commentBelow: null,
  commentLength: 100,
  familyView: 'label',
  familyTime: 'closed',
  failingNeedsLastDate: false,
  asksHours: false,
  onTranscript: false,
  countsInGpa: false,
  position: id,
  ...more,
});
const part = (itemId: number, ordinal: number, weight: string) => ({ itemId, ordinal, weight: decimalOrThrow(weight) });
const quarter = item(1, 'Quarter grade', { onTranscript: true });
const exam = item(2, 'Exam', { kind: 'exam', source: 'hand', ordinals: [2, 4] });
const semester = item(3, 'Semester grade', {
  periodKind: 'semester',
  source: 'composite',
  parts: [part(1, 1, '40'), part(1, 2, '40'), part(2, 2, '20')],
});
const course: Course = {
  id: 9,
  schoolId: 1,
  code: 'PEU101',
  title: 'Tidal Ecology',
  department: 'Sea',
  kind: 'academic',
  level: 'regular',
  length: 'year',
  credits: decimalOrThrow('1'),
  mostCredits: null,
  onTranscript: true,
  countsInGpa: true,
  allowsExempt: true,
};

describe('where items are posted', () => {
  it('an exam of quarters 2 and 4 is posted in those alone', () => {
    expect(periods.filter((each) => isPostedIn(exam, periods, each)).map(({ name }) => name)).toEqual([
      'Quarter 2',
      'Quarter 4',
    ]);
  });

  it('a part is found in the nth period inside the composite’s own', () => {
    const second = periods[4]!;
    expect(
      semester.parts.map((each, at) => partPeriod([quarter, quarter, exam][at]!, each, periods, second)?.name),
    ).toEqual(['Quarter 3', 'Quarter 4', 'Quarter 4']);
    expect(partPeriod(exam, part(2, 1, '20'), periods, second)).toBeUndefined();
  });
});

describe('the faults that keep a composite from being saved', () => {
  const withParts = (...parts: ReportItem['parts']) => ({ ...semester, parts });
  it.each<[string, ReportItem, string[]]>([
    ['40 / 40 / 20', semester, []],
    [
      'thirds written as 33.33, 33.33 and 33.34',
      withParts(part(1, 1, '33.33'), part(1, 2, '33.33'), part(2, 2, '33.34')),
      [],
    ],
    ['99.99', withParts(part(1, 1, '40'), part(1, 2, '40'), part(2, 2, '19.99')), ['weights-not-100']],
    ['a weight of 0', withParts(part(1, 1, '50'), part(1, 2, '50'), part(2, 2, '0')), ['weight-not-positive']],
    ['a negative weight', withParts(part(1, 1, '60'), part(1, 2, '60'), part(2, 2, '-20')), ['weight-not-positive']],
    ['no parts', withParts(), ['composite-without-parts']],
    ['an item that is not there', withParts(part(8, 1, '100')), ['part-unknown']],
    ['itself', withParts(part(3, 1, '100')), ['composite-cycle']],
  ])('%s', (_what, changed, expected) => {
    expect(checkItem([quarter, exam, changed], changed).map(({ code }) => code)).toEqual(expected);
  });

  it('names the way round a cycle through another composite', () => {
    const year = item(4, 'Year grade', { periodKind: 'year', source: 'composite', parts: [part(3, 1, '100')] });
    const looped = { ...semester, parts: [part(4, 1, '100')] };
    expect(checkItem([quarter, exam, looped, year], looped)[0]?.data['through']).toBe(
      'Semester grade → Year grade → Semester grade',
    );
  });
});

describe('the faults of courses', () => {
  const rules = (...itemIds: number[]) =>
    itemIds.map((itemId) => ({
      id: itemId,
      schoolId: 1,
      itemId,
      effect: 'reports' as const,
      department: null,
      level: null,
      kind: null,
      length: null,
      position: itemId,
    }));
  const found = (items: ReportItem[], own: Course, itemIds: number[], hasScale = true) =>
    checkItems({
      items,
      periods,
      hasScale: () => hasScale,
      coverage: coverage([own], { rules: rules(...itemIds), exceptions: [] }),
    }).map(({ code }) => code);
  const all = [quarter, exam, semester];
  it.each<[string, string[], string[]]>([
    ['nothing where everything is there', found(all, course, [1, 2, 3]), []],
    ['no transcript item', found(all, course, [2]), ['course-without-transcript-item']],
    ['nothing where the course is not on transcripts', found(all, { ...course, onTranscript: false }, [2]), []],
    [
      'two transcript items for the same credit',
      found([quarter, exam, { ...semester, onTranscript: true }], course, [1, 2, 3]),
      ['transcript-items-overlap'],
    ],
    ['a composite whose part the course lacks', found(all, course, [1, 3]), ['part-not-reported']],
    ['an item without scale', found([quarter], course, [1], false), ['item-without-scale']],
    [
      'a course without credits',
      found([quarter], { ...course, credits: decimalOrThrow('0') }, [1]),
      ['course-without-credits'],
    ],
    [
      'an item for periods that no year has',
      found([item(5, 'Step', { periodKind: 'trimester' })], { ...course, onTranscript: false }, []),
      ['item-nowhere'],
    ],
    [
      'a part whose period is not there',
      found([quarter, { ...semester, parts: [part(1, 3, '100')] }], course, [1, 3]),
      ['part-period-missing', 'part-period-missing'],
    ],
  ])('%s', (_what, codes, expected) => expect(codes).toEqual(expected));
});
