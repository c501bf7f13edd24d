import { describe, expect, it } from 'vitest';
import type { Course } from '#core/courses';
import { decimalOrThrow } from '#core/numbers';
import { coverage, coverageChange, type Rule } from './index.js';

const course = (id: number, more: Partial<Course> = {}): Course => ({
  id,
  schoolId: 1,
  code: `C${id}`,
  title: `Course ${id}`,
  department: 'Sea',
  level: 'regular',
  length: 'year',
  credits: decimalOrThrow('1'),
  onTranscript: true,
  countsInGpa: true,
  ...more,
});
const rule = (id: number, more: Partial<Rule> = {}): Rule => ({
  id,
  schoolId: 1,
  itemId: 7,
  periodKind: 'quarter',
  department: null,
  level: null,
  length: null,
  position: id,
  ...more,
});

const courses = [
  course(1),
  course(2, { length: 'semester' }),
  course(3, { level: 'honours' }),
  course(4, { schoolId: 2 }),
];

describe('coverage', () => {
  it('a rule without choices covers every course of its school and no other', () => {
    expect(coverage(courses, [rule(1)]).map(({ covers }) => covers.map((cover) => cover.ruleId))).toEqual([
      [1],
      [1],
      [1],
      [],
    ]);
  });

  it('every choice of a rule must hold', () => {
    const narrow = rule(1, { department: 'Sea', level: 'honours', length: 'year' });
    expect(
      coverage(courses, [narrow])
        .filter(({ covers }) => covers.length)
        .map(({ course: { id } }) => id),
    ).toEqual([3]);
  });

  it('the last rule that matches wins, whatever order the rules come in', () => {
    const rules = [rule(9, { position: 2, length: 'year' }), rule(5, { position: 1 })];
    expect(coverage(courses, rules).map(({ covers }) => covers[0]?.ruleId)).toEqual([9, 5, 9, undefined]);
  });

  it('rules for different items stand side by side', () => {
    expect(coverage([courses[0]!], [rule(1), rule(2, { itemId: 8 })])[0]!.covers).toHaveLength(2);
  });
});

it('a change of rules names the courses it adds and removes', () => {
  const change = coverageChange(courses, [rule(1, { length: 'year' })], [rule(1, { length: 'semester' })], 7);
  expect([change.added.map(({ id }) => id), change.removed.map(({ id }) => id)]).toEqual([[2], [1, 3]]);
});
