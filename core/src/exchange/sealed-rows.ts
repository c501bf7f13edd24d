import { listOf, type ExchangeFault } from './check-rows.js';
import { extension, type ExchangeFile, type ExchangeRow, type ExchangeRows } from './exchange-format.js';

/** Whether a row would change what a sealed period rests on: its days, its line items or their results. */
export function sealedRows(
  files: ExchangeRows,
  here: ExchangeRows,
  sealed: ReadonlySet<string>,
): (file: ExchangeFile, row: ExchangeRow, changes: readonly string[]) => boolean {
  const sessions = (here.academicSessions ?? []).filter(({ sourcedId }) => sealed.has(sourcedId!));
  const schoolOf = new Map(
    [...(here.classes ?? []), ...(files.classes ?? [])].map((row) => [row['sourcedId'], row['schoolSourcedId']]),
  );
  const isInDays = ({ dueDate, classSourcedId }: ExchangeRow) => {
    const day = (dueDate ?? '').slice(0, 10);
    const school = schoolOf.get(classSourcedId) ?? '';
    return sessions.some(
      (session) =>
        listOf(session[extension('school')] ?? '').includes(school) &&
        session['startDate']! <= day &&
        day <= session['endDate']!,
    );
  };
  const sessionOf = (row: ExchangeRow) => row['gradingPeriodSourcedId'] || row['academicSessionSourcedId'];
  const ours = new Map((here.lineItems ?? []).map((row) => [row['sourcedId']!, row]));
  const lineItems = new Set<string>();
  for (const [id, row] of ours) if (sealed.has(sessionOf(row) ?? '')) lineItems.add(id);
  for (const row of files.lineItems ?? []) {
    const session = sessionOf(row);
    const isSealed = session ? sealed.has(session) : !ours.has(row['sourcedId']!) && isInDays(row);
    if (isSealed) lineItems.add(row['sourcedId']!);
  }
  return (file, row, changes) => {
    if (file === 'academicSessions')
      return (
        sealed.has(row['sourcedId'] ?? '') && changes.some((field) => field === 'startDate' || field === 'endDate')
      );
    if (file === 'lineItems') return lineItems.has(row['sourcedId'] ?? '');
    return file === 'results' && lineItems.has(row['lineItemSourcedId'] ?? '');
  };
}

export function sealedFault(file: ExchangeFile): ExchangeFault {
  return file === 'academicSessions'
    ? { field: 'startDate', says: 'the period is sealed; its days stay as they are' }
    : { field: 'status', says: 'its period is sealed; a sealed grade changes only by amendment' };
}
