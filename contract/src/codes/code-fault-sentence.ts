import type { CodeFault, CodeFaultCode } from '#core/codes';
import { formatMessage } from '#contract/messages';

const sentences: Record<CodeFaultCode, string> = {
  'code-empty': 'A code needs a name, such as INC.',
  'code-twice': '{code} is listed twice; each code may be used once.',
  'code-is-label': '{code} is also the label of a scale; what is typed could mean either. Choose another code.',
  'percent-to-count-missing': 'State the percentage exactly where the code counts as one.',
  'lapse-incomplete': 'State both what {code} turns into and after how many days, or neither.',
  'lapse-unknown': '{lapsesInto} is neither a label of a scale nor another code.',
  'first-day-without-date': 'A code that needs the first day of the period needs a last date.',
  'earns-untried': 'A code that earns credit also attempts it.',
};

/** Which field of a code the fault belongs to. */
export const codeFaultFields: Record<CodeFaultCode, string> = {
  'code-empty': 'code',
  'code-twice': 'code',
  'code-is-label': 'code',
  'percent-to-count-missing': 'countsAs',
  'lapse-incomplete': 'lapsesInto',
  'lapse-unknown': 'lapsesInto',
  'first-day-without-date': 'needsFirstDay',
  'earns-untried': 'earnsCredit',
};

/** What is wrong with a code and what would be right, for people. */
export function codeFaultSentence({ code, data }: CodeFault): string {
  return formatMessage(sentences[code], data);
}
