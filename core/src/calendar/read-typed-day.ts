import { parseDay, type Day } from './day.js';
import { isPlaceholderDay } from './placeholder-day.js';

/** Which comes first where a day is written in figures, as in 3/4: Britain writes the day, the United States the month. */
export type DayOrder = 'dayFirst' | 'monthFirst';

export type TypedDay =
  | {
      readonly kind: 'day';
      readonly day: Day;
      /** What the same figures mean in the other order; null where they can be read only once. */
      readonly otherwise: Day | null;
    }
  | { readonly kind: 'blank' }
  | { readonly kind: 'unreadable' }
  | { readonly kind: 'placeholder'; readonly day: Day };

const months = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];
const separator = String.raw`[\s./,-]+`;
const yearAtEnd = String.raw`(?:${separator}(\d{4}))?$`;
const inFigures = new RegExp(String.raw`^(\d{1,2})${separator}(\d{1,2})${yearAtEnd}`);
const dayThenMonth = new RegExp(String.raw`^(\d{1,2})(?:st|nd|rd|th)?${separator}([a-z]{3,9})${yearAtEnd}`);
const monthThenDay = new RegExp(String.raw`^([a-z]{3,9})${separator}(\d{1,2})(?:st|nd|rd|th)?${yearAtEnd}`);

/**
 * Reads a day as people type it: 2026-01-16, "16 jan 2026", "January 16, 2026", "16 jan", or figures such as "1/16" in the order
 * of the reader's country. Figures that make no day in that order are read in the other. Without a year, the one that brings
 * the day nearest to `near` is taken.
 */
export function readTypedDay(text: string, near: Day, order: DayOrder): TypedDay {
  const typed = text.trim().toLowerCase();
  if (typed === '') return { kind: 'blank' };
  const iso = parseDay(typed);
  const [first, second] = iso ? [iso] : readings(typed, near, order);
  if (!first) return { kind: 'unreadable' };
  if (isPlaceholderDay(first)) return { kind: 'placeholder', day: first };
  return { kind: 'day', day: first, otherwise: second && second !== first ? second : null };
}

/** The days that a text can mean, the likelier one first. */
function readings(typed: string, near: Day, order: DayOrder): Day[] {
  const figures = inFigures.exec(typed);
  if (figures) {
    const [, one, other, year] = figures;
    const dayFirst = dayIn(Number(one), Number(other), year, near);
    const monthFirst = dayIn(Number(other), Number(one), year, near);
    return (order === 'dayFirst' ? [dayFirst, monthFirst] : [monthFirst, dayFirst]).filter((day) => day !== undefined);
  }
  const named = dayThenMonth.exec(typed);
  const [date, name, year] = named ? named.slice(1) : swapped(monthThenDay.exec(typed));
  if (name === undefined) return [];
  const month = months.findIndex((short) => name.startsWith(short)) + 1;
  return [dayIn(Number(date), month, year, near)].filter((day) => day !== undefined);
}

function swapped(match: RegExpExecArray | null): (string | undefined)[] {
  return match ? [match[2], match[1], match[3]] : [];
}

/** The day of a month; of the year nearest to `near` where none is named. */
function dayIn(date: number, month: number, year: string | undefined, near: Day): Day | undefined {
  const nearYear = Number(near.slice(0, 4));
  const years = year ? [Number(year)] : [nearYear, nearYear - 1, nearYear + 1];
  const days = years.flatMap((each) => parseDay(`${each}-${twoDigits(month)}-${twoDigits(date)}`) ?? []);
  const distance = (day: Day) => Math.abs(Date.parse(day) - Date.parse(near));
  return days.toSorted((a, b) => distance(a) - distance(b))[0];
}

function twoDigits(value: number): string {
  return String(value).padStart(2, '0');
}
