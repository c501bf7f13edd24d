import { describe, expect, it } from 'vitest';
import type { Course } from '#core/courses';
import { decimalOrThrow } from '#core/numbers';
import { coverage, coverageChange, type Exception, type Rule } from './index.js';

const course = (id: number, more: Partial<Course> = {}): Course => ({
  id,
  schoolId: 1,
  code: `C${id}`,
  title: `Course ${id}`,
  department: 'Sea',
  level: 'regular',
  length: 'year',
  credits: decimalOrThrow('1'),
  kind: 'academic',
  mostCredits: null,
  onTranscript: true,
  countsInGpa: true,
  allowsExempt: true,
  ...more,
});
const rule = (id: number, more: Partial<Rule> = {}): Rule => ({
  id,
  schoolId: 1,
  itemId: 7,
  effect: 'reports',
  department: null,
  level: null,
  kind: null,
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

const exception = (courseId: number, effect: Exception['effect']): Exception => ({
  id: 100 + courseId,
  itemId: 7,
  courseId,
  effect,
  reason: 'agreed with the department',
});
const by = (rules: Rule[], exceptions: Exception[] = []) =>
  coverage(courses, { rules, exceptions }).map(({ covers }) =>
    covers.map((cover) => `${cover.reports ? '' : 'not '}${cover.by.kind} ${cover.by.id}`).join(),
  );

describe('coverage', () => {
  it('a rule without choices covers every course of its school and no other', () => {
    expect(by([rule(1)])).toEqual(['rule 1', 'rule 1', 'rule 1', '']);
  });

  it('every choice of a rule must hold', () => {
    expect(by([rule(1, { department: 'Sea', level: 'honours', length: 'year', kind: 'academic' })])).toEqual([
      '',
      '',
      'rule 1',
      '',
    ]);
    expect(by([rule(1, { kind: 'activity' })])).toEqual(['', '', '', '']);
  });

  it('the last rule that matches wins, whatever order the rules come in', () => {
    expect(by([rule(9, { position: 2, length: 'year' }), rule(5, { position: 1 })])).toEqual([
      'rule 9',
      'rule 5',
      'rule 9',
      '',
    ]);
  });

  it('a later rule may take away what an earlier one gave', () => {
    expect(by([rule(1), rule(2, { level: 'honours', effect: 'omits' })])).toEqual([
      'rule 1',
      'rule 1',
      'not rule 2',
      '',
    ]);
  });

  it('an exception wins over every rule, both ways', () => {
    expect(by([rule(1)], [exception(2, 'omits'), exception(4, 'reports')])).toEqual([
      'rule 1',
      'not exception 102',
      'rule 1',
      'exception 104',
    ]);
  });

  it('rules for different items stand side by side', () => {
    expect(
      coverage([courses[0]!], { rules: [rule(1), rule(2, { itemId: 8 })], exceptions: [] })[0]!.covers,
    ).toHaveLength(2);
  });
});

it('a change names for each item the courses it adds and removes, and leaves out items without change', () => {
  const before = { rules: [rule(1, { length: 'year' }), rule(2, { itemId: 8 })], exceptions: [] };
  const after = {
    rules: [rule(1, { length: 'semester' }), rule(2, { itemId: 8 })],
    exceptions: [exception(3, 'reports')],
  };
  const change = coverageChange(courses, before, after, [7, 8]);
  expect(
    change.map(({ itemId, added, removed }) => [itemId, added.map(({ id }) => id), removed.map(({ id }) => id)]),
  ).toEqual([[7, [2], [1]]]);
});
