import { describe, expect, it } from 'vitest';
import { decimalOrThrow } from '#core/numbers';
import { checkPolicy, type CalculationPolicy } from './index.js';
import { share, usualLevels, usualPolicy } from '../../test/usual-policy.fixture.js';

const known = [1, 2, 3].map((id) => ({ id, name: ['Class work', 'Quizzes', 'Tests'][id - 1]!, isActive: true }));
const faults = (policy: Partial<CalculationPolicy>, categories = known) =>
  checkPolicy({ ...usualPolicy, ...policy }, categories).map(({ severity, code, data }) => [severity, code, data]);

describe('a policy', () => {
  it('that adds up has no faults', () => expect(faults({})).toEqual([]));

  it.each<[string, Partial<CalculationPolicy>, string, string, object]>([
    [
      'weights that do not add to 100 are shown',
      { categories: [share(1, '50'), share(2, '30'), share(3, '19.99')] },
      'warns',
      'weights-not-100',
      { total: '99.99' },
    ],
    [
      'weights of 0 alone weigh nothing',
      { categories: [share(1, '0'), share(2, '0'), share(3, '0')] },
      'blocks',
      'weights-all-zero',
      { categories: '3' },
    ],
    ['a limit of 0 lets nothing through', { cap: decimalOrThrow('0') }, 'blocks', 'cap-not-positive', { cap: '0' }],
    [
      'the newest counts more than nothing',
      { newestShare: decimalOrThrow('0') },
      'blocks',
      'newest-share-out-of-range',
      { share: '0' },
    ],
    ['evidence needs levels', { method: 'mean' }, 'blocks', 'levels-missing', {}],
    [
      'to exceed is no less than to meet',
      { method: 'mean', levels: { ...usualLevels, meets: decimalOrThrow('4'), exceeds: decimalOrThrow('3') } },
      'blocks',
      'levels-out-of-order',
      { meets: '4', exceeds: '3', most: '4' },
    ],
    [
      'at least one score is evidence',
      { method: 'mean', levels: { ...usualLevels, evidence: 0 } },
      'blocks',
      'evidence-not-positive',
      { evidence: '0' },
    ],
  ])('%s', (_what, policy, severity, code, data) => expect(faults(policy)).toEqual([[severity, code, data]]));

  it('speaks of each active category once, and of no other', () => {
    const categories = [share(1, '40'), share(1, '30'), share(7, '30', { dropLowest: -1, cap: decimalOrThrow('-1') })];
    expect(faults({ categories }).map(([, code]) => code)).toEqual([
      'category-twice',
      'category-unknown',
      'drop-negative',
      'cap-not-positive',
      'category-without-weight',
      'category-without-weight',
    ]);
    const retired = known.map((each) => (each.id === 3 ? { ...each, isActive: false } : each));
    expect(faults({}, retired)).toEqual([['warns', 'category-inactive', { category: 'Tests' }]]);
    expect(faults({ categories: [share(1, '-5'), share(2, '85'), share(3, '20')] })).toEqual([
      ['blocks', 'weight-negative', { category: 'Class work', weight: '-5' }],
    ]);
  });
});
