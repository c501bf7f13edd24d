import { describe, expect, it } from 'vitest';
import { extension, type ExchangeRow, type ExchangeRows } from './exchange-format.js';
import { schoolsUsing } from './schools-using.js';

const org = (sourcedId: string, type: string, parentSourcedId = 'd'): ExchangeRow => ({
  sourcedId,
  type,
  parentSourcedId,
});
const orgs = [org('d', 'district', ''), org('a', 'school'), org('b', 'school'), org('b-dep', 'department', 'b')];
const session = (sourcedId: string, parentSourcedId: string, stated = ''): ExchangeRow => ({
  sourcedId,
  parentSourcedId,
  [extension('school')]: stated,
});
const year = [session('y', ''), session('s1', 'y'), session('q1', 's1'), session('q2', 's1'), session('t1', 'y')];
const at = (schoolSourcedId: string, termSourcedIds: string, courseSourcedId = 'k'): ExchangeRow => ({
  sourcedId: `${schoolSourcedId}-${termSourcedIds}`,
  schoolSourcedId,
  termSourcedIds,
  courseSourcedId,
});
const said = (sets: ReadonlyMap<string, ReadonlySet<string>>) =>
  Object.fromEntries([...sets].map(([id, schools]) => [id, [...schools].toSorted().join('')]));
const sessions = (rows: ExchangeRows) => said(schoolsUsing({ orgs, ...rows }).academicSessions);

describe('sessions', () => {
  it('that nobody uses are every school’s', () => {
    expect(sessions({ academicSessions: year })).toEqual({ y: 'ab', s1: 'ab', q1: 'ab', q2: 'ab', t1: 'ab' });
  });

  it('are of who uses them, and of who uses one below or above', () => {
    const classes = [at('a', 'y'), at('b', 'q2')];
    expect(sessions({ academicSessions: year, classes })).toEqual({ y: 'ab', s1: 'ab', q1: 'a', q2: 'ab', t1: 'a' });
  });

  it('are of who has an assignment in them', () => {
    const classes = [at('a', 't1')];
    const lineItems = [{ sourcedId: 'l', classSourcedId: 'a-t1', gradingPeriodSourcedId: 'q1' }];
    expect(sessions({ academicSessions: year, classes, lineItems })).toMatchObject({ s1: 'a', q1: 'a', t1: 'a' });
  });

  it('that are here already come to a school that is new to the year, whole', () => {
    const here = year.map((row) => ({ ...row, [extension('school')]: 'a' }));
    const classes = [at('a', 'y'), at('b', 'y')];
    expect(sessions({ academicSessions: here, classes })).toEqual({ y: 'ab', s1: 'ab', q1: 'ab', q2: 'ab', t1: 'ab' });
  });

  it('of one school stay its own where the other has sessions of its own in the same year', () => {
    const here = [session('y', '', 'a,b'), session('s1', 'y', 'a'), session('q1', 's1', 'a'), session('t1', 'y', 'b')];
    const classes = [at('a', 'y'), at('b', 'y')];
    expect(sessions({ academicSessions: here, classes })).toEqual({ y: 'ab', s1: 'a', q1: 'a', t1: 'b' });
  });

  it('in a ring come to an end', () => {
    const ring = [session('x', 'z'), session('z', 'x')];
    expect(sessions({ academicSessions: ring, classes: [at('a', 'x')] })).toEqual({ x: 'a', z: 'a' });
  });
});

describe('courses and categories', () => {
  it('are of the school that has them, by a department too, and of those whose classes take them', () => {
    const courses = ['d', 'a', 'b-dep', 'd'].map((orgSourcedId, n) => ({ sourcedId: `k${n}`, orgSourcedId }));
    const classes = [at('a', 'y', 'k0'), at('b', 'y', 'k0')];
    expect(said(schoolsUsing({ orgs, courses, classes }).courses)).toEqual({ k0: 'ab', k1: 'a', k2: 'b' });
  });

  it('are of those whose assignments are in them, or every school’s', () => {
    const categories = ['g', 'h', 'i'].map((sourcedId) => ({
      sourcedId,
      [extension('school')]: sourcedId === 'i' ? 'b' : '',
    }));
    const lineItems = [{ sourcedId: 'l', classSourcedId: 'a-y', categorySourcedId: 'g' }];
    const found = schoolsUsing({ orgs, categories, classes: [at('a', 'y')], lineItems }).categories;
    expect(said(found)).toEqual({ g: 'a', h: 'ab', i: 'b' });
  });
});
