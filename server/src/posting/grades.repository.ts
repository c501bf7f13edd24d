import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { Clock, intArray, tables, type Actor, type Queries, personNameOf } from '#server/platform';
import type { GradePlace } from './grade-place.js';
import type { GradeValue } from './grade.thing.js';

const { grades } = tables;

/** Reads and writes posted grades one by one; whole sheets are read by the GradeRowsRepository. */
@Injectable()
export class GradesRepository {
  constructor(private readonly clock: Clock) {}

  /** What is posted, by enrollment; a grade of which everything was removed is none. */
  async valuesOf(
    queries: Queries,
    itemId: number,
    periodId: number,
    enrollmentIds: readonly number[],
  ): Promise<ReadonlyMap<number, GradeValue>> {
    const { rows } = await queries.execute<{ id: number } & GradeValue & Record<string, unknown>>(sql`
      SELECT enrollment_id AS id, trim_scale(percent)::text AS percent, label, code, last_date::text AS "lastDate",
        trim_scale(hours)::text AS hours, comment, is_internal AS "isInternal", override_reason AS "overrideReason",
        scale_version_id AS "scaleVersionId", trim_scale(computed_then)::text AS "computedThen", is_override AS "isOverride"
      FROM grades WHERE item_id = ${itemId} AND period_id = ${periodId} AND enrollment_id = ANY(${intArray(enrollmentIds)})
        AND (percent IS NOT NULL OR label IS NOT NULL OR code IS NOT NULL OR last_date IS NOT NULL OR hours IS NOT NULL
          OR comment <> '')`);
    return new Map(rows.map(({ id, ...value }) => [id, value]));
  }

  /** Whose grades they are, and of which item and period: "Brine, Yara (Quarter grade, Quarter 2)". */
  async namesOf(queries: Queries, places: readonly GradePlace[]): Promise<ReadonlyMap<string, string>> {
    const { rows } = await queries.execute<{ id: string; name: string }>(sql`
      SELECT concat_ws('/', i.id, p.id, e.id) AS id,
        ${personNameOf('s')} || ' (' || i.name || ', ' || p.name || ')' AS name
      FROM jsonb_to_recordset(${JSON.stringify(places)}::jsonb) AS place ("itemId" int, "periodId" int, "enrollmentId" int)
      JOIN report_items i ON i.id = place."itemId" JOIN periods p ON p.id = place."periodId"
      JOIN enrollments e ON e.id = place."enrollmentId" JOIN people s ON s.id = e.student_id`);
    return new Map(rows.map(({ id, name }) => [id, name]));
  }

  /** Each raises the version of its grade, which begins at 1; of one that goes the row stays, so that it goes on rising. */
  async write(
    queries: Queries,
    actor: Actor,
    written: readonly (GradePlace & { readonly value: GradeValue | null })[],
  ): Promise<void> {
    const [posted, cleared] = [written.filter(({ value }) => value), written.filter(({ value }) => !value)];
    const by = { postedBy: actor.personId, postedAt: this.clock.now() };
    // One parameter however many grades: the statement is planned once, and takes no time to put together.
    if (posted.length > 0)
      await queries.execute(sql`
        INSERT INTO grades (item_id, period_id, enrollment_id, percent, label, code, last_date, hours, comment, is_internal,
          override_reason, computed_then, is_override, scale_version_id, version, posted_by, posted_at)
        SELECT "itemId", "periodId", "enrollmentId", percent, label, code, "lastDate", hours, comment, "isInternal",
          "overrideReason", "computedThen", "isOverride", "scaleVersionId", 1, ${by.postedBy}, ${by.postedAt.toISOString()}
        FROM jsonb_to_recordset(${JSON.stringify(posted.map(({ value, ...place }) => ({ ...place, ...value! })))}::jsonb) AS grade (
          "itemId" int, "periodId" int, "enrollmentId" int, percent numeric, label text, code text, "lastDate" date, hours numeric,
          comment text, "isInternal" boolean, "overrideReason" text, "computedThen" numeric, "isOverride" boolean,
          "scaleVersionId" int)
        ON CONFLICT (enrollment_id, item_id, period_id) DO UPDATE SET (percent, label, code, last_date, hours, comment, is_internal,
          override_reason, computed_then, is_override, scale_version_id, version, posted_by, posted_at) = (excluded.percent,
          excluded.label, excluded.code, excluded.last_date, excluded.hours, excluded.comment, excluded.is_internal,
          excluded.override_reason, excluded.computed_then, excluded.is_override, excluded.scale_version_id, grades.version + 1,
          excluded.posted_by, excluded.posted_at)`);
    for (const { itemId, periodId, enrollmentId } of cleared)
      await queries
        .update(grades)
        .set({
          percent: null,
          label: null,
          code: null,
          lastDate: null,
          hours: null,
          comment: '',
          isInternal: false,
          overrideReason: '',
          computedThen: null,
          isOverride: false,
          version: sql`${grades.version} + 1`,
          ...by,
        })
        .where(
          sql`${grades.itemId} = ${itemId} AND ${grades.periodId} = ${periodId} AND ${grades.enrollmentId} = ${enrollmentId}`,
        );
  }
}
