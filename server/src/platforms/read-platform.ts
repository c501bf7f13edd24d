import { parseDay, type Day } from '#core/calendar';
import { gradebook, optionalText, rostering, textOf, type Row } from './answer-fields.js';
import type { PlatformClient } from './platform-client.js';
import { PlatformProblem } from './platform-problem.js';

/** All that is read of a platform before any of it is kept. Ids are the platform's. */
export interface PlatformSnapshot {
  readonly people: readonly {
    readonly sourcedId: string;
    readonly identifier: string | null;
    readonly email: string | null;
    readonly givenName: string;
    readonly familyName: string;
    /** Null where the platform has none, or what it has is no day. */
    readonly birthDate: Day | null;
  }[];
  readonly classes: readonly {
    readonly sourcedId: string;
    readonly title: string;
    readonly code: string | null;
    readonly term: string;
  }[];
  readonly members: readonly { readonly classId: string; readonly personId: string }[];
  readonly names: readonly {
    readonly kind: 'group' | 'total' | 'letter';
    readonly classId: string | null;
    readonly sourcedId: string;
    readonly name: string;
    readonly weight: number | null;
  }[];
}

/** Percent; more is no weight. */
const largestWeight = 1000;

/** Classes asked about at the same time; more would press a platform that others use too. */
const classesAtOnce = 4;

/**
 * Reads rosters and groups in the form of OneRoster 1.2, columns in that of LTI Assignment and Grade Services 2.0.
 * @throws PlatformProblem naming the place where the platform could not be read
 */
export async function readPlatform(
  client: PlatformClient,
  onProgress: (done: number, total: number) => Promise<void>,
): Promise<PlatformSnapshot> {
  const bySourcedId = ({ sourcedId }: Row) => sourcedId;
  const births = await client.list(`${rostering}/demographics`, 'demographics', bySourcedId);
  const birthDates = new Map(
    births.map((row) => [textOf(row, 'sourcedId'), parseDay(optionalText(row, 'birthDate') ?? '')]),
  );
  const people = (await client.list(`${rostering}/students`, 'users', bySourcedId)).map((row) => ({
    sourcedId: textOf(row, 'sourcedId'),
    identifier: optionalText(row, 'identifier'),
    email: optionalText(row, 'email'),
    givenName: textOf(row, 'givenName'),
    familyName: textOf(row, 'familyName'),
    birthDate: birthDates.get(textOf(row, 'sourcedId')) ?? null,
  }));
  const classes = (await client.list(`${rostering}/classes`, 'classes', bySourcedId)).map((row) => ({
    sourcedId: textOf(row, 'sourcedId'),
    title: textOf(row, 'title'),
    code: optionalText(row, 'classCode'),
    term: termOf(row),
  }));
  const scales = await client.list(`${gradebook}/scoreScales`, 'scoreScales', bySourcedId);
  const known = new Set(people.map(({ sourcedId }) => sourcedId));
  const members: { classId: string; personId: string }[] = [];
  const names = scales.flatMap(lettersOf);
  for (let from = 0; from < classes.length; from += classesAtOnce) {
    await onProgress(from, classes.length);
    const some = classes.slice(from, from + classesAtOnce);
    for (const read of await Promise.all(some.map(({ sourcedId }) => readClass(client, sourcedId)))) {
      const stranger = read.members.find(({ personId }) => !known.has(personId));
      if (stranger)
        throw new PlatformProblem(
          `Class ${stranger.classId} has a student "${stranger.personId}" whom the list of students lacks. Read the platform again.`,
        );
      members.push(...read.members);
      names.push(...read.names);
    }
  }
  return { people, classes, members, names };
}

async function readClass(client: PlatformClient, classId: string) {
  const at = encodeURIComponent(classId);
  const bySourcedId = ({ sourcedId }: Row) => sourcedId;
  const students = await client.list(`${rostering}/classes/${at}/students`, 'users', bySourcedId);
  const groups = await client.list(`${gradebook}/classes/${at}/categories`, 'categories', bySourcedId);
  const columns = await client.list(`/ags/classes/${at}/lineitems`, null, ({ id }) => id);
  return {
    members: students.map((row) => ({ classId, personId: textOf(row, 'sourcedId') })),
    names: [
      ...groups.map((row) => ({
        kind: 'group' as const,
        classId,
        sourcedId: textOf(row, 'sourcedId'),
        name: textOf(row, 'title'),
        weight: weightOf(row['weight']),
      })),
      ...columns
        .filter((row) => row['tag'] === 'total')
        .map((row) => ({
          kind: 'total' as const,
          classId,
          sourcedId: textOf(row, 'id'),
          name: textOf(row, 'label'),
          weight: null,
        })),
    ],
  };
}

/** Null where it is none. */
function weightOf(value: unknown): number | null {
  return typeof value === 'number' && value >= 0 && value <= largestWeight ? value : null;
}

function lettersOf(scale: Row): PlatformSnapshot['names'][number][] {
  const values = Array.isArray(scale['scoreScaleValue']) ? (scale['scoreScaleValue'] as Row[]) : [];
  return values.map((row) => {
    const letter = textOf(row, 'itemValueLHS');
    return {
      kind: 'letter',
      classId: null,
      sourcedId: `${textOf(scale, 'sourcedId')}/${letter}`,
      name: letter,
      weight: null,
    };
  });
}

function termOf(row: Row): string {
  const terms = Array.isArray(row['terms']) ? (row['terms'] as Row[]) : [];
  return terms.map((term) => optionalText(term, 'sourcedId') ?? '').join(', ');
}
