import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import type { Waiver } from '#core/audit';
import { instantText, spokenNameOf, type Queries } from '#server/platform';
import {
  byFinding,
  findingOf,
  isWanted,
  periodFindingOf,
  wantedFindings,
  type PeriodFinding,
} from './period-finding.js';

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
  /** Of a period, by `periodFindingId`. */
  async ofPeriod(queries: Queries, periodId: number): Promise<ReadonlyMap<string, NamedWaiver>> {
    const { rows } = await queries.execute<NamedWaiver & PeriodFinding & Record<string, unknown>>(sql`
      SELECT ${findingOf('w')}, w.message, w.data, w.reason, w.until::text AS until, w.waived_by AS "waivedBy", ${instantText('w.waived_at')} AS "waivedAt",
        ${spokenNameOf('p')} AS by
      FROM waivers w JOIN people p ON p.id = w.waived_by WHERE w.period_id = ${periodId}`);
    return byFinding<NamedWaiver>(rows);
  }

  async values(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, WaiverValue>> {
    const { rows } = await queries.execute<WaiverValue & PeriodFinding & Record<string, unknown>>(sql`
      SELECT ${findingOf('v')}, v.message, v.data, v.reason, v.until::text AS until, v.waived_by AS "waivedBy", ${instantText('v.waived_at')} AS "waivedAt"
      FROM ${wantedFindings(ids)} JOIN waivers v ON ${isWanted}`);
    return byFinding<WaiverValue>(rows);
  }

  async write(queries: Queries, values: ReadonlyMap<string, WaiverValue | null>): Promise<void> {
    await queries.execute(sql`DELETE FROM waivers v USING ${wantedFindings([...values.keys()])} WHERE ${isWanted}`);
    const rows = [...values].flatMap(([id, value]) => (value ? [{ ...periodFindingOf(id), ...value }] : []));
    await queries.execute(sql`
      INSERT INTO waivers (rule_id, enrollment_id, section_id, course_id, item_id, period_id, message, data, reason, until,
        waived_by, waived_at)
      SELECT "ruleId", "enrollmentId", "sectionId", "courseId", "itemId", "periodId", message, data, reason, until,
        "waivedBy", "waivedAt"
      FROM jsonb_to_recordset(${JSON.stringify(rows)}::jsonb) AS n("ruleId" text, "enrollmentId" int, "sectionId" int,
        "courseId" int, "itemId" int, "periodId" int, message text, data jsonb, reason text, until date, "waivedBy" int, "waivedAt" timestamptz)`);
  }
}
