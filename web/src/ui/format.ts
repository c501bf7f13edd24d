import {
  decimalOrThrow,
  formatAtLeast,
  formatDecimal,
  fromDecimal,
  roundDown,
  roundHalfUp,
  roundTo,
  type RoundingName,
} from '#core/numbers';
import { nameAs } from '#core/people';
import { counted, listed } from '#contract/messages';
import { ownLocale, useOwnView } from './own-view';

let zone = 'UTC';

/** The district's time zone, in which every instant is shown; told once the session is known. */
export function setDistrictZone(timeZone: string): void {
  zone = timeZone;
}

export function districtZone(): string {
  return zone;
}

const weekdayParts = { weekday: 'short', day: 'numeric', month: 'short' } as const;
const dayParts = { day: 'numeric', month: 'short', year: 'numeric' } as const;

/** 16 Jan 2026, in the reader's locale. */
export function showDay(day: string): string {
  return new Intl.DateTimeFormat(ownLocale(), { ...dayParts, timeZone: 'UTC' }).format(new Date(`${day}T00:00:00Z`));
}

/** A day of this year with its day of the week: "Mon 19 Jan". */
export function showDayOfWeek(day: string): string {
  return new Intl.DateTimeFormat(ownLocale(), { ...weekdayParts, timeZone: 'UTC' }).format(
    new Date(`${day}T00:00:00Z`),
  );
}

/** Wed 21 Jan, in the reader's locale. */
export function showWeekday(instant: string): string {
  return new Intl.DateTimeFormat(ownLocale(), { ...weekdayParts, timeZone: zone }).format(new Date(instant));
}

export function showTime(instant: string): string {
  return new Intl.DateTimeFormat(ownLocale(), {
    hour: '2-digit',
    minute: '2-digit',
    timeZone: zone,
    hourCycle: 'h23',
  }).format(new Date(instant));
}

/** "Friday at 17:00" within a week of `now`, else "7 Apr at 17:00". */
export function showDeadline(instant: string, now: string): string {
  const days = (Date.parse(instant) - Date.parse(now)) / 86_400_000;
  const options = Math.abs(days) < 6 ? ({ weekday: 'long' } as const) : ({ day: 'numeric', month: 'short' } as const);
  const day = new Intl.DateTimeFormat(ownLocale(), { ...options, timeZone: zone }).format(new Date(instant));
  return `${day} at ${showTime(instant)}`;
}

/** "Wed 21 Jan, 10:42". */
export function showInstant(instant: string): string {
  return `${showWeekday(instant)}, ${showTime(instant)}`;
}

export function showCount(count: number): string {
  return new Intl.NumberFormat(ownLocale()).format(count);
}

/** A figure for a column of figures of one width, with room at its right so that the points stand above one another. */
export function onThePoint(figure: string, mostDigits: number): string {
  const digits = figure.split(/[.,]/)[1]?.length;
  return figure + '\u00a0'.repeat(digits === undefined ? (mostDigits > 0 ? mostDigits + 1 : 0) : mostDigits - digits);
}

/** A decimal text with exactly these digits, rounded half up for the eye only. */
export function showDecimal(text: string, digits: number): string {
  return formatDecimal(roundTo(fromDecimal(decimalOrThrow(text)), digits, roundHalfUp));
}

/** A percentage with the digits it needs, at least one: 86.4, 86.45. */
export function showPercent(text: string): string {
  return formatAtLeast(decimalOrThrow(text), 1);
}

/**
 * A computed percent cut to two digits. Cut, not rounded: 89.4462 shown as 89.45 would seem to round on to 89.5, which it
 * does not.
 */
export function showComputed(text: string): string {
  return formatAtLeast(roundTo(fromDecimal(decimalOrThrow(text)), 2, roundDown), 1);
}

const roundingWords: Record<RoundingName, string> = { halfUp: 'half up', halfEven: 'half to even', down: 'down' };

/** "half up to 1 decimal", "down to whole percents". */
export function showPrecision(rounding: RoundingName, digits: number): string {
  return `${roundingWords[rounding]} to ${digits === 0 ? 'whole percentages' : counted(digits, 'decimal')}`;
}

/** "Hale Carrow" for "Carrow, Hale", where a sentence speaks of somebody. */
export function showGivenFirst(name: string): string {
  return nameAs(name, { order: 'given', names: useOwnView.getState().names });
}

/** "Carrow, Hale", as it stands on papers, whatever the person goes by and the reader likes. */
export function showLegalName(name: string): string {
  return nameAs(name, { order: 'family', names: 'legal' });
}

/** A listed name as the reader likes it. */
export function showName(name: string): string {
  const { peopleOrder: order, names } = useOwnView.getState();
  return nameAs(name, { order, names });
}

/** "Shore Life, Knots and 4 more". */
export function showNames(names: readonly string[], most = 4): string {
  if (names.length <= most) return listed(names);
  return `${names.slice(0, most).join(', ')} and ${showCount(names.length - most)} more`;
}

/** A label as people write it, with a true minus sign. */
export function showLabel(label: string): string {
  return label.replace('-', '−');
}
