import { expect, it } from 'vitest';
import { readGradeText } from './read-grade-text.js';

const read = (lines: readonly (readonly string[])[], digits = 1) =>
  readGradeText({
    rows: Buffer.from(lines.map((fields) => `${fields.join('\t')}\n`).join('')),
    weights: [
      [1, 20, 2500, 50, 1],
      [101, 20, 0, 0, 0],
    ],
    saved: [],
    draft: [],
    digits,
    rounding: 'halfUp',
    gpa: { digits: 3, rounding: 'halfUp' },
  });
const none = '\\N';

it('reads grades into columns, each with the weight of its item and section', () => {
  const { columns, studentIds, itemIds, sectionIds } = read([
    ['7001', '1', '20', '89.60', 'B+', none],
    ['7002', '101', '20', none, 'A−', none],
    ['7001', '1', '20', none, none, '91.2500'],
  ]);
  expect([studentIds, [...columns.student], [...itemIds], [...sectionIds]]).toEqual([
    [7001, 7002],
    [0, 1, 0],
    [1, 101, 1],
    [20, 20, 20],
  ]);
  expect([[...columns.percent], columns.labels, [...columns.label]]).toEqual([
    [8960, -1, 9130],
    ['B+', 'A−'],
    [0, 1, -1],
  ]);
  expect([[...columns.credits], [...columns.addition], [...columns.counts]]).toEqual([
    [2500, 0, 2500],
    [50, 0, 50],
    [1, 0, 1],
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
])('a percent of %s at %i digits counts %i hundredths', (text, digits, expected) => {
  expect([...read([['1', '1', '20', none, none, text]], digits).columns.percent]).toEqual([expected]);
});

it('nothing read is nothing', () => expect(read([]).columns.percent).toHaveLength(0));
