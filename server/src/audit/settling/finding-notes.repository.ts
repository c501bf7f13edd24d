import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import type { Grant } from '#core/access';
import { grantsOf, instantText, nameOrderOf, spokenNameOf, type Queries } from '#server/platform';
import {
  byFinding,
  findingOf,
  isWanted,
  periodFindingOf,
  wantedFindings,
  type PeriodFinding,
} from './period-finding.js';

/** As the log tells of a note. */
export interface FindingNoteValue {
  readonly comment: string;
  readonly assignedTo: number | null;
  readonly notedBy: number;
  /** ISO instant. */
  readonly notedAt: string;
}

export interface NamedFindingNote extends FindingNoteValue {
  readonly by: string;
  /** Whose it is, as the name is spoken; null for nobody's. */
  readonly assignee: string | null;
}

const columns = sql`v.comment, v.assigned_to AS "assignedTo", v.noted_by AS "notedBy", ${instantText('v.noted_at')} AS "notedAt"`;

/** What is being done about findings. */
@Injectable()
export class FindingNotesRepository {
  /** Of a period, by `periodFindingId`. */
  async ofPeriod(queries: Queries, periodId: number): Promise<ReadonlyMap<string, NamedFindingNote>> {
    const { rows } = await queries.execute<PeriodFinding & NamedFindingNote & Record<string, unknown>>(sql`
      SELECT ${findingOf('v')}, ${columns}, ${spokenNameOf('p')} AS by, ${spokenNameOf('a')} AS assignee
      FROM finding_notes v JOIN people p ON p.id = v.noted_by LEFT JOIN people a ON a.id = v.assigned_to
      WHERE v.period_id = ${periodId}`);
    return byFinding<NamedFindingNote>(rows);
  }

  async values(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, FindingNoteValue>> {
    const { rows } = await queries.execute<PeriodFinding & FindingNoteValue & Record<string, unknown>>(sql`
      SELECT ${findingOf('v')}, ${columns} FROM ${wantedFindings(ids)} JOIN finding_notes v ON ${isWanted}`);
    return byFinding<FindingNoteValue>(rows);
  }

  async write(queries: Queries, values: ReadonlyMap<string, FindingNoteValue | null>): Promise<void> {
    await queries.execute(
      sql`DELETE FROM finding_notes v USING ${wantedFindings([...values.keys()])} WHERE ${isWanted}`,
    );
    const rows = [...values].flatMap(([id, value]) => (value ? [{ ...periodFindingOf(id), ...value }] : []));
    await queries.execute(sql`
      INSERT INTO finding_notes (rule_id, enrollment_id, section_id, course_id, item_id, period_id, comment, assigned_to,
        noted_by, noted_at)
      SELECT "ruleId", "enrollmentId", "sectionId", "courseId", "itemId", "periodId", comment, "assignedTo", "notedBy", "notedAt"
      FROM jsonb_to_recordset(${JSON.stringify(rows)}::jsonb) AS n("ruleId" text, "enrollmentId" int, "sectionId" int,
        "courseId" int, "itemId" int, "periodId" int, comment text, "assignedTo" int, "notedBy" int, "notedAt" timestamptz)`);
  }

  /** Staff with an account, by name, and what they may. */
  async staff(queries: Queries): Promise<{ readonly id: number; readonly name: string; readonly grants: Grant[] }[]> {
    const { rows } = await queries.execute<{ id: number; name: string; grants: Grant[] }>(sql`
      SELECT p.id, ${spokenNameOf('p')} AS name, ${grantsOf('a')} AS grants
      FROM accounts a JOIN people p ON p.id = a.person_id WHERE a.is_active ORDER BY ${nameOrderOf('p')}, p.id`);
    return rows;
  }
}
