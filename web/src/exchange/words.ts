import {
  exchangeOutcomes,
  isTaking,
  type ExchangeFile,
  type ExchangeOutcome,
  type PlannedExchangeRow,
} from '#core/exchange';
import type { ExchangeImportReply, ExchangeSummaryReply } from '#contract/exchange';
import type { Watched } from '../runs/use-time-left';

export const fileNames: Record<ExchangeFile, string> = {
  orgs: 'Schools',
  academicSessions: 'Periods',
  users: 'People',
  roles: 'Roles',
  demographics: 'Dates of birth',
  courses: 'Courses',
  classes: 'Sections',
  enrollments: 'Enrollments',
  categories: 'Categories',
  lineItems: 'Assignments',
  results: 'Scores',
  scoreScales: 'Scales',
};

export const outcomeNames: Record<ExchangeOutcome, string> = {
  new: 'new',
  changed: 'changed',
  same: 'the same',
  delete: 'to be deleted',
  left: 'skipped',
  refuse: 'refused',
};

/** The colour in which each is said. */
export const outcomeInks: Record<ExchangeOutcome, string> = {
  new: 'text-eucalypt',
  changed: 'text-eucalypt',
  same: 'text-quiet',
  delete: 'text-wattle',
  left: 'text-quiet',
  refuse: 'text-waratah',
};

/** What a row is about, by the fields that people know. */
export function sayRow({ row }: PlannedExchangeRow): string {
  const { title, name, givenName, familyName, userSourcedId, classSourcedId, studentSourcedId, lineItemSourcedId } =
    row;
  if (familyName) return `${familyName}, ${givenName}`;
  const both = [userSourcedId ?? studentSourcedId, classSourcedId ?? lineItemSourcedId].filter(
    (id) => id !== undefined,
  );
  return title ?? name ?? (both.length > 0 ? both.join(' in ') : (row['sourcedId'] ?? ''));
}

/** Why a row is not taken, or what in it differs from what is here. */
export function sayWhy({ faults, changes, was, row }: PlannedExchangeRow): string {
  if (faults.length > 0) return faults.map(({ field, says }) => `${field}: ${says}.`).join(' ');
  return changes
    .map((field, at) => {
      const [before, after] = [was[at], row[field]];
      return `${field} becomes ${after ? `“${after}”` : 'empty'}${before ? `, was “${before}”` : ''}`;
    })
    .join('; ');
}

/** Rows of a zip that come to an outcome. */
export function rowsThat(outcome: ExchangeOutcome, { files }: Pick<ExchangeImportReply, 'files'>): number {
  return files.reduce((total, { counts }) => total + counts[outcome], 0);
}

/** Rows that importing writes, or wrote. */
export function rowsWritten(zip: Pick<ExchangeImportReply, 'files'>): number {
  return exchangeOutcomes.filter(isTaking).reduce((total, outcome) => total + rowsThat(outcome, zip), 0);
}

/** The writing of a zip as something to be watched. */
export function workOfZip(zip: ExchangeSummaryReply | undefined): Omit<Watched, 'at'> {
  if (zip?.status !== 'accepting') return { work: null, done: 0, total: 0 };
  return { work: `zip ${zip.id}`, done: zip.stepsDone, total: zip.stepCount };
}
