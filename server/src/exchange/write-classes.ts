import { sql } from 'drizzle-orm';
import { extension, isTeaching, sectionNumberOf, type ExchangeRow } from '#core/exchange';
import type { Queries } from '#server/platform';
import { inPieces, type Writing } from './writing.js';

export async function writeClasses(writing: Writing): Promise<void> {
  const { queries, ids, files, of } = writing;
  const teachers = new Map(
    (files.enrollments ?? [])
      .filter((row) => isTeaching('enrollments', row) && row['status'] !== 'tobedeleted')
      .toSorted((a, b) => Number(b['primary'] === 'true') - Number(a['primary'] === 'true'))
      .toReversed()
      .map((row) => [row['classSourcedId'], ids.people.get(row['userSourcedId'] ?? '')]),
  );
  const rowOf = (row: ExchangeRow, id: number | undefined, number: number | undefined) => {
    const schoolId = ids.of('school', row['schoolSourcedId']);
    return {
      id,
      courseId: ids.of('course', row['courseSourcedId']),
      number,
      teacherId: teachers.get(row['sourcedId']) ?? null,
      periodId: ids.of('period', row['termSourcedIds'], schoolId),
      startsOn: row[extension('startsOn')] || null,
      endsOn: row[extension('endsOn')] || null,
    };
  };
  const shape = sql`(id int, "courseId" int, number int, "teacherId" int, "periodId" int, "startsOn" date, "endsOn" date)`;
  const created = of('classes', 'new');
  const given = await ids.give(
    'section',
    created.map(({ sourcedId }) => ({ sourcedId: sourcedId! })),
  );
  const taken = await numbersOf(queries);
  const added = created.map((row, at) => {
    const plain = rowOf(row, given[at], undefined);
    return { ...plain, number: taken(plain, sectionNumberOf(row)) };
  });
  await inPieces(added, (piece) =>
    queries.execute(sql`
    INSERT INTO sections (id, course_id, number, teacher_id, period_id, starts_on, ends_on)
    SELECT n.id, n."courseId", n.number, n."teacherId", n."periodId", n."startsOn", n."endsOn"
    FROM jsonb_to_recordset(${piece}::jsonb) AS n ${shape}`),
  );
  const changed = of('classes', 'changed').map((row) =>
    rowOf(row, ids.of('section', row['sourcedId']), Number(row[extension('number')]) || undefined),
  );
  await inPieces(changed, (piece) =>
    queries.execute(sql`
    UPDATE sections s SET course_id = n."courseId", period_id = n."periodId", number = coalesce(n.number, s.number),
      starts_on = coalesce(n."startsOn", s.starts_on), ends_on = coalesce(n."endsOn", s.ends_on)
    FROM jsonb_to_recordset(${piece}::jsonb) AS n ${shape} WHERE s.id = n.id`),
  );
}

/** The number a section asks for, or the next free one of its course in its period. */
async function numbersOf(queries: Queries) {
  const { rows } = await queries.execute<{ key: string; number: number }>(sql`
    SELECT course_id || '|' || period_id AS key, number FROM sections`);
  const taken = new Map<string, Set<number>>();
  for (const { key, number } of rows) taken.set(key, (taken.get(key) ?? new Set()).add(number));
  return (
    { courseId, periodId }: { courseId: number | undefined; periodId: number | undefined },
    asked: number | undefined,
  ) => {
    const own = taken.get(`${courseId}|${periodId}`) ?? new Set<number>();
    let number = asked ?? 1;
    while (own.has(number)) number++;
    taken.set(`${courseId}|${periodId}`, own.add(number));
    return number;
  };
}
