import type { SheetCounts } from '#core/board';
import { counted } from '#contract/messages';

/** What a sheet lacks, each with its figure: "3 blanks", "1 last date missing"; empty where nothing does. */
export function lacksInWords({ blanks, missingDates, missingComments, unexplained }: SheetCounts): string[] {
  return [
    blanks > 0 && counted(blanks, 'blank'),
    missingDates > 0 && `${counted(missingDates, 'last date')} missing`,
    missingComments > 0 && `${counted(missingComments, 'comment')} missing`,
    unexplained > 0 && `${counted(unexplained, 'override')} without a reason`,
  ].filter((words) => words !== false);
}
