import { afterEach, expect, it } from 'vitest';
import { dayOrThrow } from '#core/calendar';
import type { PeriodReply } from '#contract/calendar';
import { setDistrictZone } from '../ui/format';
import { nextDates } from './next-dates';

afterEach(() => setDistrictZone('UTC'));

const quarter: PeriodReply = {
  id: 4,
  parentId: 2,
  kind: 'quarter',
  name: 'Quarter 2',
  startsOn: dayOrThrow('2025-11-10'),
  endsOn: dayOrThrow('2026-01-23'),
  posting: {
    itemId: 1,
    itemName: 'Quarter grade',
    sections: 2,
    sectionsComplete: 1,
    window: {
      opensAt: '2026-01-14T08:00:00Z',
      closesAt: '2026-01-23T17:00:00Z',
      graceUntil: null,
      latePosters: 'registrars',
      state: 'open',
    },
    sealedAt: null,
    audit: null,
  },
};

it('names what is still to come, soonest first, and how many days away', () => {
  const dates = nextDates({ periods: [quarter], now: '2026-01-21T10:42:00.000Z' }, 5);
  expect(dates.map(({ says, inDays }) => [says, inDays])).toEqual([
    ['the window of Quarter 2 closes', 2],
    ['Quarter 2 ends', 2],
  ]);
});

it('gives no more than asked for, and today as no days away', () => {
  const [first, ...others] = nextDates({ periods: [quarter], now: '2026-01-14T07:00:00.000Z' }, 1);
  expect([first?.says, first?.inDays, others]).toEqual(['the window of Quarter 2 opens', 0, []]);
});

it('counts days where the district is: late in its evening the next day is one day away', () => {
  setDistrictZone('America/Los_Angeles');
  const [first, second] = nextDates({ periods: [quarter], now: '2026-01-23T04:30:00.000Z' }, 2);
  expect([first?.says, first?.inDays]).toEqual(['the window of Quarter 2 closes', 1]);
  expect([second?.says, second?.at, second?.inDays]).toEqual(['Quarter 2 ends', '2026-01-24T07:59:00.000Z', 1]);
});
