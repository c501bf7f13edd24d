import { markInWords, type SheetReceiptReply } from '#contract/posting';
import { counted, timeInWords } from '#contract/messages';

interface ReceiptsFacts {
  readonly to: string;
  /** In words. */
  readonly day: string;
  readonly receipts: readonly SheetReceiptReply[];
  /** The district's time zone. */
  readonly zone: string;
}

export function receiptsSubject({ day, receipts }: Pick<ReceiptsFacts, 'day' | 'receipts'>): string {
  const grades = receipts.reduce((sum, { changes }) => sum + changes.length, 0);
  return `${counted(grades, 'grade')} posted on ${day}`;
}

/** All receipts of a day, oldest first: who changed which grades, with what was and what is in columns. */
export function receiptsText({ to, day, receipts, zone }: ReceiptsFacts): string {
  const parts = receipts.toReversed().flatMap((receipt) => {
    const { section, item, period, savedBy, onBehalfOf, savedAt, changes } = receipt;
    const by = onBehalfOf ? `${savedBy} on behalf of ${onBehalfOf}` : savedBy;
    const rows = changes.map(({ student, before, after }) => [
      student,
      before ? markInWords(before) : '–',
      markInWords(after),
    ]);
    const width = (column: number) => Math.max(...rows.map((row) => row[column]!.length));
    const [name, was] = [width(0), width(1)];
    return [
      `${section}, ${item}, ${period}: ${timeInWords(savedAt, zone)}, ${by}`,
      ...rows.map(([student, before, after]) => `  ${student!.padEnd(name)}  ${before!.padEnd(was)}  ->  ${after}`),
      '',
    ];
  });
  return [`Dear ${to},`, '', `these grades were posted on ${day}, by you or on your behalf:`, '', ...parts].join(
    '\r\n',
  );
}
