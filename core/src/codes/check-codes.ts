import type { SpecialCode } from './special-code.js';

export type CodeFaultCode =
  | 'code-empty'
  | 'code-twice'
  | 'code-is-label'
  | 'percent-to-count-missing'
  | 'lapse-incomplete'
  | 'lapse-unknown'
  | 'first-day-without-date'
  | 'earns-untried';

/** What is wrong with the list of codes, by the place of the code in it. */
export interface CodeFault {
  readonly code: CodeFaultCode;
  readonly index: number;
  readonly data: Readonly<Record<string, string>>;
}

/**
 * The faults of a list of codes. A code must not read like a label of any scale, as what is typed could then mean either;
 * `labels` are the labels of all scales.
 */
export function checkCodes(codes: readonly SpecialCode[], labels: readonly string[]): CodeFault[] {
  const known = new Set(labels.map(folded));
  return codes.flatMap((each, index) => {
    const faults: CodeFaultCode[] = [];
    const { code, asPart, countsAs, lapsesInto, lapsesAfterDays } = each;
    if (code.trim() === '') faults.push('code-empty');
    else if (codes.findIndex((other) => folded(other.code) === folded(code)) < index) faults.push('code-twice');
    else if (known.has(folded(code))) faults.push('code-is-label');
    if ((asPart === 'counts') !== (countsAs !== null)) faults.push('percent-to-count-missing');
    if ((lapsesInto === null) !== (lapsesAfterDays === null)) faults.push('lapse-incomplete');
    else if (lapsesInto !== null && !lapsesSomewhere(codes, each, known)) faults.push('lapse-unknown');
    if (each.needsFirstDay && !each.needsLastDate) faults.push('first-day-without-date');
    if (each.earnsCredit && !each.triesCredit) faults.push('earns-untried');
    return faults.map((fault) => ({ code: fault, index, data: { code, lapsesInto: lapsesInto ?? '' } }));
  });
}

/** Into a label of a scale or another code, never into itself. */
function lapsesSomewhere(codes: readonly SpecialCode[], own: SpecialCode, labels: ReadonlySet<string>): boolean {
  const target = folded(own.lapsesInto!);
  return labels.has(target) || codes.some((other) => other !== own && folded(other.code) === target);
}

function folded(text: string): string {
  return text.trim().toUpperCase();
}
