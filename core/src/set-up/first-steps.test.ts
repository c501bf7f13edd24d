import { expect, it } from 'vitest';
import { firstSteps, type SetUpCounts } from './index.js';

const nothing: SetUpCounts = {
  students: 0,
  staff: 0,
  courses: 0,
  sections: 0,
  enrollments: 0,
  scales: 0,
  items: 0,
  rules: 0,
  grades: 0,
};
const all = Object.fromEntries(Object.keys(nothing).map((key) => [key, 1])) as unknown as SetUpCounts;

it.each<[string, Partial<SetUpCounts>, string]>([
  ['nothing', {}, ''],
  ['students and nobody who teaches', { students: 30 }, ''],
  ['students and staff', { students: 30, staff: 2 }, 'people'],
  ['a scale before everything else', { scales: 1 }, 'scales'],
  ['items that no course reports', { items: 3 }, ''],
  ['items that courses report', { items: 3, rules: 1 }, 'report-items'],
  ['all but a grade', { ...all, grades: 0 }, 'people courses sections enrollments scales report-items'],
])('with %s', (_what, counts, done) => {
  const steps = firstSteps({ ...nothing, ...counts });
  expect(
    steps
      .filter(({ isDone }) => isDone)
      .map(({ place }) => place)
      .join(' '),
  ).toBe(done);
  expect(steps).toHaveLength(7);
});

it('the first posted grade ends them', () => {
  expect(firstSteps(all)).toEqual([]);
});
