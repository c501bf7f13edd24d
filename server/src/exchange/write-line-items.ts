import { sql } from 'drizzle-orm';
import { extension, listOf, type ExchangeRow } from '#core/exchange';
import { inPieces, type Writing } from './writing.js';

export async function writeLineItems({ queries, ids, of }: Writing): Promise<void> {
  const { rows: sections } = await queries.execute<{ id: number; schoolId: number }>(sql`
    SELECT s.id, c.school_id AS "schoolId" FROM sections s JOIN courses c ON c.id = s.course_id`);
  const schoolOf = new Map(sections.map(({ id, schoolId }) => [id, schoolId]));
  const { rows: members } = await queries.execute<{ key: string; id: number }>(sql`
    SELECT e.section_id || '|' || p.sourced_id AS key, e.id FROM enrollments e JOIN people p ON p.id = e.student_id`);
  const enrollmentOf = new Map(members.map(({ key, id }) => [key, id]));
  const said = (row: ExchangeRow, name: string) => row[extension(name)] || null;
  const rowOf = (row: ExchangeRow, id: number | undefined) => {
    const sectionId = ids.of('section', row['classSourcedId']);
    const schoolId = schoolOf.get(sectionId ?? 0);
    const students = listOf(said(row, 'students') ?? '').flatMap(
      (each) => enrollmentOf.get(`${sectionId}|${each}`) ?? [],
    );
    return {
      id,
      sectionId,
      periodId: ids.of('period', row['gradingPeriodSourcedId'] || row['academicSessionSourcedId'], schoolId) ?? null,
      categoryId: ids.of('category', row['categorySourcedId'], schoolId),
      name: row['title'],
      possible: row['resultValueMax'] || '0',
      dueOn: row['dueDate']!.slice(0, 10),
      isExtra: said(row, 'extra'),
      isCounted: said(row, 'counted'),
      isPublished: said(row, 'published'),
      givenTo: students.length > 0 ? students.toSorted((a, b) => a - b) : null,
    };
  };
  const shape = sql`(id int, "sectionId" int, "periodId" int, "categoryId" int, name text, possible numeric, "dueOn" date,
    "isExtra" boolean, "isCounted" boolean, "isPublished" boolean, "givenTo" jsonb)`;
  // Without a grading period it is the innermost period of the school that the due date lies in.
  const period = sql`coalesce(n."periodId", (SELECT p.id FROM periods p JOIN sections s ON s.id = n."sectionId"
    JOIN courses c ON c.id = s.course_id WHERE p.school_id = c.school_id AND n."dueOn" BETWEEN p.starts_on AND p.ends_on
    ORDER BY p.ends_on - p.starts_on LIMIT 1), (SELECT s.period_id FROM sections s WHERE s.id = n."sectionId"))`;
  const created = of('lineItems', 'new');
  const given = await ids.give(
    'assignment',
    created.map(({ sourcedId }) => ({ sourcedId: sourcedId! })),
  );
  await inPieces(
    created.map((row, at) => rowOf(row, given[at])),
    (piece) =>
      queries.execute(sql`
    INSERT INTO assignments (id, section_id, period_id, category_id, name, possible, due_on, is_extra, is_counted, is_published, given_to)
    SELECT n.id, n."sectionId", ${period}, n."categoryId", n.name, n.possible, n."dueOn", coalesce(n."isExtra", false),
           coalesce(n."isCounted", true), coalesce(n."isPublished", true), nullif(n."givenTo", 'null'::jsonb)
    FROM jsonb_to_recordset(${piece}::jsonb) AS n ${shape}`),
  );
  await inPieces(
    of('lineItems', 'changed').map((row) => rowOf(row, ids.of('assignment', row['sourcedId']))),
    (piece) =>
      queries.execute(sql`
    UPDATE assignments a SET period_id = ${period}, category_id = n."categoryId", name = n.name, possible = n.possible,
      due_on = n."dueOn", is_extra = coalesce(n."isExtra", a.is_extra), is_counted = coalesce(n."isCounted", a.is_counted),
      is_published = coalesce(n."isPublished", a.is_published), given_to = nullif(n."givenTo", 'null'::jsonb), version = a.version + 1
    FROM jsonb_to_recordset(${piece}::jsonb) AS n ${shape} WHERE a.id = n.id`),
  );
  const gone = of('lineItems', 'delete').map((row) => ({ id: ids.of('assignment', row['sourcedId']) }));
  // One with scores stays and no longer counts: nothing that somebody scored is lost.
  await inPieces(gone, (piece) =>
    queries.execute(sql`
    UPDATE assignments a SET is_counted = false, version = a.version + 1
    FROM jsonb_to_recordset(${piece}::jsonb) AS n (id int) WHERE a.id = n.id`),
  );
}
