import { sql } from 'drizzle-orm';
import { isTeacherOf, isTeaching, type ExchangeRow } from '#core/exchange';
import { inPieces, type Writing } from './writing.js';

export async function writeEnrollments(writing: Writing): Promise<void> {
  const { queries, ids, today, of } = writing;
  const rowOf = (row: ExchangeRow, id: number | undefined) => ({
    id,
    sectionId: ids.of('section', row['classSourcedId']),
    studentId: ids.people.get(row['userSourcedId'] ?? ''),
    enteredOn: row['beginDate']?.slice(0, 10) || null,
    withdrawnOn: row['endDate']?.slice(0, 10) || null,
  });
  const shape = sql`(id int, "sectionId" int, "studentId" int, "enteredOn" date, "withdrawnOn" date)`;
  const created = of('enrollments', 'new').filter((row) => !isTeaching('enrollments', row));
  const given = await ids.give(
    'enrollment',
    created.map(({ sourcedId }) => ({ sourcedId: sourcedId! })),
  );
  await inPieces(
    created.map((row, at) => rowOf(row, given[at])),
    (piece) =>
      queries.execute(sql`
    INSERT INTO enrollments (id, section_id, student_id, entered_on, withdrawn_on)
    SELECT n.id, n."sectionId", n."studentId", coalesce(n."enteredOn", s.starts_on, p.starts_on), n."withdrawnOn"
    FROM jsonb_to_recordset(${piece}::jsonb) AS n ${shape} JOIN sections s ON s.id = n."sectionId" JOIN periods p ON p.id = s.period_id`),
  );
  const changed = of('enrollments', 'changed').map((row) => rowOf(row, undefined));
  await inPieces(changed, (piece) =>
    queries.execute(sql`
    UPDATE enrollments e SET entered_on = coalesce(n."enteredOn", e.entered_on), withdrawn_on = n."withdrawnOn"
    FROM jsonb_to_recordset(${piece}::jsonb) AS n ${shape}
    WHERE e.section_id = n."sectionId" AND e.student_id = n."studentId"`),
  );
  await writeTeaching(writing);
  const ended = of('enrollments', 'delete')
    .filter((row) => !isTeaching('enrollments', row))
    .map((row) => ({ ...rowOf(row, undefined), withdrawnOn: row['endDate'] || today }));
  await inPieces(ended, (piece) =>
    queries.execute(sql`
    UPDATE enrollments e SET withdrawn_on = coalesce(e.withdrawn_on, n."withdrawnOn")
    FROM jsonb_to_recordset(${piece}::jsonb) AS n ${shape}
    WHERE e.section_id = n."sectionId" AND e.student_id = n."studentId"`),
  );
}

/** Who teaches a section, and who teach it too: the rows say all of them that they name, and leave the others. */
async function writeTeaching({ queries, ids, teachers, of }: Writing): Promise<void> {
  const rowOf = (row: ExchangeRow) => ({
    sectionId: ids.of('section', row['classSourcedId']),
    personId: ids.people.get(row['userSourcedId'] ?? ''),
  });
  const shape = sql`("sectionId" int, "personId" int)`;
  const teaching = of('enrollments', 'new', 'changed').filter((row) => isTeaching('enrollments', row));
  await inPieces(teaching.filter((row) => isTeacherOf(row, teachers)).map(rowOf), (piece) =>
    queries.execute(sql`
    UPDATE sections s SET teacher_id = n."personId" FROM jsonb_to_recordset(${piece}::jsonb) AS n ${shape} WHERE s.id = n."sectionId"`),
  );
  await inPieces(teaching.filter((row) => !isTeacherOf(row, teachers)).map(rowOf), (piece) =>
    queries.execute(sql`
    INSERT INTO section_co_teachers (section_id, person_id)
    SELECT n."sectionId", n."personId" FROM jsonb_to_recordset(${piece}::jsonb) AS n ${shape}
    WHERE NOT EXISTS (SELECT 1 FROM section_co_teachers c WHERE c.section_id = n."sectionId" AND c.person_id = n."personId")`),
  );
  const stopped = of('enrollments', 'delete').filter((row) => isTeaching('enrollments', row));
  await inPieces(stopped.map(rowOf), (piece) =>
    queries.execute(sql`
    DELETE FROM section_co_teachers c USING jsonb_to_recordset(${piece}::jsonb) AS n ${shape}
    WHERE c.section_id = n."sectionId" AND c.person_id = n."personId"`),
  );
  // Nobody is a co-teacher of what they teach.
  await queries.execute(sql`
    DELETE FROM section_co_teachers c USING sections s WHERE s.id = c.section_id AND s.teacher_id = c.person_id`);
}
