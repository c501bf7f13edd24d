import {
  countOutcomes,
  isWritten,
  type ColumnDoubt,
  type ColumnProposal,
  type FileStatus,
  type RowOutcome,
} from '#core/files';
import type { FileImportReply, FilePlanReply, FileRowReply } from '#contract/files';
import { listed } from '#contract/messages';
import type { Watched } from '../runs/use-time-left';

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
  'unknown section': { name: 'unknown section', tone: 'blocks' },
  'not reported': { name: 'not reported', tone: 'warns' },
  label: { name: 'a label', tone: 'warns' },
  'not in section': { name: 'not in the section', tone: 'warns' },
  withdrawn: { name: 'withdrawn', tone: 'warns' },
  'out of range': { name: 'out of range', tone: 'blocks' },
  unreadable: { name: 'not a percentage', tone: 'blocks' },
  twice: { name: 'twice in the file', tone: 'blocks' },
};

/** Why a value is left out, in words; empty for values that are not. */
export function reasonWords({
  outcome,
  value,
  sameAs,
  givenSection,
}: Pick<FileRowReply, 'outcome' | 'value' | 'sameAs' | 'givenSection'>): string {
  switch (outcome) {
    case 'unknown':
      return 'No student in the district has this number or e-mail.';
    case 'unknown section':
      return givenSection ? `No section is called “${givenSection}”.` : 'No section is named.';
    case 'not in section':
      return 'A student of the district, but not of this section.';
    case 'not reported':
      return 'This section does not report the item.';
    case 'withdrawn':
      return 'Has left the section and is not graded.';
    case 'out of range':
      return `${value} is not between 0 and 200.`;
    case 'label':
      return `“${value}” is a label or a code; files bring percentages.`;
    case 'unreadable':
      return `“${value}” is not a percentage such as 86.4.`;
    case 'twice':
      return `The same student is in row ${listed(sameAs.map(String))}; neither is used.`;
    case 'blank':
      return 'No total yet.';
    default:
      return '';
  }
}

/** How many values a plan would write; none where there is no plan. */
export function writesOf(plan: FilePlanReply | null): number {
  return plan ? countOutcomes(plan, isWritten) : 0;
}

/** What is being done with a file. */
export const fileWorkWords: Readonly<Record<FileStatus, string>> = {
  reading: 'Reading',
  refused: 'Refused',
  read: 'Read',
  planning: 'Planning',
  planned: 'Planned',
  accepting: 'Writing',
  accepted: 'Accepted',
  undoing: 'Undoing',
  undone: 'Undone',
};

type FileWork = Pick<FileImportReply, 'id' | 'status' | 'stepsDone' | 'stepCount'>;

/** How much of the work on a file is done; empty where that is not known. */
export function shareDone({ stepsDone, stepCount }: Pick<FileWork, 'stepsDone' | 'stepCount'>): string {
  return stepCount === 0 ? '' : `${Math.floor((100 * stepsDone) / stepCount)} %`;
}

/** The work on a file as something to be watched. */
export function workOfFile(file: FileWork | undefined): Omit<Watched, 'at'> {
  return file
    ? { work: `file ${file.id} ${file.status}`, done: file.stepsDone, total: file.stepCount }
    : { work: null, done: 0, total: 0 };
}

/** Why a column of percentages was proposed for nothing. */
export const doubtWords: Record<ColumnDoubt['code'], string> = {
  otherPeriod: 'it is named after another period',
  alike: 'another column may be meant as well',
  values: 'its values are not grades out of 100',
  withheld: 'its name says that it is not final',
  unnamed: 'nothing in its name says what it is for',
};

/** Why a column was proposed. */
export function proposalWords({ reason }: ColumnProposal): string {
  switch (reason.code) {
    case 'earlier':
      return `as in ${reason.fileName}, which has the same columns`;
    case 'sections-known':
      return `${reason.known} of ${reason.rows} name sections we know`;
    case 'named-as-item':
      return `headed like it, percentages in ${reason.percents} of ${reason.rows} rows`;
    case 'ids-known':
      return `${reason.known} of ${reason.rows} are students we know`;
    case 'name-and-percents':
      return `headed “${reason.word}”, percentages in ${reason.percents} of ${reason.rows} rows`;
    case 'percents':
      return `percentages in ${reason.percents} of ${reason.rows} rows`;
  }
}
