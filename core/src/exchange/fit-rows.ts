import { listOf } from './check-rows.js';
import { climbOf } from './climb.js';
import { extension, type ExchangeFile, type ExchangeRow, type ExchangeRows } from './exchange-format.js';
import { keyFields, keyOf } from './held-fields.js';
import { gradesOf } from './translate.js';

/** A delta may say of a row that goes only its id; what it is of is known here. */
export function withKeys(files: ExchangeRows, here: ExchangeRows): ExchangeRows {
  const found = (file: 'enrollments' | 'results') => {
    const rows = files[file];
    if (!rows) return {};
    const ours = new Map((here[file] ?? []).map((row) => [row['sourcedId'], row]));
    const fields = keyFields[file]!;
    const whole = rows.map((row) => {
      const isIdAlone = row['status'] === 'tobedeleted' && fields.every((field) => !row[field]);
      const own = isIdAlone ? ours.get(row['sourcedId']) : undefined;
      return own ? { ...own, ...Object.fromEntries(Object.entries(row).filter(([, value]) => value !== '')) } : row;
    });
    return { [file]: whole };
  };
  return { ...files, ...found('enrollments'), ...found('results') };
}

/** The session that a section runs through here: of several terms of a class the innermost one that holds them all. */
export function termsOf(sessions: readonly ExchangeRow[]): (row: ExchangeRow) => string {
  const climb = climbOf(sessions);
  const known = new Set(sessions.map(({ sourcedId }) => sourcedId));
  return (row) => {
    const terms = listOf(row['termSourcedIds'] ?? '');
    if (terms.length < 2 || terms.some((term) => !known.has(term))) return row['termSourcedIds'] ?? '';
    const lines = terms.map(climb);
    return lines[0]!.find((id) => lines.every((line) => line.includes(id))) ?? terms[0]!;
  };
}

/** Whether a result is of somebody in the class of its line item. */
export function enrolledIn(files: ExchangeRows, here: ExchangeRows): (result: ExchangeRow) => boolean {
  const classOf = new Map(
    [...(here.lineItems ?? []), ...(files.lineItems ?? [])].map((row) => [row['sourcedId'], row['classSourcedId']]),
  );
  const enrolled = new Set(
    [...(here.enrollments ?? []), ...(files.enrollments ?? [])]
      .filter(({ role }) => role === 'student')
      .map((row) => keyOf('enrollments', row)),
  );
  return ({ lineItemSourcedId, studentSourcedId = '' }) => {
    const classSourcedId = classOf.get(lineItemSourcedId) ?? '';
    return enrolled.has(keyOf('enrollments', { classSourcedId, userSourcedId: studentSourcedId }));
  };
}

export function knownIds(...all: readonly ExchangeRows[]): Partial<Record<ExchangeFile, Set<string>>> {
  const known: Partial<Record<ExchangeFile, Set<string>>> = {};
  for (const rows of all)
    for (const file of Object.keys(rows) as ExchangeFile[]) {
      const ids = (known[file] ??= new Set());
      for (const { sourcedId } of rows[file] ?? []) ids.add(sourcedId!);
    }
  return known;
}

/** What is here with what comes over it, row by row; without results, which nothing else refers to and are most of all. */
export function together(here: ExchangeRows, files: ExchangeRows): ExchangeRows {
  const names = [...new Set([...Object.keys(here), ...Object.keys(files)])] as ExchangeFile[];
  const rowsOf = (file: ExchangeFile) => {
    const rows = new Map((here[file] ?? []).map((row) => [keyOf(file, row), row]));
    for (const row of files[file] ?? []) {
      const own = rows.get(keyOf(file, row));
      rows.set(keyOf(file, row), own ? { ...own, ...row } : row);
    }
    return [...rows.values()];
  };
  return Object.fromEntries(names.filter((file) => file !== 'results').map((file) => [file, rowsOf(file)]));
}

/** A row in the words in which it would go out from here, so that what means the same is taken for the same. */
export function asHeld(file: ExchangeFile, row: ExchangeRow, termOf: (row: ExchangeRow) => string): ExchangeRow {
  switch (file) {
    case 'users':
      return { ...row, ...(row['grades'] !== undefined && { grades: gradesOf(row['grades']) }) };
    case 'courses':
      return { ...row, ...(row['subjects'] !== undefined && { subjects: listOf(row['subjects'])[0] ?? '' }) };
    case 'classes':
      return { ...row, ...(row['termSourcedIds'] !== undefined && { termSourcedIds: termOf(row) }) };
    case 'results': {
      const word = (['missing', 'incomplete', 'late'] as const).find((each) => row[each]?.toLowerCase() === 'true');
      return row[extension('flag')] === undefined && word ? { ...row, [extension('flag')]: word } : row;
    }
    default:
      return row;
  }
}
