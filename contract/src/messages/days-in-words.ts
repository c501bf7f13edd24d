/** "Friday 23 January 2026", as messages and papers write a day, whoever reads them. */
export function dayInWords(day: string): string {
  return inWords(new Date(`${day}T00:00:00Z`), 'UTC');
}

/** "Friday 23 January 2026 at 17:00", on the clocks of a time zone. */
export function momentInWords(instant: string, zone: string): string {
  return `${inWords(new Date(instant), zone)} at ${timeInWords(instant, zone)}`;
}

/** "17:00", on the clocks of a time zone. */
export function timeInWords(instant: string, zone: string): string {
  return new Intl.DateTimeFormat('en-GB', { timeStyle: 'short', timeZone: zone }).format(new Date(instant));
}

function inWords(at: Date, zone: string): string {
  return new Intl.DateTimeFormat('en-GB', { dateStyle: 'full', timeZone: zone }).format(at).replace(',', '');
}
