import { describe, expect, it } from 'vitest';
import { isAsGrades } from './is-as-grades.js';
import { periodForms } from './period-forms.js';
import { proposeGradeColumns } from './propose-grade-columns.js';

const items = [
  { id: 1, name: 'Quarter grade', heading: 'Quarter', highestLevel: null },
  { id: 2, name: 'Exam', heading: 'Exam', highestLevel: null },
];
const [quarter, exam] = [1, 2];
const periods = { own: 'Quarter 2', others: ['Quarter 1', 'Quarter 3', 'Semester 1', 'Year 2025–26'] };
const grades = ['91', '84.5', '77', '68', '55', '93'];

/** What is proposed for columns beside a column of numbers; each holds grades unless it says what. */
function proposed(headings: readonly string[], values: Readonly<Record<string, readonly string[]>> = {}) {
  const rows = grades.map((grade, row) => [`S10${row}`, ...headings.map((name) => values[name]?.[row] ?? grade)]);
  const { grades: found } = proposeGradeColumns(['Number', ...headings], rows, [0], items, periods);
  return Object.fromEntries(found.map(({ itemId, proposal }) => [itemId, headings[proposal.column - 1]]));
}

/** Why columns are proposed for nothing, by their headings. */
function doubted(headings: readonly string[], values: Readonly<Record<string, readonly string[]>> = {}) {
  const rows = grades.map((grade, row) => [`S10${row}`, ...headings.map((name) => values[name]?.[row] ?? grade)]);
  const { doubts } = proposeGradeColumns(['Number', ...headings], rows, [0], items, periods);
  return Object.fromEntries(doubts.map(({ column, code }) => [headings[column - 1], code]));
}

describe('a column is proposed', () => {
  it.each([
    ['headed by the item', ['Tests total', 'Quarter grade'], { [quarter]: 'Quarter grade' }],
    ['headed by its short heading', ['EXAM (%)', 'Example mark'], { [exam]: 'EXAM (%)' }],
    ['headed by the item alone, beside one that says more', ['Exam', 'Exam, unscaled'], { [exam]: 'Exam' }],
    ['of this very period', ['Q2 Quarter grade', 'Q1 Quarter grade'], { [quarter]: 'Q2 Quarter grade' }],
    ['called a total', ['Field work 1', 'Final score (%)'], { [quarter]: 'Final score (%)' }],
    ['with the better word of two', ['Tests total', 'Final score (%)'], { [quarter]: 'Final score (%)' }],
    [
      'called a total, with the exam beside it',
      ['Total', 'EXAM (%)', 'Example mark'],
      { [quarter]: 'Total', [exam]: 'EXAM (%)' },
    ],
    ['that is the only one', ['Percentage'], { [quarter]: 'Percentage' }],
  ])('%s', (_what, headings, columns) => expect(proposed(headings)).toEqual(columns));
});

describe('nothing is proposed, so that somebody is asked', () => {
  it.each([
    [
      'for a spare column, though an item lacks one',
      ['Homework (%)', 'Tests (%)', 'Quarter grade (%)'],
      { [quarter]: 'Quarter grade (%)' },
    ],
    ['for attendance', ['Quarter grade', 'Attendance %'], { [quarter]: 'Quarter grade' }],
    ['of another period', ['Quarter 1 grade'], {}],
    ['of another period, in short', ['Q1', 'Q3 total', 'Sem 1 final'], {}],
    ['between two that are called alike', ['%', '%'], {}],
    ['between two totals', ['Homework total', 'Tests total'], {}],
    ['for what was not given out', ['Unposted Final Score', 'Current Score'], {}],
    ['between two headed by the item', ['Exam part A', 'Exam part B'], {}],
  ])('%s', (_what, headings, columns) => expect(proposed(headings)).toEqual(columns));

  it.each([
    ['fractions of one', ['0.91', '0.845', '0.77', '0.68', '0.55', '0.93']],
    ['averages of grade points', ['3.9', '3.5', '2.8', '4', '1.7', '3.1']],
    ['points out of fifty', ['45', '41', '38', '30', '22', '50']],
    ['counts written with a comma', ['1,824', '1,522', '1,204', '1,900', '1,333', '1,001']],
  ])('for a column headed by the item that holds %s', (_what, values) => {
    expect(proposed(['Quarter grade'], { 'Quarter grade': values })).toEqual({});
    expect(proposed(['Total'], { Total: values })).toEqual({});
  });
});

it('says of each column that is left why', () => {
  expect(doubted(['Quarter grade', 'Attendance %'])).toEqual({ 'Attendance %': 'unnamed' });
  expect(doubted(['Quarter 1 grade', 'Unposted Final Score'])).toEqual({
    'Quarter 1 grade': 'otherPeriod',
    'Unposted Final Score': 'withheld',
  });
  expect(doubted(['Exam part A', 'Exam part B'])).toEqual({ 'Exam part A': 'alike', 'Exam part B': 'alike' });
  expect(doubted(['Homework total', 'Tests total'])).toEqual({ 'Homework total': 'alike', 'Tests total': 'alike' });
  expect(doubted(['Exam'], { Exam: ['0.91', '0.845', '0.77', '0.68', '0.55', '0.93'] })).toEqual({ Exam: 'values' });
});

it('levels go as high as their scale', () => {
  const levels = [1, 2.5, 3, 4, 3.5];
  expect([isAsGrades(levels, 4), isAsGrades([...levels, 5], 4), isAsGrades(levels, null)]).toEqual([
    true,
    false,
    false,
  ]);
});

it('few values say nothing of how high they go, but fractions show', () => {
  expect([isAsGrades([40, 35], null), isAsGrades([0.4, 0.9], null), isAsGrades([0, 1], null)]).toEqual([
    true,
    false,
    true,
  ]);
});

it('a period is written in many ways', () => {
  expect(periodForms('Quarter 2')).toEqual(['quarter 2', 'quarter2', 'qtr 2', 'qtr2', 'q 2', 'q2']);
  expect(periodForms('Year 2025–26')).toEqual(['year 2025–26']);
});
