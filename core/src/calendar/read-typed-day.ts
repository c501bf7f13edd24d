import { parseDay, type Day } from './day.js';
import { isPlaceholderDay } from './placeholder-day.js';

export type TypedDay =
  | { readonly kind: 'day'; readonly day: Day }
  | { readonly kind: 'blank' }
  | { readonly kind: 'unreadable' }
  | { readonly kind: 'placeholder'; readonly day: Day };

const months = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];

/**
 * Reads a day as people type it: 2026-01-16, "16 jan 2026", "16 jan" or "16/1" (day before month). Without a year,
 * the one that brings the day nearest to `near` is taken.
 */
export function readTypedDay(text: string, near: Day): TypedDay {
  const typed = text.trim().toLowerCase();
  if (typed === '') return { kind: 'blank' };
  const day = parseDay(typed) ?? fromWords(typed, near);
  if (!day) return { kind: 'unreadable' };
  return isPlaceholderDay(day) ? { kind: 'placeholder', day } : { kind: 'day', day };
}

function fromWords(typed: string, near: Day): Day | undefined {
  const match = /^(\d{1,2})[\s./-]+(\d{1,2}|[a-z]{3,9})\.?(?:[\s./-]+(\d{4}))?$/.exec(typed);
  if (!match) return undefined;
  const [, date, monthText, year] = match;
  const month = /^\d/.test(monthText!) ? Number(monthText) : months.indexOf(monthText!.slice(0, 3)) + 1;
  const nearYear = Number(near.slice(0, 4));
  const years = year ? [Number(year)] : [nearYear, nearYear - 1, nearYear + 1];
  const days = years.flatMap((each) => parseDay(`${each}-${twoDigits(month)}-${twoDigits(Number(date))}`) ?? []);
  const distance = (day: Day) => Math.abs(Date.parse(day) - Date.parse(near));
  return days.toSorted((a, b) => distance(a) - distance(b))[0];
}

function twoDigits(value: number): string {
  return String(value).padStart(2, '0');
}
