import fc from 'fast-check';
import { expect, it } from 'vitest';
import { decimalOrThrow, formatDecimal, roundHalfUp, roundTo } from '#core/numbers';
import { weightedCategories, type Score } from './index.js';

const category = (name: string, weight: string) => ({ name, weight: decimalOrThrow(weight) });
const score = (name: string, points: string | null, possible = '100'): Score => ({
  category: name,
  points: points === null ? null : decimalOrThrow(points),
  possible: decimalOrThrow(possible),
});
const percent = (...input: Parameters<typeof weightedCategories>) => {
  const value = weightedCategories(...input);
  return value && formatDecimal(roundTo(value, 2, roundHalfUp));
};

// Common practice: assignments 50 %, quizzes 30 %, tests 20 %. 84 × 0.5 + 90 × 0.3 + 70 × 0.2 = 83.
const usual = [category('assignments', '50'), category('quizzes', '30'), category('tests', '20')];

it('weighs the categories', () => {
  expect(percent(usual, [score('assignments', '84'), score('quizzes', '90'), score('tests', '70')])).toBe('83.00');
});

it('within a category points count, not percentages', () => {
  expect(
    percent([category('assignments', '1')], [score('assignments', '10', '10'), score('assignments', '45', '90')]),
  ).toBe('55.00');
});

it('a category without scores leaves its weight to the others', () => {
  // (84 × 50 + 90 × 30) ÷ 80
  expect(percent(usual, [score('assignments', '84'), score('quizzes', '90'), score('tests', null)])).toBe('86.25');
});

it('nothing scored is no percent', () => expect(percent(usual, [score('tests', null)])).toBeUndefined());

it('the order of the scores does not matter', () => {
  const scores = fc.array(
    fc.record({ name: fc.constantFrom('assignments', 'quizzes', 'tests'), points: fc.integer({ min: 0, max: 100 }) }),
  );
  fc.assert(
    fc.property(scores, (drawn) => {
      const made = drawn.map(({ name, points }) => score(name, String(points)));
      return percent(usual, made) === percent(usual, made.toReversed());
    }),
    { seed: 5 },
  );
});
