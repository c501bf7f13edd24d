import { expect, it } from 'vitest';
import { createTimeAxis, monthsOf } from './time-axis';

it('places days by their share of the year, both ends of a stretch included', () => {
  const axis = createTimeAxis('2026-01-01', '2026-01-10');
  expect([axis.at('2026-01-01'), axis.at('2026-01-06'), axis.at('2026-01-11')]).toEqual([0, 0.5, 1]);
  expect(axis.span({ startsOn: '2026-01-01', endsOn: '2026-01-10' })).toEqual({ left: '0.000%', width: '100.000%' });
  expect(axis.span({ startsOn: '2026-01-06', endsOn: '2026-01-06' })).toEqual({ left: '50.000%', width: '10.000%' });
});

it('names every month that the year touches, the first one at the first day', () => {
  expect(monthsOf('2025-11-10', '2026-02-03').map(({ startsOn }) => startsOn)).toEqual([
    '2025-11-10',
    '2025-12-01',
    '2026-01-01',
    '2026-02-01',
  ]);
});
