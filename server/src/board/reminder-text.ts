import { lacksInWords, type BoardSheetReply } from '#contract/board';
import { agreeing, counted, listed, momentInWords } from '#contract/messages';
import type { WindowReply } from '#contract/calendar';

/** A sheet that its teacher is reminded of. */
export interface RemindedSheet {
  readonly section: string;
  readonly item: string;
  readonly window: WindowReply;
  readonly sheet: BoardSheetReply;
}

export interface ReminderFacts {
  readonly teacher: string;
  readonly writer: string;
  readonly period: string;
  readonly sheets: readonly RemindedSheet[];
  readonly note: string;
  /** The district's time zone. */
  readonly zone: string;
}

export function reminderSubject({ period, sheets }: Pick<ReminderFacts, 'period' | 'sheets'>): string {
  return `${counted(sheets.length, 'sheet')} of ${period} ${agreeing(sheets.length, 'is')} not signed off`;
}

/** What lacks on each sheet and until when, without the name of any student: messages lie in other hands than grades. */
export function reminderText({ teacher, writer, period, sheets, note, zone }: ReminderFacts): string {
  const times = Math.max(...sheets.map(({ sheet }) => sheet.reminded?.times ?? 0));
  const last = sheets
    .flatMap(({ sheet }) => sheet.reminded?.at ?? [])
    .toSorted()
    .at(-1);
  return [
    `Dear ${teacher},`,
    '',
    `${counted(sheets.length, 'sheet')} of ${period} ${agreeing(sheets.length, 'is')} not signed off:`,
    '',
    ...sheets.map((each) => `- ${each.section}, ${each.item}: ${lackOf(each.sheet)} ${deadlineOf(each.window, zone)}`),
    '',
    ...(last ? [`This is reminder ${times + 1}. The last one was sent on ${momentInWords(last, zone)}.`, ''] : []),
    ...(note === '' ? [] : [note, '']),
    writer,
    '',
  ].join('\r\n');
}

function lackOf(sheet: BoardSheetReply): string {
  const lacks = lacksInWords(sheet);
  return lacks.length > 0 ? `${listed(lacks)}.` : 'complete, only the sign-off is missing.';
}

function deadlineOf({ state, closesAt, graceUntil }: WindowReply, zone: string): string {
  if (state === 'open') return `The posting window closes on ${momentInWords(closesAt, zone)}.`;
  if (state === 'grace' && graceUntil)
    return `The posting window closed on ${momentInWords(closesAt, zone)}; you can post until ${momentInWords(graceUntil, zone)}.`;
  return `The posting window closed on ${momentInWords(closesAt, zone)}.`;
}
