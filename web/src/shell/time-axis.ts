import { ownLocale } from '../ui/own-view';

/** Places days on a line that runs from the first to the last day of a year. */
export interface TimeAxis {
  /** 0 for the beginning of the first day, 1 for the end of the last; outside the line below 0 or above 1. */
  at(day: string): number;
  /** The day whose beginning or, with `isEnd`, whose end lies nearest to a place on the line. */
  dayAt(share: number, isEnd: boolean): string;
  percent(share: number): string;
  /** Left edge and width of a stretch of days, both ends included. */
  span(stretch: { readonly startsOn: string; readonly endsOn: string }): { left: string; width: string };
}

const msPerDay = 86_400_000;

export function createTimeAxis(startsOn: string, endsOn: string): TimeAxis {
  const start = Date.parse(startsOn);
  const length = Date.parse(endsOn) + msPerDay - start;
  const at = (day: string) => (Date.parse(day) - start) / length;
  const percent = (share: number) => `${(share * 100).toFixed(3)}%`;
  return {
    at,
    dayAt: (share, isEnd) => {
      const days = Math.round((share * length) / msPerDay) - (isEnd ? 1 : 0);
      return new Date(start + days * msPerDay).toISOString().slice(0, 10);
    },
    percent,
    span: (stretch) => ({
      left: percent(at(stretch.startsOn)),
      width: percent((Date.parse(stretch.endsOn) + msPerDay - Date.parse(stretch.startsOn)) / length),
    }),
  };
}

/** The months of the year, the one it starts in first unless less than eight days of it lie there. */
export function monthsOf(startsOn: string, endsOn: string): { name: string; startsOn: string }[] {
  const names = new Intl.DateTimeFormat(ownLocale(), { month: 'short', timeZone: 'UTC' });
  const months = [];
  const first = new Date(`${startsOn.slice(0, 7)}-01T00:00:00Z`);
  for (const month = first; month.toISOString().slice(0, 10) <= endsOn; month.setUTCMonth(month.getUTCMonth() + 1)) {
    const begins = month.toISOString().slice(0, 10);
    months.push({ name: names.format(month), startsOn: begins < startsOn ? startsOn : begins });
  }
  // A month of which only its last days lie in the year would write over the next one.
  const [partial, next] = months;
  const isShort = partial && next && Date.parse(next.startsOn) - Date.parse(partial.startsOn) < 8 * msPerDay;
  return isShort ? months.slice(1) : months;
}
