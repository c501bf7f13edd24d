import { compareDecimals, type Percent } from '#core/numbers';
import { readExportedPercent } from './read-exported-percent.js';
import { foldKey, type Directory, type RosterEntry } from './roster.js';

/** What accepting the file would do with a row; only "new" and "changed" write anything. */
export const rowOutcomes = [
  'new',
  'changed',
  'same',
  'blank',
  'unknown',
  'not in section',
  'withdrawn',
  'out of range',
  'unreadable',
  'twice',
] as const;
export type RowOutcome = (typeof rowOutcomes)[number];

/** A row of the file as it was read. */
export interface FileRow {
  /** Line of the table, 1 for the first of the file. */
  readonly row: number;
  readonly id: string;
  readonly value: string;
}

export interface PlannedRow extends FileRow {
  readonly outcome: RowOutcome;
  readonly enrollmentId: number | null;
  /** The name we know the person by, empty when unknown. */
  readonly name: string;
  readonly before: Percent | null;
  readonly after: Percent | null;
  /** The other rows with the same id, for "twice". */
  readonly sameAs: readonly number[];
}

/**
 * Decides every row, without writing. A person who is in the file twice is not written at all, from either row: which
 * of the two is right is not for us to choose.
 */
export function planImport(rows: readonly FileRow[], directory: Directory): PlannedRow[] {
  const people = rows.map((row) => personKey(row, directory));
  const rowsByPerson = new Map<string | number, number[]>();
  rows.forEach(({ row }, at) => {
    const person = people[at];
    if (person === undefined) return;
    const known = rowsByPerson.get(person);
    if (known) known.push(row);
    else rowsByPerson.set(person, [row]);
  });
  return rows.map((row, at) => {
    const person = people[at];
    const all = person === undefined ? [] : rowsByPerson.get(person)!;
    return planRow(row, directory, all.length > 1 ? all.filter((other) => other !== row.row) : []);
  });
}

/** A number and an e-mail of the same student are one person: the enrollment. Others are who the file says they are. */
function personKey(row: FileRow, { roster }: Directory): string | number | undefined {
  const key = foldKey(row.id);
  return key === '' ? undefined : (roster.get(key)?.enrollmentId ?? key);
}

function planRow(row: FileRow, { roster, others }: Directory, sameAs: readonly number[]): PlannedRow {
  const key = foldKey(row.id);
  const entry = roster.get(key);
  const plan = (outcome: RowOutcome, after: Percent | null = null): PlannedRow => ({
    row: row.row,
    id: row.id,
    value: row.value,
    outcome,
    enrollmentId: entry?.enrollmentId ?? null,
    name: entry?.name ?? others.get(key) ?? '',
    before: entry?.computed ?? null,
    after,
    sameAs,
  });
  if (!entry) return plan(others.has(key) ? 'not in section' : 'unknown');
  if (sameAs.length > 0) return plan('twice');
  if (entry.withdrawnOn !== null) return plan('withdrawn');
  const read = readExportedPercent(row.value);
  if (read.kind === 'blank') return plan('blank');
  if (read.kind === 'percent') return plan(change(entry, read.percent), read.percent);
  return plan(read.code === 'percent-negative' || read.code === 'percent-too-high' ? 'out of range' : 'unreadable');
}

function change({ computed }: RosterEntry, percent: Percent): RowOutcome {
  if (computed === null) return 'new';
  return compareDecimals(computed, percent) === 0 ? 'same' : 'changed';
}
