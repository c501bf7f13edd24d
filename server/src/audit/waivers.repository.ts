import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import type { Waiver } from '#core/audit';
import { instantText, spokenNameOf, type Queries } from '#server/platform';
import { waiverId, waiverPlaceOf, type WaiverPlace } from './waiver-place.js';

/** As the log tells of a waiver. */
export interface WaiverValue extends Waiver {
  readonly reason: string;
  readonly waivedBy: number;
  /** ISO instant. */
  readonly waivedAt: string;
}

export interface NamedWaiver extends WaiverValue {
  /** Who waived, as the name is spoken. */
  readonly by: string;
}

/** Findings that somebody lets stand. */
@Injectable()
export class WaiversRepository {
  /** Of a period, by `waiverId`. */
  async ofPeriod(queries: Queries, periodId: number): Promise<ReadonlyMap<string, NamedWaiver>> {
    const { rows } = await queries.execute<NamedWaiver & WaiverPlace & Record<string, unknown>>(sql`
      SELECT ${placeOf('w')}, w.message, w.data, w.reason, w.until::text AS until, w.waived_by AS "waivedBy", ${instantText('w.waived_at')} AS "waivedAt",
        ${spokenNameOf('p')} AS by
      FROM waivers w JOIN people p ON p.id = w.waived_by WHERE w.period_id = ${periodId}`);
    return new Map(rows.map((row) => [waiverId(row), row]));
  }

  async values(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, WaiverValue>> {
    const { rows } = await queries.execute<WaiverValue & WaiverPlace & Record<string, unknown>>(sql`
      SELECT ${placeOf('v')}, v.message, v.data, v.reason, v.until::text AS until, v.waived_by AS "waivedBy", ${instantText('v.waived_at')} AS "waivedAt"
      FROM ${wanted(ids)} JOIN waivers v ON ${isThat}`);
    return new Map(
      rows.map(({ ruleId, enrollmentId, sectionId, courseId, itemId, periodId, ...value }) => [
        waiverId({ ruleId, enrollmentId, sectionId, courseId, itemId, periodId }),
        value,
      ]),
    );
  }

  async write(queries: Queries, values: ReadonlyMap<string, WaiverValue | null>): Promise<void> {
    await queries.execute(sql`DELETE FROM waivers v USING ${wanted([...values.keys()])} WHERE ${isThat}`);
    const rows = [...values].flatMap(([id, value]) => (value ? [{ ...waiverPlaceOf(id), ...value }] : []));
    await queries.execute(sql`
      INSERT INTO waivers (rule_id, enrollment_id, section_id, course_id, item_id, period_id, message, data, reason, until,
        waived_by, waived_at)
      SELECT "ruleId", "enrollmentId", "sectionId", "courseId", "itemId", "periodId", message, data, reason, until,
        "waivedBy", "waivedAt"
      FROM jsonb_to_recordset(${JSON.stringify(rows)}::jsonb) AS n("ruleId" text, "enrollmentId" int, "sectionId" int,
        "courseId" int, "itemId" int, "periodId" int, message text, data jsonb, reason text, until date, "waivedBy" int, "waivedAt" timestamptz)`);
  }
}

const isThat = sql`(v.rule_id, v.period_id) = (w."ruleId", w."periodId")
  AND (v.enrollment_id, v.section_id, v.course_id, v.item_id)
    IS NOT DISTINCT FROM (w."enrollmentId", w."sectionId", w."courseId", w."itemId")`;

const placeOf = (table: string) =>
  sql.raw(`${table}.rule_id AS "ruleId", ${table}.enrollment_id AS "enrollmentId", ${table}.section_id AS "sectionId",
    ${table}.course_id AS "courseId", ${table}.item_id AS "itemId", ${table}.period_id AS "periodId"`);

/** Waivers by their names, as a table `w` of a query. */
function wanted(ids: readonly string[]) {
  return sql`jsonb_to_recordset(${JSON.stringify(ids.map(waiverPlaceOf))}::jsonb)
    AS w("ruleId" text, "enrollmentId" int, "sectionId" int, "courseId" int, "itemId" int, "periodId" int)`;
}
