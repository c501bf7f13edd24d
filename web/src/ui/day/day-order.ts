import type { DayOrder } from '#core/calendar';
import { ownLocale } from '../own-view';

/** The order in which the reader's country writes days in figures. Years first, as in Sweden, go with the month first. */
export function dayOrderOf(locale = ownLocale()): DayOrder {
  const parts = new Intl.DateTimeFormat(locale, { day: 'numeric', month: 'numeric', year: 'numeric' }).formatToParts(0);
  const order = parts.map(({ type }) => type).filter((type) => type === 'day' || type === 'month');
  return order[0] === 'day' ? 'dayFirst' : 'monthFirst';
}

/** A day as the reader's country writes it in figures, such as 1/16/2026. */
export function dayInFigures(day: string, locale = ownLocale()): string {
  return new Intl.DateTimeFormat(locale, { timeZone: 'UTC' }).format(new Date(`${day}T00:00:00Z`));
}

/** A day in words, so that nobody mistakes it: Friday, January 16, 2026. */
export function dayInWords(day: string, locale = ownLocale()): string {
  return new Intl.DateTimeFormat(locale, { dateStyle: 'full', timeZone: 'UTC' }).format(new Date(`${day}T00:00:00Z`));
}
