import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { intArray, personNameOf, sectionNameOf, type Queries } from '#server/platform';

/** A seat in one section that was left for one in another. */
export interface MovedSeat {
  readonly fromId: number;
  /** What stood as its day of withdrawal. */
  readonly before: string | null;
  readonly lastDay: string;
  readonly sectionId: number;
  readonly studentId: number;
  readonly enteredOn: string;
  /** Numbers of the posted grades that went along. */
  readonly grades: readonly number[];
  /** Assignments whose scores count in the new section, each with its like there. */
  readonly assignments: readonly (readonly [from: number, to: number])[];
}

/** A seat that somebody wants to leave. */
export interface LeftSeat {
  readonly id: number;
  readonly student: string;
  readonly studentId: number;
  readonly sectionId: number;
  readonly section: string;
  readonly enteredOn: string;
  readonly withdrawnOn: string | null;
}

interface Scored {
  readonly id: number;
  readonly name: string;
  readonly periodId: number;
  readonly points: string;
}

/** Seats that students move between, and what hangs on them. */
@Injectable()
export class MovedSeatsRepository {
  async byToIds(queries: Queries, ids: readonly number[]): Promise<ReadonlyMap<number, MovedSeat>> {
    const { rows } = await queries.execute<{ id: number; moved: MovedSeat }>(sql`
      SELECT to_id AS id, moved FROM moved_seats WHERE to_id = ANY(${intArray(ids)})`);
    return new Map(rows.map(({ id, moved }) => [id, moved]));
  }

  async seats(queries: Queries, ids: readonly number[]): Promise<LeftSeat[]> {
    const { rows } = await queries.execute<LeftSeat & Record<string, unknown>>(sql`
      SELECT e.id, ${personNameOf('p')} AS student, p.id AS "studentId", s.id AS "sectionId",
        ${sectionNameOf('c', 's')} AS section, e.entered_on::text AS "enteredOn", e.withdrawn_on::text AS "withdrawnOn"
      FROM enrollments e JOIN people p ON p.id = e.student_id JOIN sections s ON s.id = e.section_id
      JOIN courses c ON c.id = s.course_id WHERE e.id = ANY(${intArray(ids)}) ORDER BY 2, e.id`);
    return rows;
  }

  /** A section with the days it runs, and who has a seat in it; undefined where there is none. */
  async target(queries: Queries, sectionId: number) {
    const { rows } = await queries.execute<{
      name: string;
      courseId: number;
      startsOn: string;
      endsOn: string;
      students: number[];
    }>(sql`
      SELECT ${sectionNameOf('c', 's')} AS name, c.id AS "courseId", coalesce(s.starts_on, p.starts_on)::text AS "startsOn",
        coalesce(s.ends_on, p.ends_on)::text AS "endsOn",
        (SELECT coalesce(array_agg(student_id), '{}') FROM enrollments WHERE section_id = s.id) AS students
      FROM sections s JOIN courses c ON c.id = s.course_id JOIN periods p ON p.id = s.period_id WHERE s.id = ${sectionId}`);
    return rows[0];
  }

  /** Posted grades of seats in periods that are not sealed and end on a day or later. */
  async gradesFrom(queries: Queries, seatIds: readonly number[], day: string) {
    const { rows } = await queries.execute<{ id: number; enrollmentId: number; periodId: number }>(sql`
      SELECT g.id, g.enrollment_id AS "enrollmentId", g.period_id AS "periodId" FROM grades g JOIN periods p ON p.id = g.period_id
      WHERE g.enrollment_id = ANY(${intArray(seatIds)}) AND p.ends_on >= ${day}::date
        AND NOT EXISTS (SELECT 1 FROM seals l WHERE l.period_id = g.period_id) ORDER BY g.id`);
    return rows;
  }

  /** Assignments of sections in periods that are not sealed and end on a day or later. */
  async assignmentsFrom(queries: Queries, sectionId: number, day: string): Promise<Scored[]> {
    const { rows } = await queries.execute<Scored & Record<string, unknown>>(sql`
      SELECT a.id, a.name, a.period_id AS "periodId", a.possible::text AS points
      FROM assignments a JOIN periods p ON p.id = a.period_id
      WHERE a.section_id = ${sectionId} AND p.ends_on >= ${day}::date
        AND NOT EXISTS (SELECT 1 FROM seals l WHERE l.period_id = a.period_id) ORDER BY a.id`);
    return rows;
  }

  /** Which of some assignments each seat has a score for. */
  async scored(queries: Queries, seatIds: readonly number[], assignmentIds: readonly number[]) {
    const { rows } = await queries.execute<{ enrollmentId: number; assignmentId: number }>(sql`
      SELECT enrollment_id AS "enrollmentId", assignment_id AS "assignmentId" FROM scores
      WHERE enrollment_id = ANY(${intArray(seatIds)}) AND assignment_id = ANY(${intArray(assignmentIds)})`);
    return rows;
  }

  /** Whether anything hangs on a seat beside what it came with, or a period of that was sealed since. */
  async hasMore(queries: Queries, toId: number, { grades, assignments }: MovedSeat): Promise<boolean> {
    const { rows } = await queries.execute(sql`
      SELECT 1 FROM grades WHERE enrollment_id = ${toId} AND NOT id = ANY(${intArray(grades)})
      UNION ALL SELECT 1 FROM scores WHERE enrollment_id = ${toId}
        AND (version > 1 OR NOT assignment_id = ANY(${intArray(assignments.map(([, to]) => to))}))
      UNION ALL SELECT 1 FROM computed_grades WHERE enrollment_id = ${toId}
      UNION ALL SELECT 1 FROM transcript_entries WHERE enrollment_id = ${toId}
      UNION ALL SELECT 1 FROM moved_seats WHERE from_id = ${toId}
      UNION ALL SELECT 1 FROM grades g JOIN seals l ON l.period_id = g.period_id WHERE g.id = ANY(${intArray(grades)}) LIMIT 1`);
    return rows.length > 0;
  }

  async move(queries: Queries, toId: number, seat: MovedSeat): Promise<void> {
    const { fromId, lastDay, sectionId, studentId, enteredOn, grades, assignments } = seat;
    await queries.execute(sql`UPDATE enrollments SET withdrawn_on = ${lastDay}::date WHERE id = ${fromId}`);
    await queries.execute(sql`
      INSERT INTO enrollments (id, section_id, student_id, entered_on)
      VALUES (${toId}, ${sectionId}, ${studentId}, ${enteredOn}::date)`);
    await queries.execute(sql`UPDATE grades SET enrollment_id = ${toId} WHERE id = ANY(${intArray(grades)})`);
    await queries.execute(sql`
      INSERT INTO scores (assignment_id, enrollment_id, points, flag)
      SELECT n.theirs, ${toId}::int, s.points, s.flag
      FROM unnest(${intArray(assignments.map(([from]) => from))}, ${intArray(assignments.map(([, to]) => to))}) AS n (ours, theirs)
      JOIN scores s ON s.assignment_id = n.ours AND s.enrollment_id = ${fromId}`);
    await queries.execute(sql`
      INSERT INTO moved_seats (to_id, from_id, moved) VALUES (${toId}, ${fromId}, ${JSON.stringify(seat)}::jsonb)`);
  }

  async moveBack(queries: Queries, toId: number, { fromId, before, grades }: MovedSeat): Promise<void> {
    await queries.execute(sql`DELETE FROM moved_seats WHERE to_id = ${toId}`);
    await queries.execute(sql`UPDATE grades SET enrollment_id = ${fromId} WHERE id = ANY(${intArray(grades)})`);
    await queries.execute(sql`DELETE FROM scores WHERE enrollment_id = ${toId}`);
    await queries.execute(sql`DELETE FROM calculated_grades WHERE enrollment_id = ${toId}`);
    await queries.execute(sql`DELETE FROM enrollments WHERE id = ${toId}`);
    await queries.execute(sql`UPDATE enrollments SET withdrawn_on = ${before}::date WHERE id = ${fromId}`);
  }
}
