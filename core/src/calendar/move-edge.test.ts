import { describe, expect, it } from 'vitest';
import { dayOrThrow, moveEdge, type Period } from './index.js';

const period = (id: number, parentId: number | null, startsOn: string, endsOn: string): Period => ({
  id,
  parentId,
  kind: parentId === null ? 'year' : parentId === 1 ? 'semester' : 'quarter',
  name: `Period ${id}`,
  startsOn: dayOrThrow(startsOn),
  endsOn: dayOrThrow(endsOn),
});
const calendar = {
  weekdays: [1, 2, 3, 4, 5],
  breaks: [{ id: 1, name: 'Winter break', startsOn: dayOrThrow('2025-12-22'), endsOn: dayOrThrow('2026-01-02') }],
  periods: [
    period(1, null, '2025-09-01', '2026-06-12'),
    period(2, 1, '2025-09-01', '2025-12-19'),
    period(3, 2, '2025-09-01', '2025-10-31'),
    period(4, 2, '2025-11-03', '2025-12-19'),
    period(5, 1, '2026-01-05', '2026-06-12'),
  ],
};
const moved = (id: number, edge: 'startsOn' | 'endsOn', to: string) =>
  moveEdge(calendar, id, edge, dayOrThrow(to)).flatMap((after, at) => {
    const before = calendar.periods[at]!;
    return after === before || (after.startsOn === before.startsOn && after.endsOn === before.endsOn)
      ? []
      : [`${after.id}: ${after.startsOn} to ${after.endsOn}`];
  });

describe('moving an edge of a period', () => {
  it.each([
    [
      'takes the neighbour along, over a weekend',
      3,
      'endsOn',
      '2025-11-07',
      ['3: 2025-09-01 to 2025-11-07', '4: 2025-11-10 to 2025-12-19'],
    ],
    [
      'takes the neighbour before it along',
      4,
      'startsOn',
      '2025-10-29',
      ['3: 2025-09-01 to 2025-10-28', '4: 2025-10-29 to 2025-12-19'],
    ],
    [
      'takes inner periods with the same edge along, and the neighbour over a break',
      2,
      'endsOn',
      '2025-12-18',
      ['2: 2025-09-01 to 2025-12-18', '4: 2025-11-03 to 2025-12-18', '5: 2025-12-19 to 2026-06-12'],
    ],
    [
      'leaves one day at least',
      3,
      'endsOn',
      '2025-08-01',
      ['3: 2025-09-01 to 2025-09-01', '4: 2025-09-02 to 2025-12-19'],
    ],
    ['leaves the outer period for the checks to judge', 5, 'endsOn', '2026-06-19', ['5: 2026-01-05 to 2026-06-19']],
    [
      'moves a year by itself with what shares its edge',
      1,
      'endsOn',
      '2026-06-10',
      ['1: 2025-09-01 to 2026-06-10', '5: 2026-01-05 to 2026-06-10'],
    ],
    ['of nothing changes nothing', 9, 'endsOn', '2026-06-10', []],
  ] as const)('%s', (_what, id, edge, to, expected) => expect(moved(id, edge, to)).toEqual(expected));
});
