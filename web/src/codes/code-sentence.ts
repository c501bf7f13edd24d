import type { CodeBody } from '#contract/codes';
import { partWords } from '../scales/words';

/** The effects of a code in one sentence. */
export function codeSentence(code: CodeBody): string {
  const effects = [
    `in a composite it ${partWords[code.asPart]}${code.asPart === 'counts' ? ` ${(code.countsAs ?? '…').replace(/\.0+$/, '')} %` : ''}`,
    code.isFailing && 'fails',
    code.earnsCredit
      ? 'credit is attempted and earned'
      : code.triesCredit
        ? 'credit is attempted, not earned'
        : 'no credit is attempted',
    code.countsInGpa && 'counts in the GPA',
    !code.forbidsPercent && 'may be posted beside a percentage',
    code.needsFirstDay ? 'needs the first day of the period and no hours' : code.needsLastDate && 'needs a last date',
    code.lapsesInto && `turns into ${code.lapsesInto} after ${code.lapsesAfterDays ?? '…'} days`,
    !code.onTranscript && 'stays off the transcript',
    code.isOff && 'is switched off',
  ].filter((effect) => typeof effect === 'string');
  const sentence = effects.join('; ');
  return `${sentence[0]!.toUpperCase()}${sentence.slice(1)}.`;
}
