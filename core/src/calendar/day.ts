declare const brand: unique symbol;

/** A calendar day without a time, written YYYY-MM-DD. Days compare as text in the order of time. */
export type Day = string & { readonly [brand]: 'day' };

/** Reads YYYY-MM-DD; a day that does not exist, such as 2026-02-30, is undefined. */
export function parseDay(text: string): Day | undefined {
  const match = /^(\d{4})-(\d{2})-(\d{2})$/.exec(text);
  if (!match) return undefined;
  const date = new Date(`${text}T00:00:00Z`);
  return !Number.isNaN(date.getTime()) && date.toISOString().startsWith(text) ? (text as Day) : undefined;
}

/** @throws RangeError when the text is no day */
export function dayOrThrow(text: string): Day {
  const day = parseDay(text);
  if (!day) throw new RangeError(`"${text}" is not a day written YYYY-MM-DD`);
  return day;
}

/** Whole days from one day to another, below 0 when `to` is earlier. */
export function daysBetween(from: Day, to: Day): number {
  return Math.round((Date.parse(`${to}T00:00:00Z`) - Date.parse(`${from}T00:00:00Z`)) / 86_400_000);
}

export function addDays(day: Day, days: number): Day {
  const date = new Date(`${day}T00:00:00Z`);
  date.setUTCDate(date.getUTCDate() + days);
  return date.toISOString().slice(0, 10) as Day;
}
