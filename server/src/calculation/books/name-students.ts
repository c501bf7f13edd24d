import { sql } from 'drizzle-orm';
import type { ValueEffectReply } from '#contract/calculation';
import { intArray, personName, tables, type Queries, studentNumber } from '#server/platform';

type ChangedStudent = ValueEffectReply['students'][number];

/** Whose value would change, as found by enrollment. */
interface Changed extends Omit<ChangedStudent, 'studentId' | 'student' | 'studentNumber'> {
  readonly enrollmentId: number;
}

/** Says who they are, in the order of their names. */
export async function nameStudents(queries: Queries, changed: readonly Changed[]): Promise<ChangedStudent[]> {
  if (changed.length === 0) return [];
  const { enrollments, people } = tables;
  const ids = changed.map(({ enrollmentId }) => enrollmentId);
  const rows = await queries
    .select({ id: enrollments.id, studentId: people.id, student: personName, studentNumber })
    .from(enrollments)
    .innerJoin(people, sql`${people.id} = ${enrollments.studentId}`)
    .where(sql`${enrollments.id} = ANY(${intArray(ids)})`);
  const names = new Map(rows.map(({ id, ...row }) => [id, row]));
  return changed
    .map(({ enrollmentId, ...change }) => ({ ...names.get(enrollmentId)!, ...change }))
    .toSorted((a, b) => a.student.localeCompare(b.student));
}
