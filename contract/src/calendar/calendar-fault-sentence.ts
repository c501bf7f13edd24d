import type { CalendarFault, CalendarFaultCode } from '#core/calendar';
import { formatMessage } from '#contract/messages';

const sentences: Record<CalendarFaultCode, string> = {
  'period-ends-before-start': '{name} ends on {endsOn}, before it starts on {startsOn}.',
  'period-outside-parent': '{name} reaches outside {parent}, which runs from {from} to {to}.',
  'periods-gap': '{from} to {to} lies in {before} but not in {name} nor any period beside it.',
  'periods-overlap': '{name} and {before} share the days {from} to {to}.',
  'period-name-missing': 'The {kind} from {from} to {to} needs a name.',
  'period-name-twice': '{name} is listed twice beside each other; give one of them another name.',
  'break-ends-before-start': '{name} ends on {endsOn}, before it starts on {startsOn}.',
  'break-outside-year': '{name} ({startsOn} to {endsOn}) lies in no year of the calendar.',
  'window-closes-before-opens': 'The window of {item} for {period} closes before it opens.',
  'window-grace-before-close': 'The grace of {item} for {period} ends before the window closes.',
  'window-before-end':
    'The window of {item} closes on {closesOn}, before {period} ends on {endsOn}, and no reason is given.',
  'section-outside-period': '{name} runs from {startsOn} to {endsOn}, which {period} does not hold.',
};

/** What is wrong with a calendar, for people; days as `showDay` writes them. */
export function calendarFaultSentence({ code, data }: CalendarFault, showDay: (day: string) => string): string {
  const isDay = /^\d{4}-\d{2}-\d{2}$/;
  const shown = Object.entries(data).map(([word, value]) => [word, isDay.test(value) ? showDay(value) : value]);
  return formatMessage(sentences[code], Object.fromEntries(shown) as Record<string, string>);
}
