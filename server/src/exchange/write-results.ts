import { sql } from 'drizzle-orm';
import { flagOf, type ExchangeRow } from '#core/exchange';
import { inPieces, type Writing } from './writing.js';

export async function writeResults({ queries, ids, of }: Writing): Promise<void> {
  const rowOf = (row: ExchangeRow) => ({
    assignmentId: ids.of('assignment', row['lineItemSourcedId']),
    studentId: ids.people.get(row['studentSourcedId'] ?? ''),
    points: row['score'] || null,
    flag: flagOf(row),
  });
  const taken = of('results', 'delete').map((row) => ({ ...rowOf(row), points: null, flag: null }));
  await inPieces([...of('results', 'new', 'changed').map(rowOf), ...taken], (piece) =>
    queries.execute(sql`
    INSERT INTO scores (assignment_id, enrollment_id, points, flag)
    SELECT n."assignmentId", e.id, n.points, n.flag
    FROM jsonb_to_recordset(${piece}::jsonb) AS n ("assignmentId" int, "studentId" int, points numeric, flag text)
    JOIN assignments a ON a.id = n."assignmentId" JOIN enrollments e ON e.section_id = a.section_id AND e.student_id = n."studentId"
    ON CONFLICT (assignment_id, enrollment_id) DO UPDATE SET points = excluded.points, flag = excluded.flag, version = scores.version + 1`),
  );
}
