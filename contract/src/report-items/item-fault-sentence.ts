import type { ItemFault, ItemFaultCode } from '#core/report-items';
import { formatMessage } from '#contract/messages';

const sentences: Record<ItemFaultCode, string> = {
  'course-without-transcript-item': '{course} is on transcripts but reports nothing that goes there.',
  'transcript-items-overlap':
    '{course} would write the same credit twice: {other} and {item} both go to the transcript.',
  'part-not-reported': '{item} of {course} needs {part}, which the course does not report.',
  'part-period-missing': '{item} of {period} needs {part} of {kind} {ordinal} in it, where it is not posted.',
  'item-without-scale': '{course} reports {item}, but no scale is in force for it: a percentage would get no label.',
  'course-without-credits': '{course} counts in the GPA and is on transcripts, but carries no credits.',
  'weights-not-100': 'The weights add up to {total}; they must make exactly 100.',
  'weight-not-positive': 'A weight is {weight}; each must be above 0.',
  'composite-without-parts': '{item} is made of parts but has none.',
  'composite-cycle': '{item} would be a part of itself: {through}.',
  'part-twice': '{part}, {ordinal} is listed twice as a part of {item}; give it one weight.',
  'part-unknown': 'A part of {item} is an item that is not there.',
  'item-nowhere': '{item} is posted in periods that {year} does not have.',
  'comment-label-unknown': '{label} is no label of the scale of {item}.',
};

/** What is wrong with the report items, for people. */
export function itemFaultSentence({ code, data }: ItemFault): string {
  return formatMessage(sentences[code], data);
}
