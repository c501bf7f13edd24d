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
    if (posted.length > 0)
      await queries
        .insert(grades)
        .values(posted.map(({ value, ...place }) => ({ ...place, ...value!, ...by, version: 1 })))
        .onConflictDoUpdate({
          target: [grades.enrollmentId, grades.itemId, grades.periodId],
          set: {
            percent: sql`excluded.percent`,
            label: sql`excluded.label`,
            code: sql`excluded.code`,
            lastDate: sql`excluded.last_date`,
            hours: sql`excluded.hours`,
            comment: sql`excluded.comment`,
            isInternal: sql`excluded.is_internal`,
            overrideReason: sql`excluded.override_reason`,
            computedThen: sql`excluded.computed_then`,
            isOverride: sql`excluded.is_override`,
            scaleVersionId: sql`excluded.scale_version_id`,
            version: sql`${grades.version} + 1`,
            postedBy: sql`excluded.posted_by`,
            postedAt: sql`excluded.posted_at`,
          },
        });
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
