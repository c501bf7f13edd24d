import type { RowOutcome } from '#core/transfer';
import type { ProposalReply } from '#contract/transfer';

/** What happens to a row, as its chip says it, and the colour it is said in. */
export const outcomeWords: Record<
  RowOutcome,
  { readonly name: string; readonly tone: 'so' | 'quiet' | 'warns' | 'blocks' }
> = {
  new: { name: 'new', tone: 'so' },
  changed: { name: 'changed', tone: 'so' },
  same: { name: 'same', tone: 'quiet' },
  blank: { name: 'blank', tone: 'quiet' },
  unknown: { name: 'unknown student', tone: 'blocks' },
  'not in section': { name: 'not in the section', tone: 'warns' },
  withdrawn: { name: 'withdrawn', tone: 'warns' },
  'out of range': { name: 'out of range', tone: 'blocks' },
  unreadable: { name: 'not a percent', tone: 'blocks' },
  twice: { name: 'twice in the file', tone: 'blocks' },
};

/** Why a row is left out, in words; empty for rows that are not. */
export function reasonWords(outcome: RowOutcome, value: string, sameAs: readonly number[]): string {
  switch (outcome) {
    case 'unknown':
      return 'Nobody in the district has this number or e-mail.';
    case 'not in section':
      return 'A student of the district, but not of this section.';
    case 'withdrawn':
      return 'Has left the section and takes no grade.';
    case 'out of range':
      return `${value.trim()} is not between 0 and 200.`;
    case 'unreadable':
      return `“${value.trim()}” is no percent, such as 86.4.`;
    case 'twice':
      return `The same student is in row ${sameAs.join(' and ')}; neither is taken.`;
    case 'blank':
      return 'No total yet.';
    default:
      return '';
  }
}

/** Why a column was proposed. */
export function proposalWords({ reason }: ProposalReply): string {
  switch (reason.code) {
    case 'earlier':
      return `as in ${reason.fileName}, which has the same columns`;
    case 'ids-known':
      return `${reason.known} of ${reason.rows} are students we know`;
    case 'name-and-percents':
      return `headed “${reason.word}”, percents in ${reason.percents} of ${reason.rows} rows`;
    case 'percents':
      return `percents in ${reason.percents} of ${reason.rows} rows`;
  }
}
