import { wholeText } from '#core/formats';
import { parseDay, type Day } from '#core/calendar';
import type { TheirAssignment, TheirResult, TheirTotal } from '#core/runs';
import { optionalText, textOf, type Row } from '#server/platforms';
import type { PlatformClient } from '#server/platforms';

/** The columns of a class with what stands in them. */
export interface ClassWork {
  readonly assignments: readonly TheirAssignment[];
  readonly totals: readonly TheirTotal[];
}

/**
 * What Assignment and Grade Services leave to the platform, under full names as that standard asks of extensions: whether
 * the teacher lets a column be sent, whether students see it, whether it is graded, to whom it was given, and a letter.
 */
const extension = {
  isMarked: 'https://wombat.example/line-item/sends',
  isPublished: 'https://wombat.example/line-item/published',
  isGraded: 'https://wombat.example/line-item/graded',
  givenTo: 'https://wombat.example/line-item/students',
  letter: 'https://wombat.example/result/letter',
} as const;

/** Columns asked about at the same time. */
const columnsAtOnce = 4;

/**
 * Reads the line items and results of one class in the form of LTI Assignment and Grade Services 2.0.
 * @param dayOf the day on which an instant falls in the district
 * @throws PlatformProblem naming the place where the platform could not be read
 */
export async function readClassWork(
  client: PlatformClient,
  classKey: string,
  dayOf: (instant: Date) => Day,
): Promise<ClassWork> {
  const columns = await client.list(`/ags/classes/${encodeURIComponent(classKey)}/lineitems`, null, ({ id }) => id);
  const results: Row[][] = [];
  for (let from = 0; from < columns.length; from += columnsAtOnce) {
    const some = columns.slice(from, from + columnsAtOnce);
    const read = some.map((column) => client.listBeneath(textOf(column, 'id'), '/results', ({ userId }) => userId));
    results.push(...(await Promise.all(read)));
  }
  const all = columns.map((column, at) => ({ column, results: results[at]!.map(resultOf) }));
  return {
    assignments: all
      .filter(({ column }) => column['tag'] !== 'total')
      .map(({ column, results: own }) => ({ ...assignmentOf(column, dayOf), results: own })),
    totals: all
      .filter(({ column }) => column['tag'] === 'total')
      .map(({ column, results: own }) => ({ key: textOf(column, 'id'), name: textOf(column, 'label'), results: own })),
  };
}

function assignmentOf(column: Row, dayOf: (instant: Date) => Day): Omit<TheirAssignment, 'results'> {
  const students = column[extension.givenTo];
  return {
    key: textOf(column, 'id'),
    name: optionalText(column, 'label') ?? '',
    possible: numberOf(column['scoreMaximum']),
    groupKey: optionalText(column, 'tag'),
    dueOn: dueOn(column['endDateTime'], dayOf),
    isMarked: column[extension.isMarked] !== false,
    isPublished: column[extension.isPublished] !== false,
    isGraded: column[extension.isGraded] !== false,
    givenTo: Array.isArray(students) ? students.map(String) : null,
  };
}

function resultOf(row: Row): TheirResult {
  return {
    personKey: textOf(row, 'userId'),
    points: numberOf(row['resultScore']),
    possible: numberOf(row['resultMaximum']),
    letter: optionalText(row, extension.letter),
  };
}

/** As plain text; what is no number is left as it came, for the plan to refuse. */
function numberOf(value: unknown): string | null {
  return value === null || value === undefined || value === ''
    ? null
    : wholeText(typeof value === 'string' ? value : JSON.stringify(value), 40);
}

/** A day that is written as such is taken as it is; an instant falls on the district's day. Null where it is neither. */
function dueOn(value: unknown, dayOf: (instant: Date) => Day): Day | null {
  if (typeof value !== 'string') return null;
  const day = parseDay(value);
  if (day) return day;
  const instant = new Date(value);
  return Number.isNaN(instant.getTime()) ? null : dayOf(instant);
}
