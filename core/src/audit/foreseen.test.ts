import { expect, it } from 'vitest';
import { decimalOrThrow as percent } from '#core/numbers';
import { noMark } from '#core/posting';
import { grade, snapshot } from '../../test/grade-fact.fixture.js';
import { section } from '../../test/section-fact.fixture.js';
import { auditRules, foreseen, ruleInForce, type GradeFact } from './index.js';

const posted = grade({ computed: percent('86.4'), computedThen: percent('86.4') });
const blank = grade({ enrollmentId: 2, mark: noMark });
const overridden = grade({
  enrollmentId: 3,
  mark: { ...noMark, percent: percent('95'), label: 'A' },
  proposal: { ...noMark, percent: percent('80'), label: 'B-' },
});
const comes = (fact: GradeFact, value: string, label: string): GradeFact => ({
  ...fact,
  computed: percent(value),
  proposal: { ...noMark, percent: percent(value), label },
});
const idsOf = (now: GradeFact, then: GradeFact, inForce = new Map()) =>
  foreseen(snapshot(now), snapshot(then), inForce).map(({ ruleId, enrollmentId }) => [ruleId, enrollmentId]);

it.each<[string, GradeFact, GradeFact, string[]]>([
  [
    'another percentage under a posted grade',
    posted,
    comes(posted, '91', 'A-'),
    ['override-without-reason', 'computed-changed-since-posted'],
  ],
  ['the percentage that is posted', posted, comes(posted, '86.4', 'B'), []],
  ['a percentage for a blank', blank, { ...comes(blank, '91', 'A-'), mark: comes(blank, '91', 'A-').proposal! }, []],
  [
    'one above what the item takes, for a blank',
    blank,
    { ...blank, mark: { ...noMark, percent: percent('104'), label: 'A+' } },
    ['percent-out-of-range'],
  ],
  ['what was so before', overridden, comes(overridden, '81', 'B-'), []],
])('%s', (_what, now, then, rules) => {
  expect(
    idsOf(now, then)
      .map(([ruleId]) => ruleId)
      .toSorted(),
  ).toEqual(rules.toSorted());
});

it('says nothing by a rule that is off, or that leaves the course alone', () => {
  const then = comes(posted, '91', 'A-');
  const rule = auditRules.find(({ id }) => id === 'computed-changed-since-posted')!;
  const off = ruleInForce(rule, { [rule.id]: { effect: 'off' } }, {});
  const alone = ruleInForce(rule, { [rule.id]: { exceptions: { departments: ['Crafts'], courses: [] } } }, {});
  const sections = [section()];
  for (const set of [off, alone])
    expect(
      foreseen({ ...snapshot(posted), sections }, { ...snapshot(then), sections }, new Map([[rule.id, set]])).map(
        ({ ruleId }) => ruleId,
      ),
    ).toEqual(['override-without-reason']);
});

it('a rule that throws says nothing, and the others go on', () => {
  const broken = Object.defineProperty({ ...posted }, 'attendance', {
    get: () => {
      throw new Error('the registers cannot be read');
    },
  });
  const then = Object.defineProperty(comes(posted, '91', 'A-'), 'attendance', { get: () => broken.attendance });
  expect(idsOf(broken, then).map(([ruleId]) => ruleId)).toContain('computed-changed-since-posted');
});
