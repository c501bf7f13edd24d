import { describe, expect, it } from 'vitest';
import { decimalOrThrow, formatDecimal } from '#core/numbers';
import { compareWeights, type GroupWeight } from './compare-weights.js';

const group = (categoryId: number | null, weight: string | null, isIgnored = false): GroupWeight => ({
  categoryId,
  weight: weight === null ? null : decimalOrThrow(weight),
  isIgnored,
});
const ours = (...weights: [number, string][]) =>
  weights.map(([categoryId, weight]) => ({ categoryId, weight: decimalOrThrow(weight) }));
const usual = ours([1, '60'], [2, '40']);

describe('compareWeights', () => {
  it.each<[string, GroupWeight[], ReturnType<typeof ours>, string]>([
    ['the same weights, however many digits they are written with', [group(1, '60.00'), group(2, '40')], usual, 'same'],
    [
      'two groups that feed one category and together weigh as much',
      [group(1, '25'), group(1, '35'), group(2, '40')],
      usual,
      'same',
    ],
    ['another weight', [group(1, '70'), group(2, '30')], usual, 'differ'],
    ['a category that no group feeds', [group(1, '100')], usual, 'differ'],
    ['a category that we do not weigh', [group(1, '60'), group(2, '30'), group(3, '10')], usual, 'differ'],
    ['a weighed group that nobody joined', [group(1, '60'), group(null, '40')], usual, 'open'],
    ['a weighed group that is ignored', [group(1, '60'), group(2, '40'), group(null, '5', true)], usual, 'same'],
    ['a platform that weighs nothing', [group(1, null), group(2, null)], usual, 'unweighed'],
    ['a policy that weighs nothing', [group(1, '60'), group(2, '40')], [], 'unweighed'],
  ])('of %s', (_case, groups, policy, state) => {
    expect(compareWeights(groups, policy).state).toBe(state);
  });

  it('adds what feeds one category, and all of it', () => {
    const { rows, theirSum } = compareWeights([group(1, '12.5'), group(1, '20'), group(2, '40')], usual);
    expect(rows.map(({ categoryId, theirs, groups }) => [categoryId, theirs && formatDecimal(theirs), groups])).toEqual(
      [
        [1, '32.5', 2],
        [2, '40', 1],
      ],
    );
    expect(formatDecimal(theirSum)).toBe('72.5');
  });
});
