import { sql } from 'drizzle-orm';
import { extension, sectionNumberOf, type ExchangeRow } from '#core/exchange';
import type { Queries } from '#server/platform';
import { inPieces, type Writing } from './writing.js';

export async function writeClasses(writing: Writing): Promise<void> {
  const { queries, ids, teachers, of } = writing;
  const rowOf = (row: ExchangeRow, id: number | undefined) => {
    const schoolId = ids.of('school', row['schoolSourcedId']);
    return {
      id,
      courseId: ids.of('course', row['courseSourcedId'], schoolId),
      teacherId: ids.people.get(teachers.get(row['sourcedId']!) ?? '') ?? null,
      periodId: ids.of('period', row['termSourcedIds'], schoolId),
      startsOn: row[extension('startsOn')] || null,
      endsOn: row[extension('endsOn')] || null,
      seats: Number(row[extension('seats')]) || null,
    };
  };
  const shape = sql`(id int, "courseId" int, number int, "teacherId" int, "periodId" int, "startsOn" date, "endsOn" date, seats int)`;
  const created = of('classes', 'new');
  const given = await ids.give(
    'section',
    created.map(({ sourcedId }) => ({ sourcedId: sourcedId! })),
  );
  const changed = of('classes', 'changed').map((row) => ({
    ...rowOf(row, ids.of('section', row['sourcedId'])),
    asked: Number(row[extension('number')]) || undefined,
  }));
  const numberOf = await numbersOf(
    queries,
    changed.map(({ id }) => id!),
  );
  const added = created.map((row, at) => {
    const plain = rowOf(row, given[at]);
    return { ...plain, number: numberOf(plain, sectionNumberOf(row)) };
  });
  await inPieces(added, (piece) =>
    queries.execute(sql`
    INSERT INTO sections (id, course_id, number, teacher_id, period_id, starts_on, ends_on, seats)
    SELECT n.id, n."courseId", n.number, n."teacherId", n."periodId", n."startsOn", n."endsOn", n.seats
    FROM jsonb_to_recordset(${piece}::jsonb) AS n ${shape}`),
  );
  const moved = changed.map(({ asked, ...row }) => ({ ...row, number: numberOf(row, asked) }));
  await inPieces(moved, (piece) =>
    queries.execute(sql`
    UPDATE sections s SET course_id = n."courseId", period_id = n."periodId", number = n.number,
      starts_on = coalesce(n."startsOn", s.starts_on), ends_on = coalesce(n."endsOn", s.ends_on),
      seats = coalesce(n.seats, s.seats)
    FROM jsonb_to_recordset(${piece}::jsonb) AS n ${shape} WHERE s.id = n.id`),
  );
}

interface Section {
  readonly id: number | undefined;
  readonly courseId: number | undefined;
  readonly periodId: number | undefined;
}

/** The number that a section asks for or has, or else the next free one of its course in its period. */
async function numbersOf(queries: Queries, changing: readonly number[]) {
  const { rows } = await queries.execute<{ id: number; key: string; number: number }>(sql`
    SELECT id, course_id || '|' || period_id AS key, number FROM sections`);
  const isChanging = new Set(changing);
  const had = new Map(rows.map(({ id, number }) => [id, number]));
  const taken = new Map<string, Set<number>>();
  for (const { id, key, number } of rows)
    if (!isChanging.has(id)) taken.set(key, (taken.get(key) ?? new Set()).add(number));
  return ({ id, courseId, periodId }: Section, asked: number | undefined) => {
    const own = taken.get(`${courseId}|${periodId}`) ?? new Set<number>();
    let number = asked ?? had.get(id ?? 0) ?? 1;
    while (own.has(number)) number++;
    taken.set(`${courseId}|${periodId}`, own.add(number));
    return number;
  };
}
