import { divide, rational, type Rational } from '#core/numbers';
import { addDays, daysBetween, type Day } from './day.js';
import { daysOf, isInstructional, type Break, type Weekdays } from './school-days.js';

/** A break counts as scheduled time off from this many days in a row. */
export const longBreakDays = 5;

export interface PartOfPeriod {
  /** Calendar days of the period that count. */
  readonly days: number;
  /** Long breaks left out, with the days without classes beside them. */
  readonly leftOut: readonly { readonly startsOn: Day; readonly endsOn: Day; readonly days: number }[];
  /** The first day at whose end more than 60 % is over; from it on the whole period counts as earned. */
  readonly sixtyPercentDay: Day;
}

/**
 * How the days of a period count for student aid: calendar days, without scheduled breaks of at least five days in a row.
 * A break's row of days takes in the days without classes beside it: a week off from Monday to Friday is nine days.
 * Source: 34 CFR 668.22(f)(1)(i), (2)(i) and, for the weekends beside a break, the handbook of the aid programmes (from
 * memory).
 */
export function partOfPeriod(
  period: { readonly startsOn: Day; readonly endsOn: Day },
  weekdays: Weekdays,
  breaks: readonly Break[],
): PartOfPeriod {
  const leftOut = longBreaks(period, weekdays, breaks);
  const counted = daysOf(period).filter((day) => !leftOut.some((each) => each.startsOn <= day && day <= each.endsOn));
  const needed = Math.floor((counted.length * 60) / 100) + 1;
  return {
    days: counted.length,
    leftOut,
    sixtyPercentDay: counted[Math.min(needed, counted.length) - 1] ?? period.endsOn,
  };
}

/**
 * The part of the period completed at the end of a day, exact: days completed over days that count. Above 60 % it counts
 * as all.
 */
export function partCompleted(
  period: { readonly startsOn: Day; readonly endsOn: Day },
  weekdays: Weekdays,
  breaks: readonly Break[],
  day: Day,
): Rational {
  const { days, leftOut } = partOfPeriod(period, weekdays, breaks);
  if (days === 0 || day < period.startsOn) return rational(0n, 1n);
  const until = day < period.endsOn ? day : period.endsOn;
  const completed = daysOf({ startsOn: period.startsOn, endsOn: until }).filter(
    (each) => !leftOut.some(({ startsOn, endsOn }) => startsOn <= each && each <= endsOn),
  ).length;
  return divide(rational(BigInt(completed), 1n), rational(BigInt(days), 1n));
}

/** Rows of at least five days without classes inside the period that hold a break. */
function longBreaks(
  period: { readonly startsOn: Day; readonly endsOn: Day },
  weekdays: Weekdays,
  breaks: readonly Break[],
): PartOfPeriod['leftOut'] {
  const found: { startsOn: Day; endsOn: Day; days: number }[] = [];
  const inside = breaks.filter(({ startsOn, endsOn }) => startsOn <= period.endsOn && period.startsOn <= endsOn);
  for (const each of inside.toSorted((a, b) => (a.startsOn < b.startsOn ? -1 : 1))) {
    let { startsOn, endsOn } = each;
    const isOff = (day: Day) => !isInstructional(day, weekdays, breaks);
    while (startsOn > period.startsOn && isOff(addDays(startsOn, -1))) startsOn = addDays(startsOn, -1);
    while (endsOn < period.endsOn && isOff(addDays(endsOn, 1))) endsOn = addDays(endsOn, 1);
    if (startsOn < period.startsOn) startsOn = period.startsOn;
    if (endsOn > period.endsOn) endsOn = period.endsOn;
    const days = daysBetween(startsOn, endsOn) + 1;
    if (days >= longBreakDays && !found.some((other) => other.startsOn === startsOn))
      found.push({ startsOn, endsOn, days });
  }
  return found;
}
