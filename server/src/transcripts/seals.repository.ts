import { Injectable } from '@nestjs/common';
import { and, asc, eq, ilike, or, sql } from 'drizzle-orm';
import type { TranscriptEntry } from '#core/transcripts';
import type { SchoolPeriod } from '#server/calendar';
import { gradedIn } from '#server/period-view';
import { entryOfReply, replyOfEntry } from '#contract/transcripts';
import { intArray, personName, Refusal, tables, type Queries, studentNumber, spokenName } from '#server/platform';
import type { StudentEntry } from './transcript-entries.js';

const { people, periods, schools, seals, transcriptEntries } = tables;

@Injectable()
export class SealsRepository {
  async ofPeriod(queries: Queries, periodId: number) {
    const [seal] = await queries
      .select({
        id: seals.id,
        sealedAt: seals.sealedAt,
        entryCount: seals.entryCount,
        sealedBy: spokenName,
      })
      .from(seals)
      .innerJoin(people, eq(people.id, seals.sealedBy))
      .where(eq(seals.periodId, periodId));
    return seal;
  }

  /** Nobody seals the period or saves a seal of it until the transaction ends. */
  async lockPeriod(queries: Queries, periodId: number): Promise<void> {
    await queries.execute(sql`SELECT id FROM periods WHERE id = ${periodId} FOR UPDATE`);
  }

  async add(queries: Queries, seal: typeof seals.$inferInsert, entries: readonly StudentEntry[]): Promise<number> {
    const [added] = await queries.insert(seals).values(seal).returning({ id: seals.id });
    const rows = entries.map(({ entry, ...keys }) => ({ ...replyOfEntry(entry), ...keys }));
    await queries.execute(sql`
      INSERT INTO transcript_entries (seal_id, student_id, enrollment_id, item_id, course_code, course_title, level,
                                      percent, mark, points, passes, credits_tried, credits_earned, counts_in_gpa,
                                      most_credits)
      SELECT ${added!.id}, "studentId", "enrollmentId", "itemId", "courseCode", "courseTitle", level,
             percent, mark, points, passes, "creditsTried", "creditsEarned", "countsInGpa",
             "mostCredits"
      FROM jsonb_to_recordset(${JSON.stringify(rows)}::jsonb) AS r
           ("studentId" int, "enrollmentId" int, "itemId" int, "courseCode" text, "courseTitle" text, level text,
            percent numeric, mark text, points numeric, passes bool, "creditsTried" numeric, "creditsEarned" numeric,
            "countsInGpa" bool, "mostCredits" numeric)`);
    return added!.id;
  }

  /** A student's sealed lines by period, oldest period first. */
  async sealedOf(queries: Queries, studentId: number) {
    const rows = await queries
      .select({ entry: transcriptEntries, periodId: periods.id, name: periods.name, sealedAt: seals.sealedAt })
      .from(transcriptEntries)
      .innerJoin(seals, eq(seals.id, transcriptEntries.sealId))
      .innerJoin(periods, eq(periods.id, seals.periodId))
      .where(eq(transcriptEntries.studentId, studentId))
      .orderBy(asc(periods.startsOn), asc(transcriptEntries.courseTitle));
    const byPeriod = new Map<number, { periodId: number; name: string; sealedAt: Date; entries: TranscriptEntry[] }>();
    for (const { entry, ...period } of rows) {
      const group = byPeriod.get(period.periodId) ?? { ...period, entries: [] };
      group.entries.push(entryOfRow(entry));
      byPeriod.set(period.periodId, group);
    }
    return [...byPeriod.values()];
  }

  /** The sealed lines of many students, oldest period first. */
  async entriesOf(queries: Queries, studentIds: readonly number[]): Promise<ReadonlyMap<number, TranscriptEntry[]>> {
    const rows = await queries
      .select({ entry: transcriptEntries, studentId: transcriptEntries.studentId })
      .from(transcriptEntries)
      .innerJoin(seals, eq(seals.id, transcriptEntries.sealId))
      .innerJoin(periods, eq(periods.id, seals.periodId))
      .where(sql`${transcriptEntries.studentId} = ANY(${intArray(studentIds)})`)
      .orderBy(asc(periods.startsOn), asc(transcriptEntries.courseTitle));
    const byStudent = new Map<number, TranscriptEntry[]>();
    for (const { entry, studentId } of rows) {
      const own = byStudent.get(studentId);
      if (own) own.push(entryOfRow(entry));
      else byStudent.set(studentId, [entryOfRow(entry)]);
    }
    return byStudent;
  }

  /** How many grades each student lacks that a period's sheets ask for. */
  async blanksOf(
    queries: Queries,
    period: SchoolPeriod,
    sheets: readonly { readonly itemId: number; readonly sectionId: number }[],
  ): Promise<ReadonlyMap<number, number>> {
    const { rows } = await queries.execute<{ id: number; blanks: number }>(sql`
      SELECT e.student_id AS id, count(*)::int AS blanks
      FROM jsonb_to_recordset(${JSON.stringify(sheets)}::jsonb) AS sheet ("itemId" int, "sectionId" int)
      JOIN enrollments e ON e.section_id = sheet."sectionId"
      LEFT JOIN grades g ON g.enrollment_id = e.id AND g.item_id = sheet."itemId" AND g.period_id = ${period.id}
      WHERE coalesce(g.percent::text, g.label, g.code) IS NULL AND ${gradedIn(period)}
      GROUP BY e.student_id`);
    return new Map(rows.map(({ id, blanks }) => [id, blanks]));
  }

  /** @throws Refusal not-found */
  async studentOrThrow(queries: Queries, id: number) {
    const [student] = await queries
      .select({ ...studentColumns, birthDate: people.birthDate, schoolId: people.schoolId, school: schools.name })
      .from(people)
      .innerJoin(schools, eq(schools.id, people.schoolId))
      .where(and(eq(people.id, id), eq(people.kind, 'student')));
    if (!student) throw new Refusal('not-found', { what: 'student', id });
    return student;
  }

  /** Students of a school whose name or number holds the text, by name. */
  students(queries: Queries, schoolId: number, text: string) {
    const pattern = `%${text.replace(/[\\%_]/g, '\\$&')}%`;
    return queries
      .select(studentColumns)
      .from(people)
      .where(
        and(
          eq(people.schoolId, schoolId),
          eq(people.kind, 'student'),
          or(
            ilike(spokenName, pattern),
            ilike(sql`${people.preferredName} || ' ' || ${people.familyName}`, pattern),
            ilike(personName, pattern),
            ilike(people.sourcedId, pattern),
            ilike(people.number, pattern),
            ilike(people.email, pattern),
          ),
        ),
      )
      .orderBy(asc(people.familyName), asc(people.givenName), asc(people.id));
  }
}

const studentColumns = {
  id: people.id,
  name: personName,
  studentNumber,
  yearGroup: sql<string>`coalesce(${people.yearGroup}, '')`,
};

function entryOfRow({
  courseCode,
  courseTitle,
  level,
  percent,
  mark,
  points,
  passes,
  creditsTried,
  creditsEarned,
  countsInGpa,
  mostCredits,
  enrollmentId: attempt,
}: typeof transcriptEntries.$inferSelect): TranscriptEntry {
  const course = { courseCode, courseTitle, level, mostCredits };
  const grade = { percent, mark, points, passes, creditsTried, creditsEarned, countsInGpa, attempt };
  return entryOfReply({ ...course, ...grade });
}
