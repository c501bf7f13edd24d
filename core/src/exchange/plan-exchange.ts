import { checkRow, listOf, type ExchangeFault } from './check-rows.js';
import { filesOf, type ExchangeFile, type ExchangeRow, type ExchangeRows } from './exchange-format.js';
import {
  completed,
  extension,
  heldFields,
  isStated,
  keyOf,
  lastStays,
  rolesByUser,
  teachersOf,
  whyNotHeld,
} from './held-fields.js';
import type { Manifest } from './read-manifest.js';
import { readScoreScale } from './score-scale.js';

/** What taking a zip in would do with a row. "left" is what Wombat holds nothing of, such as a guardian. */
export const exchangeOutcomes = ['new', 'changed', 'same', 'delete', 'left', 'refuse'] as const;
export type ExchangeOutcome = (typeof exchangeOutcomes)[number];

/** Whether taking a row of that outcome in writes anything. */
export function isTaking(outcome: ExchangeOutcome): boolean {
  return outcome === 'new' || outcome === 'changed' || outcome === 'delete';
}

export interface PlannedExchangeRow {
  readonly file: ExchangeFile;
  /** Line of the file's table; the head is line 1. */
  readonly line: number;
  readonly outcome: ExchangeOutcome;
  readonly row: ExchangeRow;
  readonly faults: readonly ExchangeFault[];
  /** Fields that differ from what is here. */
  readonly changes: readonly string[];
}

/**
 * Decides every row of a zip against what is here, written in the same form: what would be exported now. Two rows with one
 * id are both refused, as which of them is right is not for us to choose; and so is what refers to a refused row. What would
 * change a sealed period is refused row by row.
 * @param sealed ids of the sessions that are sealed here
 */
export function planExchange(
  manifest: Manifest,
  files: ExchangeRows,
  here: ExchangeRows,
  sealed: ReadonlySet<string> = new Set(),
): PlannedExchangeRow[] {
  const zip = withOneTerm(withClasses(files, here), here);
  const known = knownIds(zip, here);
  const context = {
    teachers: new Map([...teachersOf(here.enrollments ?? []), ...teachersOf(zip.enrollments ?? [])]),
    stays: lastStays(zip.enrollments ?? []),
    district: [...(here.orgs ?? []), ...(zip.orgs ?? [])].find(({ type }) => type === 'district')?.['sourcedId'],
  };
  const isInSealed = sealedRows(zip, here, sealed);
  const roles = rolesByUser(zip, here);
  const isEnrolled = enrolledIn(zip, here);
  const schools = new Set(
    [...(here.orgs ?? []), ...(zip.orgs ?? [])]
      .filter(({ type }) => type === 'school')
      .map(({ sourcedId }) => sourcedId),
  );
  // A course of the whole district has the school of its classes here.
  const isOtherSchool = ({ orgSourcedId }: ExchangeRow, own: ExchangeRow) =>
    schools.has(orgSourcedId) && orgSourcedId !== own['orgSourcedId'];
  return filesOf(manifest.version).flatMap((file) => {
    const rows = zip[file] ?? [];
    const counts = new Map<string, number>();
    for (const { sourcedId = '' } of rows) counts.set(sourcedId, (counts.get(sourcedId) ?? 0) + 1);
    const ours = new Map((here[file] ?? []).map((row) => [keyOf(file, row), row]));
    const faultsOf = (row: ExchangeRow, isGoing: boolean, own: ExchangeRow | undefined): ExchangeFault[] => {
      const faults = checkRow(file, manifest.version, manifest.modes[file], row, known);
      const add = (field: string, says: string) => faults.push({ field, says });
      const count = counts.get(row['sourcedId'] ?? '')!;
      if (count > 1) add('sourcedId', `the file has ${count} rows with this id`);
      if (file === 'courses' && own !== undefined && isOtherSchool(row, own))
        add('orgSourcedId', 'a course stays with its school; there it is another course');
      if (isGoing) return faults;
      if (file === 'classes' && !context.teachers.has(row['sourcedId'] ?? ''))
        add('sourcedId', 'no teacher is enrolled in the class; every section has one');
      if (file === 'scoreScales' && !readScoreScale(row['scoreScaleValue'] ?? ''))
        add('scoreScaleValue', 'no labels with their lowest percentages, such as {A:90-100},{B:80-89}');
      if (file === 'results' && !isEnrolled(row))
        add('studentSourcedId', 'the student is not enrolled in the class of the line item');
      return faults;
    };
    const planned = rows.map((row, at): PlannedExchangeRow => {
      const isGoing = row['status'] === 'tobedeleted';
      const own = ours.get(keyOf(file, row));
      const decided = (
        outcome: ExchangeOutcome,
        faults: readonly ExchangeFault[] = none,
        changes: readonly string[] = none,
      ) => ({ file, line: at + 2, row, outcome, faults, changes });
      const faults = faultsOf(row, isGoing, own);
      if (faults.length > 0) return decided('refuse', faults);
      const left = whyNotHeld(file, row, roles, context);
      if (left !== undefined) return decided('left', [left]);
      // What roles say is read with the users they are of.
      if (file === 'roles') return decided('same');
      if (isGoing) return { ...decided('same'), ...deletion(file, own) };
      if (!own) return decided('new');
      const changes = heldFields(file, row).filter(
        (field) => isStated(row, field) && !sameValue(row[field]!, own[field] ?? ''),
      );
      if (changes.length === 0) return decided('same');
      if (file === 'scoreScales') return decided('left', [nextVersion]);
      return { ...decided('changed', none, changes), row: completed(row, own) };
    });
    for (const { outcome, row } of planned) if (outcome === 'refuse') known[file]?.delete(row['sourcedId'] ?? '');
    // What is sealed stays as it is here, and so others may refer to it.
    return planned.map((each) =>
      isInSealed(each) ? { ...each, outcome: 'refuse' as const, faults: [sealedFault(file)] } : each,
    );
  });
}

/** Shared by all rows that nothing is wrong with. */
const none: readonly never[] = [];

/** Whether a row would change what a sealed period rests on: its days, its line items or their results. */
function sealedRows(
  files: ExchangeRows,
  here: ExchangeRows,
  sealed: ReadonlySet<string>,
): (planned: PlannedExchangeRow) => boolean {
  const sessions = (here.academicSessions ?? []).filter(({ sourcedId }) => sealed.has(sourcedId!));
  const schoolOf = new Map(
    [...(here.classes ?? []), ...(files.classes ?? [])].map((row) => [row['sourcedId'], row['schoolSourcedId']]),
  );
  const isInDays = ({ dueDate, classSourcedId }: ExchangeRow) => {
    const day = (dueDate ?? '').slice(0, 10);
    const school = schoolOf.get(classSourcedId);
    return sessions.some(
      (session) =>
        session[extension('school')] === school && session['startDate']! <= day && day <= session['endDate']!,
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
  return ({ file, outcome, row, changes }) => {
    if (!isTaking(outcome)) return false;
    if (file === 'academicSessions')
      return (
        sealed.has(row['sourcedId'] ?? '') && changes.some((field) => field === 'startDate' || field === 'endDate')
      );
    if (file === 'lineItems') return lineItems.has(row['sourcedId'] ?? '');
    return file === 'results' && lineItems.has(row['lineItemSourcedId'] ?? '');
  };
}

function sealedFault(file: ExchangeFile): ExchangeFault {
  return file === 'academicSessions'
    ? { field: 'startDate', says: 'the period is sealed; its days stay as they are' }
    : { field: 'status', says: 'its period is sealed; a sealed grade changes only by amendment' };
}

/** What is posted keeps the cut-offs it was posted with. */
const nextVersion: ExchangeFault = {
  field: 'scoreScaleValue',
  says: 'a changed scale is its next version, which is made under Scales with what it would do',
};

/** A delta may say of an enrollment that goes only its id. */
function withClasses(files: ExchangeRows, here: ExchangeRows): ExchangeRows {
  if (!files.enrollments) return files;
  const ours = new Map((here.enrollments ?? []).map((row) => [row['sourcedId'], row]));
  const enrollments = files.enrollments.map((row) => {
    const own = row['classSourcedId'] ? undefined : ours.get(row['sourcedId']);
    return own
      ? {
          ...own,
          ...row,
          classSourcedId: own['classSourcedId']!,
          userSourcedId: own['userSourcedId']!,
          role: own['role']!,
        }
      : row;
  });
  return { ...files, enrollments };
}

/** A section runs through one period here: of several terms the innermost session that holds them all. */
function withOneTerm(files: ExchangeRows, here: ExchangeRows): ExchangeRows {
  if (!files.classes) return files;
  const parents = new Map(
    [...(here.academicSessions ?? []), ...(files.academicSessions ?? [])].map((row) => [
      row['sourcedId']!,
      row['parentSourcedId'] ?? '',
    ]),
  );
  const line = (id: string): string[] => {
    const ids: string[] = [];
    for (let at: string | undefined = id; at && !ids.includes(at); at = parents.get(at)) ids.push(at);
    return ids;
  };
  const classes = files.classes.map((row) => {
    const terms = listOf(row['termSourcedIds'] ?? '');
    if (terms.length < 2 || terms.some((term) => !parents.has(term))) return row;
    const common = line(terms[0]!).find((id) => terms.every((term) => line(term).includes(id)));
    return { ...row, termSourcedIds: common ?? terms[0]! };
  });
  return { ...files, classes };
}

function enrolledIn(files: ExchangeRows, here: ExchangeRows): (result: ExchangeRow) => boolean {
  const classOf = new Map(
    [...(here.lineItems ?? []), ...(files.lineItems ?? [])].map((row) => [row['sourcedId'], row['classSourcedId']]),
  );
  const enrolled = new Set(
    [...(here.enrollments ?? []), ...(files.enrollments ?? [])]
      .filter(({ role }) => role === 'student')
      .map((row) => keyOf('enrollments', row)),
  );
  return ({ lineItemSourcedId, studentSourcedId }) =>
    enrolled.has(`${classOf.get(lineItemSourcedId)}|${studentSourcedId}`);
}

/** Wombat keeps what grades hang on: only these go, and only from the lists that are worked with. */
const goes: readonly ExchangeFile[] = ['enrollments', 'lineItems', 'results'];

function deletion(file: ExchangeFile, own: ExchangeRow | undefined): Pick<PlannedExchangeRow, 'outcome' | 'faults'> {
  if (!own) return { outcome: 'same', faults: [] };
  if (goes.includes(file)) return { outcome: 'delete', faults: [] };
  const says = 'grades and transcripts hang on it, so it stays; end its enrollments instead';
  return { outcome: 'left', faults: [{ field: 'status', says }] };
}

function knownIds(...all: readonly ExchangeRows[]): Partial<Record<ExchangeFile, Set<string>>> {
  const known: Partial<Record<ExchangeFile, Set<string>>> = {};
  for (const rows of all)
    for (const file of Object.keys(rows) as ExchangeFile[]) {
      const ids = (known[file] ??= new Set());
      for (const { sourcedId } of rows[file] ?? []) ids.add(sourcedId!);
    }
  return known;
}

/** Numbers are the same however many digits they are written with. */
function sameValue(one: string, other: string): boolean {
  if (one === other) return true;
  const isNumber = /^-?\d+(\.\d+)?$/;
  return isNumber.test(one) && isNumber.test(other) && Number(one) === Number(other);
}
