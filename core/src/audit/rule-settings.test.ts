import { describe, expect, it } from 'vitest';
import { decimalOrThrow } from '#core/numbers';
import { dayOrThrow } from '#core/calendar';
import { periodOf, section } from '../../test/section-fact.fixture.js';
import {
  auditRules,
  inForceFor,
  isSameInForce,
  noExceptions,
  ruleInForce,
  runRules,
  type RuleInForce,
  type RuleSettings,
} from './index.js';

const rule = { id: 'zero-posted', version: 1, severity: 'informs' } as const;
const measured = { ...rule, threshold: { says: 'Most, in percent', usual: 30, least: 1, most: 99 } };

describe('a rule is', () => {
  it.each<[string, RuleSettings, RuleSettings, string]>([
    ['as it comes', {}, {}, 'informs'],
    ['as the district says', {}, { 'zero-posted': { effect: 'warns' } }, 'warns'],
    [
      'as the school says against the district',
      { 'zero-posted': { effect: 'off' } },
      { 'zero-posted': { effect: 'warns' } },
      'off',
    ],
    [
      'as it comes, whatever is said of others',
      { 'grade-missing': { effect: 'off' } },
      { 'grade-missing': { effect: 'warns' } },
      'informs',
    ],
    [
      'as the district says, where the school says something else of it',
      { 'zero-posted': { threshold: 5 } },
      { 'zero-posted': { effect: 'warns' } },
      'warns',
    ],
  ])('%s', (_what, school, district, effect) => expect(ruleInForce(rule, school, district).severity).toBe(effect));

  it.each<[string, RuleSettings, RuleSettings, number]>([
    ['as it comes', {}, {}, 30],
    ['as the district says', {}, { 'zero-posted': { threshold: 40 } }, 40],
    ['as the school says', { 'zero-posted': { threshold: 20 } }, { 'zero-posted': { threshold: 40 } }, 20],
  ])('measured %s', (_what, school, district, threshold) =>
    expect(ruleInForce(measured, school, district).threshold).toBe(threshold),
  );

  it('without a threshold, whatever somebody says', () =>
    expect(ruleInForce(rule, { 'zero-posted': { threshold: 4 } }, {}).threshold).toBeNull());

  it('kept from what either says, each once and in order', () =>
    expect(
      ruleInForce(
        rule,
        { 'zero-posted': { exceptions: { departments: ['Science', 'Arts'], courses: [10, 9] } } },
        { 'zero-posted': { exceptions: { departments: ['Arts'], courses: [2, 9] } } },
      ).exceptions,
    ).toEqual({ departments: ['Arts', 'Science'], courses: [2, 9, 10] }));
});

describe('a rule in force for some courses', () => {
  const leaving = (departments: string[], courses: number[]) =>
    ruleInForce(rule, { 'zero-posted': { exceptions: { departments, courses } } }, {});
  const own = [{ id: 5, department: 'Crafts' }];

  it.each<[string, RuleInForce, RuleInForce, boolean]>([
    ['is the same where other courses are left alone', leaving([], []), leaving(['Arts'], [6]), true],
    ['is another where their department is left alone', leaving([], []), leaving(['Crafts'], []), false],
    ['is another where they are left alone no longer', leaving([], [5]), leaving([], [6]), false],
    ['is another where it is as severe as it was not', leaving([], []), { ...leaving([], []), severity: 'off' }, false],
  ])('%s', (_what, one, other, isSame) =>
    expect(isSameInForce(inForceFor(one, own), inForceFor(other, own))).toBe(isSame),
  );
});

describe('what a rule leaves alone', () => {
  const course = (id: number, department: string) => ({ ...section().course, id, department });
  const unscaled = { ...section().sheets[0]!, scale: null };
  const period = periodOf([
    section({ sheets: [unscaled], course: course(5, 'Crafts') }),
    section({ id: 32, sheets: [unscaled], course: course(6, 'Crafts'), students: [] }),
    section({ id: 33, sheets: [unscaled], course: course(7, 'Sea'), students: [] }),
  ]);
  const scaleless = auditRules.find(({ id }) => id === 'section-without-scale')!;
  const found = (exceptions: Partial<typeof noExceptions>) => {
    const set = { ...ruleInForce(scaleless, {}, {}), exceptions: { ...noExceptions, ...exceptions } };
    return runRules([scaleless], period, new Map([[scaleless.id, set]])).map(({ sectionId }) => sectionId);
  };
  it.each([
    [{}, [31, 32, 33]],
    [{ courses: [6] }, [31, 33]],
    [{ departments: ['Crafts'] }, [33]],
    [{ departments: ['Crafts'], courses: [7] }, []],
    [{ departments: ['crafts'], courses: [99] }, [31, 32, 33]],
  ])('%j is not found, and nothing else is lost', (exceptions, sections) =>
    expect(found(exceptions)).toEqual(sections),
  );

  it('goes for what is about a student or a grade in the course, too', () => {
    const twice = auditRules.find(({ id }) => id === 'left-before-coming')!;
    const odd = {
      ...section().students[0]!,
      enteredOn: dayOrThrow('2026-01-10'),
      withdrawnOn: dayOrThrow('2026-01-05'),
    };
    const one = periodOf([section({ students: [odd] })], []);
    const all = { ...ruleInForce(twice, {}, {}), exceptions: { departments: ['Crafts'], courses: [] } };
    expect(runRules([twice], one)).toHaveLength(1);
    expect(runRules([twice], one, new Map([[twice.id, all]]))).toEqual([]);
  });
});

describe('a threshold', () => {
  it.each(auditRules.filter(({ threshold }) => threshold).map((each) => [each.id, each.threshold!] as const))(
    'of %s is usual within its own limits',
    (_id, { usual, least, most, says }) => {
      expect(least <= usual && usual <= most).toBe(true);
      expect(says).toMatch(/^[A-Z]/);
    },
  );

  it('is where the rule begins', () => {
    const alike = auditRules.find(({ id }) => id === 'assignment-over-half')!;
    const [one, two] = [section().assignments[0]!, section().assignments[0]!];
    const assignments = [
      { ...one, name: 'Big', possible: decimalOrThrow('6') },
      { ...two, name: 'Small', possible: decimalOrThrow('4') },
    ];
    const period = periodOf([section({ assignments, policy: null })], []);
    const at = (threshold: number) =>
      runRules([alike], period, new Map([[alike.id, { ...ruleInForce(alike, {}, {}), threshold }]])).length;
    expect([at(59), at(60), at(61)]).toEqual([1, 0, 0]);
  });
});
