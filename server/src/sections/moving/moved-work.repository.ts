import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import type { Day } from '#core/calendar';
import type { MoveTarget, SeatToLeave } from '#core/sections';
import { isUsedOf } from '../enrollments.repository.js';
import { intArray, personNameOf, sectionNameOf, type Queries } from '#server/platform';

/** What went along from one seat to another. */
export interface MovedWork {
  readonly fromId: number;
  /** Numbers of the posted grades, each with its version then. */
  readonly grades: readonly (readonly [id: number, version: number])[];
  /** Assignments whose scores count in the new section, each with its like there. */
  readonly assignments: readonly (readonly [from: number, to: number])[];
}

/** A seat that somebody is to leave. */
export interface LeftSeat extends SeatToLeave {
  readonly id: number;
  readonly student: string;
  readonly section: string;
}

/** A section that students are to come to, and the room in it. */
export interface NamedTarget extends MoveTarget {
  readonly name: string;
  /** Who have not left it. */
  readonly staying: number;
  /** How many there is room for; null where nobody said. */
  readonly seats: number | null;
}

interface Scored {
  readonly id: number;
  readonly name: string;
  readonly sectionId: number;
  readonly periodId: number;
  readonly points: string;
  /** Given to the whole section; to whom else it would count for nobody but those it is given to. */
  readonly isForAll: boolean;
}

/** Grades and scores that go along with students, and what they go between. */
@Injectable()
export class MovedWorkRepository {
  async byToIds(queries: Queries, ids: readonly number[]): Promise<ReadonlyMap<number, MovedWork>> {
    const { rows } = await queries.execute<MovedWork & { id: number } & Record<string, unknown>>(sql`
      SELECT to_id AS id, from_id AS "fromId", grades, assignments FROM moved_work WHERE to_id = ANY(${intArray(ids)})`);
    return new Map(rows.map(({ id, ...work }) => [id, work]));
  }

  /** Of a school, by student. */
  async seats(queries: Queries, schoolId: number, ids: readonly number[]): Promise<LeftSeat[]> {
    const { rows } = await queries.execute<LeftSeat & Record<string, unknown>>(sql`
      SELECT e.id, ${personNameOf('p')} AS student, p.id AS "studentId", s.id AS "sectionId",
        ${sectionNameOf('c', 's')} AS section, e.entered_on::text AS "enteredOn", e.withdrawn_on::text AS "withdrawnOn",
        ${isUsedOf('e')} AS "isUsed"
      FROM enrollments e JOIN people p ON p.id = e.student_id JOIN sections s ON s.id = e.section_id
      JOIN courses c ON c.id = s.course_id WHERE e.id = ANY(${intArray(ids)}) AND c.school_id = ${schoolId} ORDER BY 2, e.id`);
    return rows;
  }

  /** A section of a school; undefined where there is none. */
  async target(queries: Queries, schoolId: number, sectionId: number): Promise<NamedTarget | undefined> {
    const { rows } = await queries.execute<NamedTarget & Record<string, unknown>>(sql`
      SELECT s.id, ${sectionNameOf('c', 's')} AS name, coalesce(s.starts_on, p.starts_on)::text AS "startsOn",
        coalesce(s.ends_on, p.ends_on)::text AS "endsOn",
        (SELECT coalesce(array_agg(student_id), '{}') FROM enrollments WHERE section_id = s.id) AS "studentIds", s.seats,
        (SELECT count(*)::int FROM enrollments WHERE section_id = s.id AND withdrawn_on IS NULL) AS staying
      FROM sections s JOIN courses c ON c.id = s.course_id JOIN periods p ON p.id = s.period_id
      WHERE s.id = ${sectionId} AND c.school_id = ${schoolId}`);
    return rows[0];
  }

  /** Posted grades of seats in periods that are not sealed and end on a day or later. */
  async gradesFrom(queries: Queries, seatIds: readonly number[], day: Day) {
    const { rows } = await queries.execute<{ id: number; version: number; enrollmentId: number; periodId: number }>(sql`
      SELECT g.id, g.version, g.enrollment_id AS "enrollmentId", g.period_id AS "periodId"
      FROM grades g JOIN periods p ON p.id = g.period_id
      WHERE g.enrollment_id = ANY(${intArray(seatIds)}) AND p.ends_on >= ${day}::date
        AND NOT EXISTS (SELECT 1 FROM seals l WHERE l.period_id = g.period_id) ORDER BY g.id`);
    return rows;
  }

  /** Assignments of sections in periods that are not sealed and end on a day or later. */
  async assignmentsFrom(queries: Queries, sectionIds: readonly number[], day: Day): Promise<Scored[]> {
    const { rows } = await queries.execute<Scored & Record<string, unknown>>(sql`
      SELECT a.id, a.name, a.section_id AS "sectionId", a.period_id AS "periodId", a.possible::text AS points,
        a.given_to IS NULL AS "isForAll"
      FROM assignments a JOIN periods p ON p.id = a.period_id
      WHERE a.section_id = ANY(${intArray(sectionIds)}) AND p.ends_on >= ${day}::date
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

  /** Whether any of what went along was changed or removed since, or its period sealed. */
  async isBuiltOn(queries: Queries, moved: ReadonlyMap<number, MovedWork>): Promise<boolean> {
    const { grades, scores } = recordsOf(moved);
    const { rows } = await queries.execute(sql`
      SELECT 1 FROM jsonb_to_recordset(${JSON.stringify(grades)}::jsonb) AS n (id int, "toId" int, version int)
      LEFT JOIN grades g ON g.id = n.id AND g.enrollment_id = n."toId" AND g.version = n.version
      LEFT JOIN seals l ON l.period_id = g.period_id WHERE g.id IS NULL OR l.id IS NOT NULL
      UNION ALL SELECT 1 FROM jsonb_to_recordset(${JSON.stringify(scores)}::jsonb) AS n ("toId" int, "to" int)
      LEFT JOIN scores s ON s.assignment_id = n."to" AND s.enrollment_id = n."toId" AND s.version = 1
      WHERE s.version IS NULL LIMIT 1`);
    return rows.length > 0;
  }

  /** Takes along what there is: grades move, scores are copied. */
  async move(queries: Queries, moved: ReadonlyMap<number, MovedWork>): Promise<void> {
    const { works, grades, scores } = recordsOf(moved);
    await queries.execute(sql`
      UPDATE grades g SET enrollment_id = n."toId"
      FROM jsonb_to_recordset(${JSON.stringify(grades)}::jsonb) AS n (id int, "toId" int) WHERE g.id = n.id`);
    await queries.execute(sql`
      INSERT INTO scores (assignment_id, enrollment_id, points, flag)
      SELECT n."to", n."toId", s.points, s.flag
      FROM jsonb_to_recordset(${JSON.stringify(scores)}::jsonb) AS n ("fromId" int, "toId" int, "from" int, "to" int)
      JOIN scores s ON s.assignment_id = n."from" AND s.enrollment_id = n."fromId"`);
    await queries.execute(sql`
      INSERT INTO moved_work (to_id, from_id, grades, assignments)
      SELECT n."toId", n."fromId", n.grades, n.assignments FROM jsonb_to_recordset(${JSON.stringify(works)}::jsonb)
        AS n ("toId" int, "fromId" int, grades jsonb, assignments jsonb)`);
  }

  async moveBack(queries: Queries, moved: ReadonlyMap<number, MovedWork>): Promise<void> {
    const { grades, scores } = recordsOf(moved);
    await queries.execute(sql`DELETE FROM moved_work WHERE to_id = ANY(${intArray([...moved.keys()])})`);
    await queries.execute(sql`
      UPDATE grades g SET enrollment_id = n."fromId"
      FROM jsonb_to_recordset(${JSON.stringify(grades)}::jsonb) AS n (id int, "fromId" int) WHERE g.id = n.id`);
    await queries.execute(sql`
      DELETE FROM scores s USING jsonb_to_recordset(${JSON.stringify(scores)}::jsonb) AS n ("toId" int, "to" int)
      WHERE s.assignment_id = n."to" AND s.enrollment_id = n."toId"`);
  }
}

/** Each grade and each score with the seats that it goes between, for questions about many at once. */
function recordsOf(moved: ReadonlyMap<number, MovedWork>) {
  const works = [...moved].map(([toId, work]) => ({ toId, ...work }));
  return {
    works,
    grades: works.flatMap(({ fromId, toId, grades }) => grades.map(([id, version]) => ({ id, version, fromId, toId }))),
    scores: works.flatMap(({ fromId, toId, assignments }) =>
      assignments.map(([from, to]) => ({ from, to, fromId, toId })),
    ),
  };
}
