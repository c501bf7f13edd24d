import type { ExchangeRow } from './exchange-format.js';
import { isTeaching } from './held-fields.js';

/**
 * The teacher of every class after an import; the others who teach it are co-teachers. It is the primary one of the zip, else who
 * teaches it here and is in the zip too, else the first of the zip of whom it does not say that they are not primary, else who
 * teaches it here, else the first of the zip.
 */
export function teachersAfter(here: readonly ExchangeRow[], zip: readonly ExchangeRow[]): ReadonlyMap<string, string> {
  const teachers = new Map<string, string>();
  for (const row of here) if (saysPrimary(row, 'true')) teachers.set(classOf(row), userOf(row));
  for (const [at, rows] of teachingByClass(zip)) {
    const held = teachers.get(at);
    const active = rows.filter(({ status }) => status !== 'tobedeleted');
    const isGone = rows.some((row) => row['status'] === 'tobedeleted' && userOf(row) === held);
    const teacher =
      active.find((row) => saysPrimary(row, 'true')) ??
      active.find((row) => userOf(row) === held) ??
      active.find((row) => !saysPrimary(row, 'false')) ??
      (held === undefined || isGone ? active[0] : undefined);
    if (teacher) teachers.set(at, userOf(teacher));
  }
  return teachers;
}

function teachingByClass(rows: readonly ExchangeRow[]): ReadonlyMap<string, readonly ExchangeRow[]> {
  const byClass = new Map<string, ExchangeRow[]>();
  for (const row of rows)
    if (isTeaching('enrollments', row)) byClass.set(classOf(row), [...(byClass.get(classOf(row)) ?? []), row]);
  return byClass;
}

function saysPrimary(row: ExchangeRow, word: 'true' | 'false'): boolean {
  return isTeaching('enrollments', row) && row['primary']?.toLowerCase() === word;
}

const classOf = ({ classSourcedId = '' }: ExchangeRow) => classSourcedId;
const userOf = ({ userSourcedId = '' }: ExchangeRow) => userSourcedId;
