import { sql } from 'drizzle-orm';
import { extension, listOf, type ExchangeRow } from '#core/exchange';
import { changedAtSchools, inPieces, missingAtSchools, type AtSchool, type Writing } from './writing.js';

/** A course becomes one of each school whose it is or whose classes take it. */
export async function writeCourses(writing: Writing): Promise<void> {
  const { queries, ids } = writing;
  const own = (row: ExchangeRow, name: string) => row[extension(name)] || null;
  const rowOf = ({ row, schoolId }: AtSchool, id: number) => ({
    id,
    schoolId,
    code: row['courseCode'] || row['sourcedId'],
    title: row['title'],
    department: listOf(row['subjects'] ?? '')[0] ?? null,
    kind: own(row, 'kind'),
    level: own(row, 'level'),
    length: own(row, 'length'),
    credits: own(row, 'credits'),
    mostCredits: own(row, 'mostCredits'),
    onTranscript: own(row, 'onTranscript'),
    countsInGpa: own(row, 'countsInGpa'),
    allowsExempt: own(row, 'allowsExempt'),
  });
  const shape = sql`(id int, "schoolId" int, code text, title text, department text, kind text, level text, length text,
    credits numeric, "mostCredits" numeric, "onTranscript" boolean, "countsInGpa" boolean, "allowsExempt" boolean)`;
  const changed = changedAtSchools(writing, 'courses', 'course').map((each) => rowOf(each, each.id));
  const created = missingAtSchools(writing, 'courses', 'course');
  const given = await ids.give(
    'course',
    created.map(({ row, schoolId }) => ({ sourcedId: row['sourcedId']!, schoolId })),
  );
  await inPieces(
    created.map((each, at) => rowOf(each, given[at]!)),
    (piece) =>
      queries.execute(sql`
    INSERT INTO courses (id, school_id, code, title, department, kind, level, length, credits, most_credits, on_transcript, counts_in_gpa,
      allows_exempt)
    SELECT n.id, n."schoolId", n.code, n.title, coalesce(n.department, 'General'), coalesce(n.kind, ''), coalesce(n.level, 'regular'),
           coalesce(n.length, 'year'), n.credits, n."mostCredits", n."onTranscript", n."countsInGpa", n."allowsExempt"
    FROM jsonb_to_recordset(${piece}::jsonb) AS n ${shape}`),
  );
  await inPieces(changed, (piece) =>
    queries.execute(sql`
    UPDATE courses c SET title = n.title, code = n.code, department = coalesce(n.department, c.department),
      kind = coalesce(n.kind, c.kind), level = coalesce(n.level, c.level), length = coalesce(n.length, c.length),
      credits = coalesce(n.credits, c.credits), most_credits = coalesce(n."mostCredits", c.most_credits),
      on_transcript = coalesce(n."onTranscript", c.on_transcript), counts_in_gpa = coalesce(n."countsInGpa", c.counts_in_gpa),
      allows_exempt = coalesce(n."allowsExempt", c.allows_exempt)
    FROM jsonb_to_recordset(${piece}::jsonb) AS n ${shape} WHERE c.id = n.id`),
  );
}
