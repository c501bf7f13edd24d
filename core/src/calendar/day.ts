declare const brand: unique symbol;

/** A calendar day without a time, written YYYY-MM-DD. Days compare as text in the order of time. */
export type Day = string & { readonly [brand]: 'day' };

/** Reads YYYY-MM-DD; a day that does not exist, such as 2026-02-30, is undefined. */
export function parseDay(text: string): Day | undefined {
  if (!/^\d{4}-\d{2}-\d{2}$/.test(text)) return undefined;
  const [year, month, day] = [Number(text.slice(0, 4)), Number(text.slice(5, 7)), Number(text.slice(8))];
  return day >= 1 && day <= daysOfMonth(year, month) ? (text as Day) : undefined;
}

const monthLengths = [31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31];

/** How many days a month has, 1 being January; 0 where there is no such month. */
function daysOfMonth(year: number, month: number): number {
  const isLeap = (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0;
  return month === 2 && isLeap ? 29 : (monthLengths[month - 1] ?? 0);
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
