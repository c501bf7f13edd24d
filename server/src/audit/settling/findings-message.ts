import { agreeing, counted } from '#contract/messages';

/** Findings of one rule on one sheet or section. */
export interface ToldGroup {
  /** "Shore Life 5, Quarter grade". */
  readonly where: string;
  readonly rule: string;
  readonly findings: number;
}

export interface MessageFacts {
  readonly teacher: string;
  readonly writer: string;
  readonly period: string;
  readonly groups: readonly ToldGroup[];
  readonly note: string;
}

const sumOf = (groups: readonly ToldGroup[]) => groups.reduce((sum, { findings }) => sum + findings, 0);

export function messageSubject({ period, groups }: Pick<MessageFacts, 'period' | 'groups'>): string {
  const count = sumOf(groups);
  return `${counted(count, 'finding')} in your sections of ${period} ${agreeing(count, 'needs')} a look`;
}

/** What was found and where, without the name of any student: messages lie in other hands than grades. */
export function messageText({ teacher, writer, period, groups, note }: MessageFacts): string {
  return [
    `Dear ${teacher},`,
    '',
    `the audit of ${period} found in your sections:`,
    '',
    ...groups.map(({ where, rule, findings }) => `- ${where}: ${rule}${findings > 1 ? ` (${findings})` : ''}`),
    '',
    'The notes of your grade sheets say what was found at each grade.',
    '',
    ...(note === '' ? [] : [note, '']),
    writer,
    '',
  ].join('\r\n');
}
