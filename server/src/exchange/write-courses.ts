import { sql } from 'drizzle-orm';
import { extension, listOf, type ExchangeRow } from '#core/exchange';
import { inPieces, type Writing } from './writing.js';

export async function writeCourses({ queries, ids, files, of }: Writing): Promise<void> {
  // A course of the whole district belongs to the school of its first class.
  const ofClass = new Map(
    (files.classes ?? []).toReversed().map((row) => [row['courseSourcedId'], row['schoolSourcedId']]),
  );
  const [first] = (files.orgs ?? []).flatMap((row) => ids.of('school', row['sourcedId']) ?? []);
  const own = (row: ExchangeRow, name: string) => row[extension(name)] || null;
  const rowOf = (row: ExchangeRow, id: number | undefined) => ({
    id,
    schoolId: ids.of('school', row['orgSourcedId']) ?? ids.of('school', ofClass.get(row['sourcedId'])) ?? first,
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
  });
  const shape = sql`(id int, "schoolId" int, code text, title text, department text, kind text, level text, length text,
    credits numeric, "mostCredits" numeric, "onTranscript" boolean, "countsInGpa" boolean)`;
  const created = of('courses', 'new');
  const given = await ids.give(
    'course',
    created.map(({ sourcedId }) => ({ sourcedId: sourcedId! })),
  );
  await inPieces(
    created.map((row, at) => rowOf(row, given[at])),
    (piece) =>
      queries.execute(sql`
    INSERT INTO courses (id, school_id, code, title, department, kind, level, length, credits, most_credits, on_transcript, counts_in_gpa)
    SELECT n.id, n."schoolId", n.code, n.title, coalesce(n.department, 'General'), coalesce(n.kind, ''), coalesce(n.level, 'regular'),
           coalesce(n.length, 'year'), n.credits, n."mostCredits", n."onTranscript", n."countsInGpa"
    FROM jsonb_to_recordset(${piece}::jsonb) AS n ${shape}`),
  );
  await inPieces(
    of('courses', 'changed').map((row) => rowOf(row, ids.of('course', row['sourcedId']))),
    (piece) =>
      queries.execute(sql`
    UPDATE courses c SET title = n.title, code = n.code, department = coalesce(n.department, c.department),
      kind = coalesce(n.kind, c.kind), level = coalesce(n.level, c.level), length = coalesce(n.length, c.length),
      credits = coalesce(n.credits, c.credits), most_credits = coalesce(n."mostCredits", c.most_credits),
      on_transcript = coalesce(n."onTranscript", c.on_transcript), counts_in_gpa = coalesce(n."countsInGpa", c.counts_in_gpa),
      version = c.version + 1
    FROM jsonb_to_recordset(${piece}::jsonb) AS n ${shape} WHERE c.id = n.id`),
  );
}
