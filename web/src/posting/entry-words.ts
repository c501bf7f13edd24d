import type { Day } from '#core/calendar';
import type { LastDateFault, PercentFault } from '#core/posting';
import { showDay } from '../ui/format';

/** What a sheet takes: labels and codes, and levels up to the highest one, or with null percents. */
interface Taken {
  readonly known: readonly string[];
  readonly highestLevel: string | null;
  readonly highestPercent: string;
  /** In which last dates lie. */
  readonly period: { readonly startsOn: Day; readonly endsOn: Day };
}

/** What is wrong with an entry and what would be right. */
export function entryFaultWords(
  code: PercentFault | 'label-unknown' | 'day-unreadable' | LastDateFault | 'hours-unreadable',
  { known, highestLevel, highestPercent, period }: Taken,
): string {
  switch (code) {
    case 'percent-unreadable':
      return highestLevel === null ? 'A percentage is a number such as 86.4.' : 'A level is a number such as 2.5.';
    case 'percent-negative':
      return `A ${highestLevel === null ? 'percentage' : 'level'} is not below 0.`;
    case 'percent-too-high':
      return `A percentage is at most ${highestPercent} here.`;
    case 'level-too-high':
      return `A level is from 0 to ${highestLevel}; percentages are not accepted here.`;
    case 'percent-too-exact':
      return `At most two decimals, such as ${highestLevel === null ? '86.45' : '2.45'}.`;
    case 'label-unknown':
      return `One of ${known.join(', ')}.`;
    case 'day-unreadable':
      return 'A day such as 16 Jan or 2026-01-16.';
    case 'hours-unreadable':
      return 'Hours such as 42.5, not below 0.';
    case 'day-outside':
      return `A day of the period, from ${showDay(period.startsOn)} to ${showDay(period.endsOn)}.`;
    case 'day-placeholder':
      return 'A date that only means “no date” is not accepted; leave the cell empty.';
  }
}
