import { expect, it } from 'vitest';
import { decimalOrThrow, fromDecimal, roundings, roundTo, unitsAt, type RoundingName } from '#core/numbers';
import { plainGpaPolicy } from '#core/transcripts';
import { bodyOfGpaPolicy } from '#contract/transcripts';
import { readGradeText } from './read-grade-text.js';

const use = { course: 5, before: 31, after: 32, precision: 0 };
const read = (lines: readonly (readonly string[])[], digits = 1, rounding: RoundingName = 'halfUp') =>
  readGradeText({
    rows: Buffer.from(lines.map((fields) => `${fields.join('\t')}\n`).join('')),
    uses: [
      { ...use, item: 1, section: 20, credits: 2500, addition: 50, counts: 1 },
      { ...use, item: 101, section: 20, after: 31, credits: 0, addition: 0, counts: 0 },
    ],
    precisions: [{ digits, rounding }],
    versions: new Map(),
    gpa: bodyOfGpaPolicy(plainGpaPolicy),
    mostCredits: new Map(),
  });
const none = '\\N';

it('reads grades into columns, each with the weight of its item and section', () => {
  const { columns, studentIds, itemIds, sectionIds, changes } = read([
    ['7001', '1', '20', '89.60', 'B+', none, none, '30'],
    ['7002', '101', '20', none, 'A−', none, none, none],
    ['7001', '1', '20', none, none, none, '91.2500', none],
    ['7002', '1', '20', none, none, '0', none, '30'],
  ]);
  expect([studentIds, [...columns.student], [...itemIds], [...sectionIds]]).toEqual([
    [7001, 7002],
    [0, 1, 0, 1],
    [1, 101, 1, 1],
    [20, 20, 20, 20],
  ]);
  // what was posted under an older version, in force now and then, and the precision; the code stands for 0 points
  expect(changes).toEqual([
    { postedUnder: 30, before: 31, after: 32, precision: 0 },
    { postedUnder: 31, before: 31, after: 31, precision: 0 },
    { postedUnder: 31, before: 31, after: 32, precision: 0 },
  ]);
  expect([[...columns.change], [...columns.codePoints]]).toEqual([
    [0, 1, 2, 0],
    [-1, -1, -1, 0],
  ]);
  expect([[...columns.percent], columns.labels, [...columns.label]]).toEqual([
    [8960, -1, 9130, -1],
    ['B+', 'A−'],
    [0, 1, -1, -1],
  ]);
  expect([[...columns.credits], [...columns.addition], [...columns.counts]]).toEqual([
    [2500, 0, 2500, 2500],
    [50, 0, 50, 50],
    [1, 0, 1, 1],
  ]);
});

it.each([
  ['90', 1, 9000],
  ['0', 1, 0],
  ['89.4', 1, 8940],
  ['89.45', 1, 8945],
  ['89.4450', 1, 8940], // once, at one decimal: by way of 89.45 it would become 89.5
  ['89.4450', 2, 8945],
  ['89.4500000000', 1, 8950],
  ['104.25', 0, 10425],
])('a percentage of %s at %i digits counts %i hundredths', (text, digits, expected) => {
  expect([...read([['1', '1', '20', none, none, none, text, none]], digits).columns.percent]).toEqual([expected]);
});

it('nothing read is nothing', () => expect(read([]).columns.percent).toHaveLength(0));

it.each([
  ['89.4499999999', 2, 'halfUp', 8945],
  ['89.9949999999', 2, 'halfUp', 8999],
  ['89.9950000000', 2, 'halfUp', 9000],
  ['89.9950000001', 2, 'halfEven', 9000],
  ['89.9850000000', 2, 'halfEven', 8998],
  ['89.9999999999', 1, 'down', 8990],
  ['0.0499999999', 1, 'halfUp', 0],
] as const)(
  '%s at %i digits, rounded %s, counts %i hundredths, as exact arithmetic says',
  (text, digits, rounding, expected) => {
    const exact = roundTo(fromDecimal(decimalOrThrow(text)), digits, roundings[rounding]);
    expect(Number(unitsAt(exact, 2))).toBe(expected);
    expect([...read([['1', '1', '20', none, none, none, text, none]], digits, rounding).columns.percent]).toEqual([
      expected,
    ]);
  },
);
