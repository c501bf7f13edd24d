import { Injectable } from '@nestjs/common';
import { asc, eq, sql, type SQL } from 'drizzle-orm';
import { dayOrThrow } from '#core/calendar';
import type { OwnSection } from '#core/sections';
import { coTeachersOf, intArray, sectionName, tables, type Queries, type UseBy } from '#server/platform';

const { courses, sections } = tables;

export interface KeptSection extends OwnSection {
  readonly id: number;
  readonly name: string;
  readonly courseCode: string;
  /** Whether a roster brought it, by an id of its own. */
  readonly isOfRoster: boolean;
}

export interface SeatsTaken {
  /** Who sit in the section, or have sat. */
  readonly students: number;
  /** Who have not left it. */
  readonly staying: number;
}

/** What keeps a section from being removed. */
export const sectionUses: readonly UseBy[] = [
  ['enrollments', 'section_id', 'enrollment'],
  ['assignments', 'section_id', 'assignment'],
  ['categories', 'section_id', 'category'],
  ['calculation_policies', 'section_id', 'calculation of its own'],
  ['scale_placements', 'section_id', 'place where it is in force'],
  ['platform_classes', 'section_id', 'joined class'],
  ['receipts', 'section_id', 'receipt'],
  ['sign_offs', 'section_id', 'sign-off'],
  ['reminders', 'section_id', 'reminder'],
  ['registers', 'section_id', 'register'],
  ['posting_requests', 'section_id', 'request'],
  ['file_imports', 'section_id', 'file'],
];

/** Sections as a school keeps them. */
@Injectable()
export class OwnSectionsRepository {
  /** Those that run in one of some periods, by course and number. */
  ofPeriods(queries: Queries, periodIds: readonly number[]): Promise<KeptSection[]> {
    return this.where(queries, sql`${sections.periodId} = ANY(${intArray(periodIds)})`);
  }

  byIds(queries: Queries, ids: readonly number[]): Promise<KeptSection[]> {
    return this.where(queries, sql`${sections.id} = ANY(${intArray(ids)})`);
  }

  private async where(queries: Queries, condition: SQL): Promise<KeptSection[]> {
    const { id, courseId, number, teacherId, periodId, startsOn, endsOn, seats } = sections;
    const isOfRoster = sql<boolean>`EXISTS (SELECT 1 FROM sourced_ids i WHERE i.kind = 'section' AND i.our_id = ${id}
      AND i.sourced_id <> 'section-' || ${id})`;
    const rows = await queries
      .select({
        id,
        courseId,
        number,
        teacherId,
        coTeacherIds: coTeachersOf('sections'),
        periodId,
        startsOn,
        endsOn,
        seats,
        name: sectionName,
        courseCode: courses.code,
        isOfRoster,
      })
      .from(sections)
      .innerJoin(courses, eq(courses.id, courseId))
      .where(condition)
      .orderBy(asc(courses.title), asc(number), asc(id));
    return rows.map((row) => ({ ...row, startsOn: dayOrNull(row.startsOn), endsOn: dayOrNull(row.endsOn) }));
  }

  /** How many have a seat in each or had one, and how many of them have not left it. */
  async studentsIn(queries: Queries, ids: readonly number[]): Promise<ReadonlyMap<number, SeatsTaken>> {
    const { rows } = await queries.execute<{ id: number; students: number; staying: number }>(sql`
      SELECT section_id AS id, count(*)::int AS students, count(*) FILTER (WHERE withdrawn_on IS NULL)::int AS staying
      FROM enrollments WHERE section_id = ANY(${intArray(ids)}) GROUP BY 1`);
    return new Map(rows.map(({ id, ...taken }) => [id, taken]));
  }

  /** Of some sections, those in which grades are posted. */
  async withGrades(queries: Queries, ids: readonly number[]): Promise<ReadonlySet<number>> {
    const { rows } = await queries.execute<{ id: number }>(sql`
      SELECT DISTINCT e.section_id AS id FROM enrollments e JOIN grades g ON g.enrollment_id = e.id
      WHERE e.section_id = ANY(${intArray(ids)})`);
    return new Set(rows.map(({ id }) => id));
  }

  /** Whether the course and the period of each are of one school, and one of the staff teaches it. */
  async fitTogether(queries: Queries, kept: readonly OwnSection[]): Promise<boolean> {
    const { rows } = await queries.execute(sql`
      SELECT 1 FROM jsonb_to_recordset(${JSON.stringify(kept)}::jsonb) AS n ("courseId" int, "teacherId" int, "periodId" int)
      JOIN courses c ON c.id = n."courseId" JOIN people t ON t.id = n."teacherId" JOIN periods p ON p.id = n."periodId"
      WHERE t.kind <> 'staff' OR p.school_id <> c.school_id LIMIT 1`);
    const coTeachers = [...new Set(kept.flatMap(({ coTeacherIds }) => coTeacherIds))];
    const { rows: strangers } = await queries.execute(sql`
      SELECT 1 FROM unnest(${intArray(coTeachers)}) AS n (id) LEFT JOIN people p ON p.id = n.id AND p.kind = 'staff'
      WHERE p.id IS NULL LIMIT 1`);
    return rows.length === 0 && strangers.length === 0;
  }

  /** One that would have the number of another of its course in its period, which is none of the change; undefined where none would. */
  async takenBeside(
    queries: Queries,
    kept: readonly OwnSection[],
    changed: readonly number[],
  ): Promise<{ readonly number: number; readonly course: string } | undefined> {
    const { rows } = await queries.execute<{ number: number; course: string }>(sql`
      SELECT n.number, c.title AS course FROM jsonb_to_recordset(${JSON.stringify(kept)}::jsonb)
        AS n ("courseId" int, number int, "periodId" int)
      JOIN courses c ON c.id = n."courseId"
      JOIN sections s ON s.course_id = n."courseId" AND s.number = n.number AND s.period_id = n."periodId"
      WHERE NOT s.id = ANY(${intArray(changed)}) ORDER BY c.title, n.number LIMIT 1`);
    return rows[0];
  }

  /** Makes and changes sections; two may change numbers with each other. */
  async put(queries: Queries, kept: readonly (OwnSection & { readonly id: number })[]): Promise<void> {
    if (kept.length === 0) return;
    // For a moment none has a number that another one gets.
    await queries.execute(sql`UPDATE sections SET number = -id WHERE id = ANY(${intArray(kept.map(({ id }) => id))})`);
    await queries.execute(sql`
      INSERT INTO sections (id, course_id, number, teacher_id, period_id, starts_on, ends_on, seats)
      SELECT n.id, n."courseId", n.number, n."teacherId", n."periodId", n."startsOn", n."endsOn", n.seats
      FROM jsonb_to_recordset(${JSON.stringify(kept)}::jsonb)
        AS n (id int, "courseId" int, number int, "teacherId" int, "periodId" int, "startsOn" date, "endsOn" date,
          seats int)
      ON CONFLICT (id) DO UPDATE SET course_id = excluded.course_id, number = excluded.number,
        teacher_id = excluded.teacher_id, period_id = excluded.period_id, starts_on = excluded.starts_on,
        ends_on = excluded.ends_on, seats = excluded.seats`);
    await queries.execute(sql`
      DELETE FROM section_co_teachers WHERE section_id = ANY(${intArray(kept.map(({ id }) => id))})`);
    const taught = kept.flatMap(({ id, coTeacherIds }) => coTeacherIds.map((personId) => ({ id, personId })));
    await queries.execute(sql`
      INSERT INTO section_co_teachers (section_id, person_id)
      SELECT n.id, n."personId" FROM jsonb_to_recordset(${JSON.stringify(taught)}::jsonb) AS n (id int, "personId" int)`);
  }

  /** What was worked out for a section that nothing hangs on is nothing. */
  async remove(queries: Queries, ids: readonly number[]): Promise<void> {
    if (ids.length === 0) return;
    await queries.execute(sql`DELETE FROM stale_books WHERE section_id = ANY(${intArray(ids)})`);
    await queries.execute(sql`DELETE FROM sections WHERE id = ANY(${intArray(ids)})`);
  }
}

function dayOrNull(text: string | null) {
  return text === null ? null : dayOrThrow(text);
}
