import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import type { AssignmentFacts, MarkFacts, ScoreFacts } from '#core/runs';
import { intArray, Clock, type Queries } from '#server/platform';

export interface ScoreToWrite extends ScoreFacts {
  readonly assignmentId: number;
  readonly enrollmentId: number;
}

export interface MarkToWrite extends MarkFacts {
  readonly itemId: number;
  readonly enrollmentId: number;
  readonly scaleVersionId: number;
}

export interface Versioned {
  readonly version: number;
}

/**
 * Writes what a run carries over, a class at a time, and takes it back. What a run wrote bears the version that it had
 * then, so that a later run, and an undoing, can tell it from what somebody here made of it since.
 */
@Injectable()
export class CarryOverRepository {
  constructor(private readonly clock: Clock) {}

  /** The ids of the new assignments, in the order given. */
  async addAssignments(
    queries: Queries,
    place: { readonly sectionId: number; readonly periodId: number },
    added: readonly AssignmentFacts[],
  ): Promise<number[]> {
    if (added.length === 0) return [];
    const { rows } = await queries.execute<{ id: number }>(sql`
      SELECT nextval(pg_get_serial_sequence('assignments', 'id'))::int AS id FROM generate_series(1, ${added.length})`);
    const ids = rows.map(({ id }) => id);
    await queries.execute(sql`
      INSERT INTO assignments (id, section_id, period_id, name, possible, due_on, category_id, given_to, carried_version)
      SELECT a.id, ${place.sectionId}, ${place.periodId}, a.name, a.possible, a."dueOn", a."categoryId",
             nullif(a."givenTo", 'null'::jsonb), 1
      FROM ${assignmentRows(added.map((facts, at) => ({ ...facts, id: ids[at]! })))}`);
    return ids;
  }

  async changeAssignments(
    queries: Queries,
    changed: readonly (AssignmentFacts & { readonly id: number })[],
  ): Promise<ReadonlyMap<number, number>> {
    return this.updateAssignments(queries, changed, sql`a.version + 1`, sql`true`);
  }

  /** Those that nobody changed since; the versions of those that were put back. */
  async restoreAssignments(
    queries: Queries,
    restored: readonly (AssignmentFacts & { readonly id: number } & Versioned)[],
  ): Promise<ReadonlySet<number>> {
    return new Set((await this.updateAssignments(queries, restored, sql`NULL`, sql`a.version = n.version`)).keys());
  }

  /** Those that nobody changed since and that hold no score any more; they may be carried over again. */
  async removeAssignments(
    queries: Queries,
    removed: readonly ({ readonly id: number } & Versioned)[],
  ): Promise<ReadonlySet<number>> {
    if (removed.length === 0) return new Set();
    const { rows } = await queries.execute<{ id: number }>(sql`
      SELECT a.id FROM assignments a
      JOIN jsonb_to_recordset(${JSON.stringify(removed)}::jsonb) AS n (id int, version int) ON n.id = a.id AND n.version = a.version
      WHERE NOT EXISTS (SELECT 1 FROM scores x WHERE x.assignment_id = a.id AND (x.points IS NOT NULL OR x.flag IS NOT NULL))`);
    const ids = intArray(rows.map(({ id }) => id));
    await queries.execute(sql`DELETE FROM assignment_origins WHERE assignment_id = ANY(${ids})`);
    await queries.execute(sql`DELETE FROM scores WHERE assignment_id = ANY(${ids})`);
    await queries.execute(sql`DELETE FROM assignments WHERE id = ANY(${ids})`);
    return new Set(rows.map(({ id }) => id));
  }

  async keepOrigins(
    queries: Queries,
    place: { readonly platformId: number; readonly classId: number },
    origins: readonly { readonly columnKey: string; readonly assignmentId: number }[],
  ): Promise<void> {
    if (origins.length === 0) return;
    await queries.execute(sql`
      INSERT INTO assignment_origins (platform_id, class_id, column_key, assignment_id)
      SELECT ${place.platformId}, ${place.classId}, o."columnKey", o."assignmentId"
      FROM jsonb_to_recordset(${JSON.stringify(origins)}::jsonb) AS o ("columnKey" text, "assignmentId" int)
      ON CONFLICT (platform_id, column_key) DO UPDATE SET class_id = excluded.class_id, assignment_id = excluded.assignment_id`);
  }

  /** The version that each score has now, by assignment and enrollment. */
  async writeScores(queries: Queries, written: readonly ScoreToWrite[]): Promise<ReadonlyMap<string, number>> {
    if (written.length === 0) return new Map();
    const { rows } = await queries.execute<{ key: string; version: number }>(sql`
      INSERT INTO scores (assignment_id, enrollment_id, points, flag, version, carried_version)
      SELECT n."assignmentId", n."enrollmentId", n.points, n.flag, 1, 1
      FROM jsonb_to_recordset(${JSON.stringify(written)}::jsonb)
        AS n ("assignmentId" int, "enrollmentId" int, points numeric, flag text)
      ON CONFLICT (assignment_id, enrollment_id) DO UPDATE SET points = excluded.points, flag = excluded.flag,
        version = scores.version + 1, carried_version = scores.version + 1
      RETURNING assignment_id || '/' || enrollment_id AS key, version`);
    return new Map(rows.map(({ key, version }) => [key, version]));
  }

  /** Puts back what stood there before the run, where nobody changed it since. */
  async restoreScores(queries: Queries, restored: readonly (ScoreToWrite & Versioned)[]): Promise<ReadonlySet<string>> {
    if (restored.length === 0) return new Set();
    const { rows } = await queries.execute<{ key: string }>(sql`
      UPDATE scores x SET points = n.points, flag = n.flag, version = x.version + 1, carried_version = NULL
      FROM jsonb_to_recordset(${JSON.stringify(restored)}::jsonb)
        AS n ("assignmentId" int, "enrollmentId" int, points numeric, flag text, version int)
      WHERE x.assignment_id = n."assignmentId" AND x.enrollment_id = n."enrollmentId" AND x.version = n.version
      RETURNING x.assignment_id || '/' || x.enrollment_id AS key`);
    return new Set(rows.map(({ key }) => key));
  }

  /**
   * What was put back to what an earlier run had written is that run's again, so that it can be undone in its turn.
   * @param undone rows of the ledger whose things were put back, to the version after the written one
   */
  async handBack(queries: Queries, periodId: number, undone: readonly number[]): Promise<void> {
    const { rows } = await queries.execute<{
      kind: string;
      assignmentId: number | null;
      enrollmentId: number | null;
      itemId: number | null;
    }>(sql`
      UPDATE run_rows earlier SET written_version = later.written_version + 1
      FROM run_rows later
      WHERE later.id = ANY(${intArray(undone)}) AND earlier.run_id < later.run_id AND earlier.class_id = later.class_id
        AND earlier.kind = later.kind AND earlier.result = 'written'
        AND earlier.assignment_id IS NOT DISTINCT FROM later.assignment_id
        AND earlier.enrollment_id IS NOT DISTINCT FROM later.enrollment_id
        AND earlier.item_id IS NOT DISTINCT FROM later.item_id
        AND earlier.written_version = later.written_version - 1
      RETURNING earlier.kind, earlier.assignment_id AS "assignmentId", earlier.enrollment_id AS "enrollmentId",
        earlier.item_id AS "itemId"`);
    if (rows.length === 0) return;
    const things = sql`jsonb_to_recordset(${JSON.stringify(rows)}::jsonb)
      AS n (kind text, "assignmentId" int, "enrollmentId" int, "itemId" int)`;
    await queries.execute(sql`
      UPDATE assignments a SET carried_version = a.version FROM ${things} WHERE n.kind = 'assignment' AND a.id = n."assignmentId"`);
    await queries.execute(sql`
      UPDATE scores x SET carried_version = x.version FROM ${things}
      WHERE n.kind = 'score' AND x.assignment_id = n."assignmentId" AND x.enrollment_id = n."enrollmentId"`);
    await queries.execute(sql`
      UPDATE grades g SET carried_version = g.version FROM ${things}
      WHERE n.kind = 'mark' AND g.item_id = n."itemId" AND g.enrollment_id = n."enrollmentId" AND g.period_id = ${periodId}`);
  }

  /** The version that each mark has now, by item and enrollment. */
  async writeMarks(
    queries: Queries,
    periodId: number,
    postedBy: number,
    written: readonly MarkToWrite[],
  ): Promise<ReadonlyMap<string, number>> {
    if (written.length === 0) return new Map();
    const { rows } = await queries.execute<{ key: string; version: number }>(sql`
      INSERT INTO grades (item_id, period_id, enrollment_id, percent, label, code, scale_version_id, version,
                          carried_version, posted_by, posted_at)
      SELECT n."itemId", ${periodId}, n."enrollmentId", n.percent, n.label, n.code, n."scaleVersionId", 1, 1, ${postedBy},
             ${this.clock.now().toISOString()}::timestamptz
      FROM jsonb_to_recordset(${JSON.stringify(written)}::jsonb)
        AS n ("itemId" int, "enrollmentId" int, percent numeric, label text, code text, "scaleVersionId" int)
      ON CONFLICT (enrollment_id, item_id, period_id) DO UPDATE SET percent = excluded.percent, label = excluded.label,
        code = excluded.code, scale_version_id = excluded.scale_version_id, version = grades.version + 1,
        computed_then = NULL, is_override = false, override_reason = '',
        carried_version = grades.version + 1, posted_by = excluded.posted_by, posted_at = excluded.posted_at
      RETURNING item_id || '/' || enrollment_id AS key, version`);
    return new Map(rows.map(({ key, version }) => [key, version]));
  }

  async restoreMarks(
    queries: Queries,
    periodId: number,
    postedBy: number,
    restored: readonly (Omit<MarkToWrite, 'scaleVersionId'> & Versioned)[],
  ): Promise<ReadonlySet<string>> {
    if (restored.length === 0) return new Set();
    const { rows } = await queries.execute<{ key: string }>(sql`
      UPDATE grades g SET percent = n.percent, label = n.label, code = n.code, version = g.version + 1,
        computed_then = NULL, is_override = false, override_reason = '', carried_version = NULL, posted_by = ${postedBy}, posted_at = ${this.clock.now().toISOString()}::timestamptz
      FROM jsonb_to_recordset(${JSON.stringify(restored)}::jsonb)
        AS n ("itemId" int, "enrollmentId" int, percent numeric, label text, code text, version int)
      WHERE g.item_id = n."itemId" AND g.enrollment_id = n."enrollmentId" AND g.period_id = ${periodId} AND g.version = n.version
        AND NOT EXISTS (SELECT 1 FROM sign_offs o JOIN enrollments e ON e.section_id = o.section_id
          WHERE e.id = g.enrollment_id AND o.item_id = g.item_id AND o.period_id = g.period_id)
      RETURNING g.item_id || '/' || g.enrollment_id AS key`);
    return new Set(rows.map(({ key }) => key));
  }

  private async updateAssignments(
    queries: Queries,
    changed: readonly (AssignmentFacts & { readonly id: number })[],
    carriedVersion: ReturnType<typeof sql>,
    where: ReturnType<typeof sql>,
  ): Promise<ReadonlyMap<number, number>> {
    if (changed.length === 0) return new Map();
    const { rows } = await queries.execute<{ id: number; version: number }>(sql`
      UPDATE assignments a SET name = n.name, possible = n.possible, due_on = n."dueOn", category_id = n."categoryId",
        given_to = nullif(n."givenTo", 'null'::jsonb), version = a.version + 1, carried_version = ${carriedVersion}
      FROM ${assignmentRows(changed, 'n')} WHERE a.id = n.id AND ${where} RETURNING a.id, a.version`);
    return new Map(rows.map(({ id, version }) => [id, version]));
  }
}

function assignmentRows(rows: readonly object[], name = 'a') {
  return sql`jsonb_to_recordset(${JSON.stringify(rows)}::jsonb) AS ${sql.identifier(name)}
    (id int, name text, possible numeric, "dueOn" date, "categoryId" int, "givenTo" jsonb, version int)`;
}
