import { roundings } from '#core/numbers';
import type { ReportItem } from '#core/report-items';
import type { ItemFact } from './snapshot.js';

/** What of a report item its grades are judged by. */
export type JudgedItem = Pick<
  ReportItem,
  | 'id'
  | 'name'
  | 'digits'
  | 'rounding'
  | 'failingNeedsLastDate'
  | 'highestPercent'
  | 'asksHours'
  | 'commentRule'
  | 'commentBelow'
  | 'commentLength'
  | 'onTranscript'
  | 'countsInGpa'
  | 'source'
>;

export function itemFactOf(item: JudgedItem, window: ItemFact['window']): ItemFact {
  const { digits, rounding, source, ...facts } = item;
  return {
    ...facts,
    precision: { digits, rounding: roundings[rounding] },
    isComposite: source === 'composite',
    isOfBook: source === 'gradeBook',
    window,
  };
}
