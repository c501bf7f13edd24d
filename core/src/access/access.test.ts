import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { accessMatrix, actions, may, mayAt, normalGrants, roles, schoolsWhere, ofSchool, type Grant } from './index.js';

const of = (...grants: Grant[]) => ({ personId: 7, grants });
const here = { schoolId: 1, teacherIds: [9] };
const mine = { schoolId: 1, teacherIds: [9, 7] };

describe('the matrix', () => {
  // Who does what in a registrar's office: the table of the product's needs, worked out by hand.
  it.each([
    ['registrar', ['seal', 'manage-access', 'post-grades', 'change-set-up', 'audit', 'read-log'], ['score']],
    ['grading-administrator', ['change-set-up', 'map', 'audit', 'exchange'], ['seal', 'manage-access', 'post-grades']],
    ['approver', ['read-grades', 'read-set-up', 'read-transcripts'], ['change-set-up', 'post-grades', 'map', 'audit']],
    ['viewer', ['read-grades', 'read-people', 'read-findings'], ['change-people', 'post-grades', 'seal', 'read-log']],
    ['teacher', ['use-own-account', 'see-school'], ['read-people', 'read-set-up', 'read-transcripts', 'read-findings']],
  ] as const)('a %s may %s and may not %s', (role, can, cannot) => {
    const holder = of({ role, schoolId: null });
    for (const action of can) expect([action, mayAt(holder, action, here)]).toEqual([action, true]);
    for (const action of cannot) expect([action, mayAt(holder, action, here)]).toEqual([action, false]);
  });

  it('says of each action in one sentence what it is, and somebody may do it', () => {
    for (const action of actions) {
      const { means, allows } = accessMatrix[action];
      expect(means).toMatch(/^[A-Z].*[^.]$/);
      expect(Object.keys(allows)).not.toEqual([]);
    }
  });
});

describe('where a role reaches', () => {
  it.each([
    ['a teacher, a section of theirs', of({ role: 'teacher', schoolId: 1 }), 'score', mine, true],
    ['a teacher, another’s section', of({ role: 'teacher', schoolId: 1 }), 'score', here, false],
    ['a teacher of another school', of({ role: 'teacher', schoolId: 2 }), 'score', mine, false],
    ['a teacher anywhere', of({ role: 'teacher', schoolId: null }), 'score', mine, true],
    ['a registrar of the school', of({ role: 'registrar', schoolId: 1 }), 'seal', here, true],
    ['a registrar of another', of({ role: 'registrar', schoolId: 2 }), 'seal', here, false],
    ['what all share, for one school', of({ role: 'registrar', schoolId: 1 }), 'change-set-up', ofSchool(null), false],
    ['what all share, for all', of({ role: 'registrar', schoolId: null }), 'change-set-up', ofSchool(null), true],
    ['two roles', of({ role: 'viewer', schoolId: 1 }, { role: 'teacher', schoolId: 1 }), 'score', mine, true],
    ['nothing granted', of(), 'use-own-account', ofSchool(null), false],
  ] as const)('%s', (_what, holder, action, at, expected) => {
    expect(mayAt(holder, action, at)).toBe(expected);
  });

  it('does not make one school’s registrar one of the district’s actions, even of their own school', () => {
    const holder = of({ role: 'registrar', schoolId: 1 });
    for (const action of actions.filter((each) => accessMatrix[each].concerns === 'district'))
      expect([action, may(holder, action), mayAt(holder, action, here)]).toEqual([action, false, false]);
  });
});

const anyGrant = fc.record({ role: fc.constantFrom(...roles), schoolId: fc.constantFrom(null, 1, 2, 3) });
const anyHolder = fc.record({ personId: fc.integer({ min: 1, max: 4 }), grants: fc.array(anyGrant, { maxLength: 4 }) });
const anyPlace = fc.record({
  schoolId: fc.constantFrom(null, 1, 2, 3),
  teacherIds: fc.array(fc.integer({ min: 1, max: 4 }), { maxLength: 2 }),
});

describe('always', () => {
  it('what somebody may do there, they may do somewhere; and another grant takes nothing away', () => {
    fc.assert(
      fc.property(anyHolder, anyGrant, fc.constantFrom(...actions), anyPlace, (holder, more, action, place) => {
        fc.pre(mayAt(holder, action, place));
        expect(may(holder, action)).toBe(true);
        expect(mayAt({ ...holder, grants: [...holder.grants, more] }, action, place)).toBe(true);
      }),
    );
  });

  it('a role reads what it may change', () => {
    const pairs = [
      ['change-set-up', 'read-set-up'],
      ['change-people', 'read-people'],
      ['map', 'read-map'],
      ['post-grades', 'read-grades'],
      ['score', 'read-grades'],
      ['change-categories', 'read-grades'],
      ['audit', 'read-findings'],
      ['seal', 'read-transcripts'],
    ] as const;
    fc.assert(
      fc.property(anyHolder, fc.constantFrom(...pairs), anyPlace, (holder, [change, read], place) => {
        fc.pre(mayAt(holder, change, place));
        expect(mayAt(holder, read, place)).toBe(true);
      }),
    );
  });

  it('grants put in order mean the same, and are in order already', () => {
    fc.assert(
      fc.property(anyHolder, fc.constantFrom(...actions), anyPlace, (holder, action, place) => {
        const normal = normalGrants(holder.grants);
        expect(mayAt({ ...holder, grants: normal }, action, place)).toBe(mayAt(holder, action, place));
        expect(normalGrants(normal.toReversed())).toEqual(normal);
      }),
    );
  });

  it('the schools of a list are those where single things are within reach', () => {
    fc.assert(
      fc.property(anyHolder, fc.constantFrom(...actions), fc.constantFrom(1, 2, 3), (holder, action, schoolId) => {
        const held = schoolsWhere(holder.grants, action, 'held');
        expect(held === 'all' || held.has(schoolId)).toBe(mayAt(holder, action, ofSchool(schoolId)));
      }),
    );
  });
});
