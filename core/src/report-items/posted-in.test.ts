import { expect, it } from 'vitest';
import { dayOrThrow, type Period, type PeriodKind } from '#core/calendar';
import { isPostedIn, nearestPostedIn } from './index.js';

const period = (id: number, parentId: number | null, kind: PeriodKind, from: string, to: string): Period => ({
  id,
  parentId,
  kind,
  name: `${kind} ${id}`,
  startsOn: dayOrThrow(from),
  endsOn: dayOrThrow(to),
});
const periods = [
  period(1, null, 'year', '2025-09-01', '2026-06-12'),
  period(2, 1, 'semester', '2025-09-01', '2026-01-23'),
  period(3, 2, 'quarter', '2025-09-01', '2025-11-07'),
  period(4, 2, 'quarter', '2025-11-10', '2026-01-23'),
  period(5, 1, 'semester', '2026-01-26', '2026-06-12'),
  period(6, 5, 'quarter', '2026-01-26', '2026-04-03'),
  period(7, 5, 'quarter', '2026-04-06', '2026-06-12'),
];
const [year, first, quarter1, quarter2, second, quarter3] = periods as [Period, Period, Period, Period, Period, Period];
const item = (periodKind: PeriodKind, ordinals: readonly number[] | null = null) => ({ periodKind, ordinals });

it.each([
  ['the chosen one', item('quarter'), quarter2, quarter2],
  ['the one that it lies in', item('semester'), quarter2, first],
  ['the later one inside it', item('quarter', [1, 3]), year, quarter3],
  ['the one just before', item('quarter', [1, 4]), quarter2, quarter1],
  ['the next, where none came before', item('semester', [2]), quarter1, second],
])('an item is looked at in a period that it is posted in: %s', (_case, each, chosen, expected) => {
  expect(nearestPostedIn(each, periods, chosen)?.id).toBe(expected.id);
  expect(isPostedIn(each, periods, expected)).toBe(true);
});

it('an item that no period has is posted nowhere', () => {
  expect(nearestPostedIn(item('trimester'), periods, year)).toBeUndefined();
  expect(nearestPostedIn(item('quarter', [5]), periods, year)).toBeUndefined();
});
