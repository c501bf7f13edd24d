import { checkRow, type ExchangeFault, type KnownIds } from './check-rows.js';
import { extension, type ExchangeFile, type ExchangeRow, type ExchangeRows } from './exchange-format.js';
import { enrolledIn } from './fit-rows.js';
import { betweenKeys, isStated, keyFields, keyOf } from './held-fields.js';
import type { Manifest } from './read-manifest.js';
import { readScoreScale } from './score-scale.js';
import { schoolOfOrg, statedSchools, type SchoolsUsing } from './schools-using.js';

/** What it takes to say what is wrong with a row. */
export interface FaultContext {
  readonly manifest: Manifest;
  readonly zip: ExchangeRows;
  readonly here: ExchangeRows;
  /** What will be here with the zip. */
  readonly all: ExchangeRows;
  readonly known: KnownIds;
  readonly teachers: ReadonlyMap<string, string>;
  readonly using: SchoolsUsing;
}

type Check = (row: ExchangeRow, own: ExchangeRow | undefined) => ExchangeFault | undefined;

/** What is wrong with a row of a file, field by field, also beside the other rows; `own` is the row as it is here. */
export function faultsOf(
  file: ExchangeFile,
  context: FaultContext,
): (row: ExchangeRow, own: ExchangeRow | undefined) => ExchangeFault[] {
  const { manifest, known } = context;
  const always = [twice(file, context), otherRow(file, context), otherPlace(file, context)];
  const unlessGoing = ownChecks(file, context);
  return (row, own) => {
    const checks = row['status'] === 'tobedeleted' ? always : [...always, ...unlessGoing];
    return [
      ...checkRow(file, manifest.version, manifest.modes[file], row, known),
      ...checks.flatMap((check) => check(row, own) ?? []),
    ];
  };
}

/** Two rows with one id, or about one thing, are both refused, as which of them is right is not for us to choose. */
function twice(file: ExchangeFile, { zip }: FaultContext): Check {
  const ids = countsOf((zip[file] ?? []).map(({ sourcedId }) => sourcedId ?? ''));
  const isKeyed = file === 'results';
  const keys = isKeyed ? countsOf((zip[file] ?? []).map((row) => keyOf(file, row))) : new Map<string, number>();
  return (row) => {
    const count = ids.get(row['sourcedId'] ?? '')!;
    if (count > 1) return { field: 'sourcedId', says: `the file has ${count} rows with this id` };
    const about = keys.get(keyOf(file, row)) ?? 0;
    if (isKeyed && about > 1)
      return { field: 'studentSourcedId', says: `the file has ${about} rows of this student for this line item` };
    return undefined;
  };
}

/** An id that is known here for something else. */
function otherRow(file: ExchangeFile, { here }: FaultContext): Check {
  if (!keyFields[file]) return () => undefined;
  const keys = new Map((here[file] ?? []).map((row) => [row['sourcedId'], keyOf(file, row)]));
  return (row) => {
    const known = keys.get(row['sourcedId']);
    if (known === undefined || known === keyOf(file, row)) return undefined;
    return { field: 'sourcedId', says: `the id is known here for ${known.replace(betweenKeys, ' and ')}` };
  };
}

/** Courses, sections and assignments stay where they are: what hangs on them would come along unasked. */
function otherPlace(file: ExchangeFile, { here }: FaultContext): Check {
  const schools = new Set((here.orgs ?? []).filter(({ type }) => type === 'school').map(({ sourcedId }) => sourcedId!));
  const schoolOf = schoolOfOrg(here.orgs ?? []);
  const moved = (field: string, says: string): Check => {
    return (row, own) => (own && row[field] && own[field] !== row[field] ? { field, says } : undefined);
  };
  if (file === 'classes') return moved('schoolSourcedId', 'a section stays at its school');
  if (file === 'lineItems') return moved('classSourcedId', 'an assignment stays in its class');
  if (file !== 'courses') return () => undefined;
  return (row, own) => {
    const school = schoolOf(row['orgSourcedId'] ?? '');
    if (!own || school === undefined || school === own['orgSourcedId']) return undefined;
    if (statedSchools(own, schools).includes(school)) return undefined;
    return { field: 'orgSourcedId', says: 'a course stays with its school; there it is another course' };
  };
}

function ownChecks(file: ExchangeFile, context: FaultContext): Check[] {
  const { zip, here, all, teachers, using } = context;
  switch (file) {
    case 'orgs':
      return [
        codeTaken(
          'identifier',
          (all.orgs ?? []).filter(({ type }) => type === 'school'),
          () => [''],
        ),
      ];
    case 'users':
      return [inOrder(extension('enteredOn'), extension('leftOn'))];
    case 'academicSessions':
      return [inOrder('startDate', 'endDate')];
    case 'courses':
      return [codeTaken('courseCode', all.courses ?? [], (row) => [...(using.courses.get(row['sourcedId']!) ?? [])])];
    case 'classes':
      return [
        inOrder(extension('startsOn'), extension('endsOn')),
        ({ sourcedId = '' }) =>
          teachers.has(sourcedId)
            ? undefined
            : { field: 'sourcedId', says: 'no teacher is enrolled in the class; every section has one' },
      ];
    case 'lineItems':
      return [
        (row, own) =>
          own || row['resultValueMax']
            ? undefined
            : { field: 'resultValueMax', says: 'it is blank, and a score has to be out of something' },
      ];
    case 'results': {
      const isEnrolled = enrolledIn(zip, here);
      return [
        (row) =>
          isEnrolled(row)
            ? undefined
            : { field: 'studentSourcedId', says: 'the student is not enrolled in the class of the line item' },
      ];
    }
    case 'scoreScales':
      return [
        (row) =>
          readScoreScale(row['scoreScaleValue'] ?? '')
            ? undefined
            : {
                field: 'scoreScaleValue',
                says: 'no labels with their lowest percentages, such as {A:90-100},{B:80-89}',
              },
        () =>
          (all.academicSessions ?? []).length > 0
            ? undefined
            : { field: 'sourcedId', says: 'a scale is used from a period on, and there is none yet' },
      ];
    default:
      return [];
  }
}

/** A code, or else the id, that another row of the place has; whose it was already keeps it. */
function codeTaken(
  field: string,
  rows: readonly ExchangeRow[],
  placesOf: (row: ExchangeRow) => readonly string[],
): Check {
  const keysOf = (row: ExchangeRow) =>
    placesOf(row).map((place) => `${place}|${(row[field] || row['sourcedId'])!.toLowerCase()}`);
  const owners = countsOf(rows.flatMap(keysOf));
  return (row, own) => {
    const isKept = own !== undefined && (own[field] || own['sourcedId']) === (row[field] || row['sourcedId']);
    if (isKept || !keysOf(row).some((key) => owners.get(key)! > 1)) return undefined;
    return { field, says: `"${row[field] || row['sourcedId']}" is the code of another one too` };
  };
}

/** What a row leaves unsaid stays what it is here, and has to be in order with what it says. */
function inOrder(first: string, last: string): Check {
  return (row, own) => {
    const [from, to] = [first, last].map((field) => (isStated(row, field) ? row[field] : own?.[field])?.slice(0, 10));
    return from && to && to < from ? { field: last, says: `${to} is before ${from}` } : undefined;
  };
}

function countsOf(words: readonly string[]): Map<string, number> {
  const counts = new Map<string, number>();
  for (const word of words) counts.set(word, (counts.get(word) ?? 0) + 1);
  return counts;
}
