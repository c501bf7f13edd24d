import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { attendanceIn, type AbsenceKind, type AttendanceSummary } from '#core/attendance';
import type { Day } from '#core/calendar';
import { instantText, intArray, sectionNameOf, spokenNameOf, type Queries } from '#server/platform';
import { registerPlaceOf, type RegisterPlace } from './register-place.js';

/** A register as the log tells of it: its exceptions by enrollment. */
export interface RegisterValue {
  readonly absences: Readonly<Record<number, AbsenceKind>>;
}

/** Days, both included. */
export interface Stretch {
  readonly startsOn: Day;
  readonly endsOn: Day;
}

export interface TakenRegister extends RegisterPlace {
  /** As its name is spoken. */
  readonly by: string;
  /** ISO instant. */
  readonly at: string;
}

/** A seat in a section, from when to when; null while the student sits in it. */
export interface Seat {
  readonly enrollmentId: number;
  readonly sectionId: number;
  readonly startsOn: Day;
  readonly endsOn: Day | null;
}

export interface Absence {
  readonly enrollmentId: number;
  readonly sectionId: number;
  readonly day: Day;
  readonly kind: AbsenceKind;
}

/** Registers of sections and the absences in them. */
@Injectable()
export class AttendanceRepository {
  /** The registers of some sections that were taken in a stretch of days, in its order. */
  async taken(
    queries: Queries,
    sectionIds: readonly number[],
    { startsOn, endsOn }: Stretch,
  ): Promise<TakenRegister[]> {
    const { rows } = await queries.execute<TakenRegister & Record<string, unknown>>(sql`
      SELECT r.section_id AS "sectionId", r.day::text AS day, ${spokenNameOf('p')} AS by, ${instantText('r.taken_at')} AS at
      FROM registers r JOIN people p ON p.id = r.taken_by
      WHERE r.section_id = ANY(${intArray(sectionIds)}) AND r.day BETWEEN ${startsOn}::date AND ${endsOn}::date
      ORDER BY r.day, r.section_id`);
    return rows;
  }

  async absences(queries: Queries, sectionIds: readonly number[], { startsOn, endsOn }: Stretch): Promise<Absence[]> {
    const { rows } = await queries.execute<Absence & Record<string, unknown>>(sql`
      SELECT a.enrollment_id AS "enrollmentId", e.section_id AS "sectionId", a.day::text AS day, a.kind
      FROM absences a JOIN enrollments e ON e.id = a.enrollment_id
      WHERE e.section_id = ANY(${intArray(sectionIds)}) AND a.day BETWEEN ${startsOn}::date AND ${endsOn}::date`);
    return rows;
  }

  /** What the registers of a stretch of days tell of those who sit in some sections, by enrollment. */
  async summaries(
    queries: Queries,
    sectionIds: readonly number[],
    stretch: Stretch,
  ): Promise<ReadonlyMap<number, AttendanceSummary>> {
    const daysOf = new Map<number, Day[]>();
    for (const { sectionId, day } of await this.taken(queries, sectionIds, stretch))
      daysOf.set(sectionId, [...(daysOf.get(sectionId) ?? []), day]);
    const missedBy = new Map<number, Map<Day, AbsenceKind>>();
    for (const { enrollmentId, day, kind } of await this.absences(queries, sectionIds, stretch))
      missedBy.set(enrollmentId, (missedBy.get(enrollmentId) ?? new Map<Day, AbsenceKind>()).set(day, kind));
    return new Map(
      (await this.seats(queries, sectionIds)).map(({ enrollmentId, sectionId, startsOn, endsOn }) => {
        const seat = { startsOn, endsOn: endsOn ?? stretch.endsOn };
        return [enrollmentId, attendanceIn(seat, daysOf.get(sectionId) ?? [], missedBy.get(enrollmentId) ?? new Map())];
      }),
    );
  }

  async values(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, RegisterValue>> {
    const { rows } = await queries.execute<
      { id: string; absences: RegisterValue['absences'] } & Record<string, unknown>
    >(sql`
      SELECT r.section_id || '/' || r.day AS id, coalesce(
        (SELECT jsonb_object_agg(a.enrollment_id, a.kind) FROM absences a JOIN enrollments e ON e.id = a.enrollment_id
         WHERE e.section_id = r.section_id AND a.day = r.day), '{}') AS absences
      FROM ${wanted(ids)} JOIN registers r ON r.section_id = w."sectionId" AND r.day = w.day`);
    return new Map(rows.map(({ id, absences }) => [id, { absences }]));
  }

  /** What people call registers: "the attendance of Making 2 on 2026-01-16". */
  async namesOf(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, string>> {
    const { rows } = await queries.execute<{ id: string; name: string }>(sql`
      SELECT s.id || '/' || w.day AS id, ${sectionNameOf('c', 's')} || ' on ' || w.day AS name
      FROM ${wanted(ids)} JOIN sections s ON s.id = w."sectionId" JOIN courses c ON c.id = s.course_id`);
    return new Map(rows.map(({ id, name }) => [id, name]));
  }

  /** Nobody else takes attendance of these sections until the transaction ends. */
  async hold(queries: Queries, sectionIds: readonly number[]): Promise<void> {
    await queries.execute(sql`SELECT id FROM sections WHERE id = ANY(${intArray(sectionIds)}) ORDER BY id FOR UPDATE`);
  }

  /** From when to when students sit in some sections; the last day is the one they left on. */
  async seats(queries: Queries, sectionIds: readonly number[]): Promise<Seat[]> {
    const { rows } = await queries.execute<Seat & Record<string, unknown>>(sql`
      SELECT id AS "enrollmentId", section_id AS "sectionId", entered_on::text AS "startsOn", withdrawn_on::text AS "endsOn"
      FROM enrollments WHERE section_id = ANY(${intArray(sectionIds)})`);
    return rows;
  }

  async write(
    queries: Queries,
    values: ReadonlyMap<string, RegisterValue | null>,
    by: { readonly personId: number; readonly at: Date },
  ): Promise<void> {
    const all = wanted([...values.keys()]);
    await queries.execute(sql`
      DELETE FROM absences a USING ${all}, enrollments e
      WHERE e.section_id = w."sectionId" AND a.enrollment_id = e.id AND a.day = w.day`);
    const taken = [...values].filter(([, value]) => value !== null).map(([id]) => id);
    const removed = [...values].filter(([, value]) => value === null).map(([id]) => id);
    await queries.execute(sql`
      DELETE FROM registers r USING ${wanted(removed)} WHERE r.section_id = w."sectionId" AND r.day = w.day`);
    await queries.execute(sql`
      INSERT INTO registers (section_id, day, taken_by, taken_at)
      SELECT w."sectionId", w.day, ${by.personId}, ${by.at.toISOString()}::timestamptz FROM ${wanted(taken)}
      ON CONFLICT (section_id, day) DO UPDATE SET taken_by = excluded.taken_by, taken_at = excluded.taken_at`);
    const rows = [...values].flatMap(([id, value]) =>
      Object.entries(value?.absences ?? {}).map(([enrollmentId, kind]) => ({
        enrollmentId: Number(enrollmentId),
        day: registerPlaceOf(id).day,
        kind,
      })),
    );
    await queries.execute(sql`
      INSERT INTO absences (enrollment_id, day, kind)
      SELECT "enrollmentId", day, kind
      FROM jsonb_to_recordset(${JSON.stringify(rows)}::jsonb) AS n("enrollmentId" int, day date, kind text)`);
  }
}

/** Registers by their names, as a table `w` of a query. */
function wanted(ids: readonly string[]) {
  return sql`jsonb_to_recordset(${JSON.stringify(ids.map(registerPlaceOf))}::jsonb) AS w("sectionId" int, day date)`;
}
