import { describe, expect, it } from 'vitest';
import { dayOrThrow, type PeriodKind } from '#core/calendar';
import type { CalendarReply, PeriodBody } from '#contract/calendar';
import { bodyOfCalendar, calendarDrafts, changeCalendar } from './calendar-drafts';
import { calendarFaults, newId, newWindow, periodViews, withoutPeriod, yearBeside, yearsOf } from './calendar-view';

const period = (
  id: number,
  parentId: number | null,
  kind: PeriodKind,
  name: string,
  startsOn: string,
  endsOn: string,
): PeriodBody => ({
  id,
  parentId,
  kind,
  name,
  startsOn: dayOrThrow(startsOn),
  endsOn: dayOrThrow(endsOn),
});
const facts = { isSealed: false, postedGrades: 0, sections: 0 };
const calendar: CalendarReply = {
  school: { id: 1, name: 'Port Elowen Upper School', shortName: 'Upper School' },
  revision: 'r4',
  weekdays: [1, 2, 3, 4, 5],
  periods: [
    { ...period(1, null, 'year', '2025–26', '2025-09-01', '2026-06-12'), ...facts },
    { ...period(2, 1, 'semester', 'Semester 1', '2025-09-01', '2026-01-23'), ...facts },
    { ...period(4, 2, 'quarter', 'Quarter 2', '2025-11-10', '2026-01-23'), ...facts },
    { ...period(3, 2, 'quarter', 'Quarter 1', '2025-09-01', '2025-11-07'), ...facts, isSealed: true },
    { ...period(5, 1, 'semester', 'Semester 2', '2026-01-26', '2026-06-12'), ...facts },
    { ...period(9, null, 'year', '2026–27', '2026-08-31', '2027-06-11'), ...facts },
  ],
  breaks: [{ id: 1, name: 'Winter break', startsOn: dayOrThrow('2025-12-22'), endsOn: dayOrThrow('2026-01-02') }],
  windows: [
    {
      id: 7,
      itemId: 1,
      periodId: 4,
      opensAt: '2026-01-14T08:00:00Z',
      closesAt: '2026-01-20T17:00:00Z',
      graceUntil: null,
      latePosters: 'registrars',
      earlyReason: '',
    },
  ],
  items: [{ id: 1, name: 'Quarter grade', periodKind: 'quarter', ordinals: [2] }],
  sections: [],
};
const body = bodyOfCalendar(calendar);
const [year] = yearsOf(body);

describe('a year of the calendar', () => {
  it('has its periods in order, each before those inside it, with what follows from its days', () => {
    const views = periodViews(calendar, body, year!);
    expect(
      views.map(({ period: { name }, depth, classDays, items, isSealed }) => [
        name,
        depth,
        classDays,
        items.length,
        isSealed,
      ]),
    ).toEqual([
      ['2025–26', 0, 195, 0, false],
      ['Semester 1', 1, 95, 0, false],
      ['Quarter 1', 2, 50, 0, true],
      ['Quarter 2', 2, 45, 1, false],
      ['Semester 2', 1, 100, 0, false],
    ]);
    expect(views[3]!.faults.map(({ code }) => code)).toEqual(['window-before-end']);
  });

  it('is found beside another school’s, and its faults bear the place of a window', () => {
    expect(yearBeside(body, { startsOn: dayOrThrow('2026-09-07'), endsOn: dayOrThrow('2027-06-25') })?.name).toBe(
      '2026–27',
    );
    expect(calendarFaults(calendar, body)).toEqual([
      {
        code: 'window-before-end',
        severity: 'warns',
        of: 'window',
        id: 0,
        data: {
          item: 'Quarter grade',
          period: 'Quarter 2',
          closesOn: '2026-01-20',
          endsOn: '2026-01-23',
        },
      },
    ]);
  });

  it('without a period is without what lies in it and its windows', () => {
    const rest = withoutPeriod(body, body.periods[1]!);
    expect([rest.periods.map(({ id }) => id), rest.windows, newId(body.periods)]).toEqual([[1, 5, 9], [], -1]);
    expect(rest.breaks).toEqual(body.breaks);
  });

  it('taken out takes the breaks along that no other year holds', () => {
    const winter = {
      id: 2,
      name: 'Winter break',
      startsOn: dayOrThrow('2026-12-21'),
      endsOn: dayOrThrow('2027-01-01'),
    };
    const both = { ...body, breaks: [...body.breaks, winter] };
    const next = yearsOf(both)[1]!;
    expect(withoutPeriod(both, next).breaks.map(({ id }) => id)).toEqual([1]);
    expect(withoutPeriod(both, year!).breaks.map(({ id }) => id)).toEqual([2]);
  });
});

it('a drag is one step of the draft, and undoing it takes the draft away', () => {
  const moved = (name: string) => ({ periods: body.periods.map((each) => (each.id === 4 ? { ...each, name } : each)) });
  changeCalendar(calendar, moved('Q'));
  changeCalendar(calendar, moved('Q2'), true);
  const draft = calendarDrafts.get(1)!;
  expect([draft.basedOn, draft.undo.length, draft.now.periods[2]!.name]).toEqual(['r4', 1, 'Q2']);
  calendarDrafts.undo(1);
  expect(calendarDrafts.get(1)).toBeUndefined();
});

it.each([
  ['closes two days after the period', '2026-01-20', '2026-01-13T08:00:00.000Z', '2026-01-22T17:00:00.000Z'],
  ['never on a day without classes', '2026-01-23', '2026-01-16T08:00:00.000Z', '2026-01-26T17:00:00.000Z'],
])('a new window opens a week before the end of the period and %s', (_what, endsOn, opensAt, closesAt) => {
  const own = period(4, 2, 'quarter', 'Quarter 2', '2025-11-10', endsOn);
  expect(newWindow(1, own, [1, 2, 3, 4, 5])).toMatchObject({ itemId: 1, periodId: 4, opensAt, closesAt });
});
