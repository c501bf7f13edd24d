import { sql } from 'drizzle-orm';
import { isTeaching, type ExchangeRow } from '#core/exchange';
import { inPieces, type Writing } from './writing.js';

export async function writeEnrollments({ queries, ids, today, of }: Writing): Promise<void> {
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
  const teaching = of('enrollments', 'new')
    .filter((row) => isTeaching('enrollments', row))
    .map((row) => rowOf(row, undefined));
  await inPieces(teaching, (piece) =>
    queries.execute(sql`
    UPDATE sections s SET teacher_id = n."studentId" FROM jsonb_to_recordset(${piece}::jsonb) AS n ${shape} WHERE s.id = n."sectionId"`),
  );
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
