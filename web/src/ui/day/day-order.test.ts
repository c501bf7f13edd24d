import { expect, it } from 'vitest';
import { dayInFigures, dayInWords, dayOrderOf } from './day-order';

it.each([
  ['en-US', 'monthFirst', '1/16/2026'],
  ['en-GB', 'dayFirst', '16/01/2026'],
  ['de-DE', 'dayFirst', '16.1.2026'],
  ['sv-SE', 'monthFirst', '2026-01-16'],
  ['ja-JP', 'monthFirst', '2026/1/16'],
])('%s writes %s', (locale, order, figures) => {
  expect([dayOrderOf(locale), dayInFigures('2026-01-16', locale)]).toEqual([order, figures]);
});

it('a day in words names its weekday', () => {
  expect(dayInWords('2026-01-16', 'en-US')).toBe('Friday, January 16, 2026');
});
