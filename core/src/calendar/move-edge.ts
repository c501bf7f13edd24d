import { addDays, type Day } from './day.js';
import type { Period } from './period.js';
import { isInstructional, type Break, type Weekdays } from './school-days.js';

export type PeriodEdge = 'startsOn' | 'endsOn';

interface MovedCalendar<P> {
  readonly periods: readonly P[];
  readonly breaks: readonly Break[];
  readonly weekdays: Weekdays;
}

/**
 * The periods with one edge of one of them moved. A period keeps at least one day. The neighbour that it touched, with
 * only days without classes between, goes along and begins or ends at the nearest day with classes; so do the periods
 * inside it that shared the edge.
 */
export function moveEdge<P extends Period>(calendar: MovedCalendar<P>, id: number, edge: PeriodEdge, wanted: Day): P[] {
  const { periods } = calendar;
  const period = periods.find((each) => each.id === id);
  if (!period) return [...periods];
  const to = edge === 'endsOn' ? later(wanted, period.startsOn) : earlier(wanted, period.endsOn);
  const moved = new Map<number, P>([[id, { ...period, [edge]: to }]]);
  moveInner(periods, period, edge, to, moved);
  const neighbour = touching(calendar, period, edge);
  if (neighbour) {
    const other: PeriodEdge = edge === 'endsOn' ? 'startsOn' : 'endsOn';
    const at = nearestClassDay(calendar, to, edge === 'endsOn' ? 1 : -1);
    const kept = edge === 'endsOn' ? earlier(at, neighbour.endsOn) : later(at, neighbour.startsOn);
    moved.set(neighbour.id, { ...neighbour, [other]: kept });
    moveInner(periods, neighbour, other, kept, moved);
  }
  return periods.map((each) => moved.get(each.id) ?? each);
}

function moveInner<P extends Period>(
  periods: readonly P[],
  outer: P,
  edge: PeriodEdge,
  to: Day,
  moved: Map<number, P>,
): void {
  for (const inner of periods.filter(({ parentId, [edge]: at }) => parentId === outer.id && at === outer[edge])) {
    const kept = edge === 'endsOn' ? later(to, inner.startsOn) : earlier(to, inner.endsOn);
    moved.set(inner.id, { ...inner, [edge]: kept });
    moveInner(periods, inner, edge, kept, moved);
  }
}

function touching<P extends Period>(calendar: MovedCalendar<P>, period: P, edge: PeriodEdge): P | undefined {
  const siblings = calendar.periods.filter(({ id, parentId }) => parentId === period.parentId && id !== period.id);
  if (period.parentId === null) return undefined;
  return edge === 'endsOn'
    ? siblings.find(
        ({ startsOn }) => startsOn > period.endsOn && startsOn <= nearestClassDay(calendar, period.endsOn, 1),
      )
    : siblings.find(
        ({ endsOn }) => endsOn < period.startsOn && endsOn >= nearestClassDay(calendar, period.startsOn, -1),
      );
}

/** The first day with classes after a day or, with -1, the last before it; within a year, else the day next to it. */
function nearestClassDay({ weekdays, breaks }: Omit<MovedCalendar<Period>, 'periods'>, day: Day, by: 1 | -1): Day {
  for (let step = 1; step <= 366; step++) {
    const at = addDays(day, step * by);
    if (isInstructional(at, weekdays, breaks)) return at;
  }
  return addDays(day, by);
}

function later(a: Day, b: Day): Day {
  return a > b ? a : b;
}

function earlier(a: Day, b: Day): Day {
  return a < b ? a : b;
}
