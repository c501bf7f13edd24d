import type { SpecialCode } from './special-code.js';

/** A code that only stands in the label's place: no percent, no credit, not in the GPA, shown on the transcript. */
export function newCode(code: string, meaning: string, effects: Partial<SpecialCode> = {}): SpecialCode {
  return {
    code,
    meaning,
    isOff: false,
    asPart: 'missing',
    countsAs: null,
    isFailing: false,
    forbidsPercent: true,
    needsLastDate: false,
    needsFirstDay: false,
    lapsesInto: null,
    lapsesAfterDays: null,
    triesCredit: false,
    earnsCredit: false,
    countsInGpa: false,
    onTranscript: true,
    ...effects,
  };
}
