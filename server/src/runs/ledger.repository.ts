import { Injectable } from '@nestjs/common';
import { and, asc, eq, inArray, isNotNull, sql, type SQL } from 'drizzle-orm';
import {
  decidingReason,
  isWriting,
  ledgerOutcomes,
  rowResults,
  runReasons,
  type LedgerOutcome,
  type LedgerRow,
  type RowResult,
  type RunReason,
  type RunReasonCode,
} from '#core/runs';
import type { LedgerCountsReply, PickRequest, RunRowReply, RunRowsQuery } from '#contract/runs';
import { tables, type Queries, nameOrderOf, sectionNameOf, spokenNameOf, textList } from '#server/platform';

const { runRows } = tables;

export type KeptRow = typeof runRows.$inferSelect;

/** A line that a teacher can put right. */
export interface TeachersLine extends Record<string, unknown> {
  readonly teacherId: number;
  readonly teacher: string;
  readonly address: string;
  readonly section: string;
  readonly name: string;
  readonly column: string | null;
  readonly reasons: readonly RunReason[];
}

/** Lines shown at once; further ones are asked for by a filter. */
const mostRows = 1_000;
/** Name of the assignment or total that a score or mark stands in; null for lines that are none. */
const columnName = sql`CASE WHEN r.person_key <> '' THEN (SELECT h.name FROM run_rows h WHERE h.run_id = r.run_id
  AND h.class_id = r.class_id AND h.column_key = r.column_key AND h.person_key = '' LIMIT 1) END`;
const isToWrite = sql`r.outcome IN ('create', 'change')`;

/** A line as it is shown, with the item of a mark. */
export interface ShownRow extends Omit<RunRowReply, 'remarks'> {
  readonly itemId: number | null;
}

@Injectable()
export class LedgerRepository {
  async add(queries: Queries, runId: number, classId: number, rows: readonly LedgerRow[]): Promise<void> {
    if (rows.length === 0) return;
    const lines = rows.map((row) => ({ ...row, reason: decidingReason(row.reasons)?.code ?? null }));
    await queries.execute(sql`
      INSERT INTO run_rows (run_id, class_id, kind, outcome, reason, reasons, name, column_key, person_key, assignment_id,
                            enrollment_id, item_id, before, after, same, blank, held_back)
      SELECT ${runId}, ${classId}, r.kind, r.outcome, r.reason, r.reasons, r.name, r."columnKey", r."personKey",
             r."assignmentId", r."enrollmentId", r."itemId", nullif(r.before, 'null'::jsonb), nullif(r.after, 'null'::jsonb),
             r.same, r.blank, r."heldBack"
      FROM jsonb_to_recordset(${JSON.stringify(lines)}::jsonb)
        AS r (kind text, outcome text, reason text, reasons jsonb, name text, "columnKey" text, "personKey" text,
              "assignmentId" int, "enrollmentId" int, "itemId" int, before jsonb, after jsonb, same int, blank int, "heldBack" int)`);
  }

  /** Lines of a class that are to be written or were, in the order of the ledger. */
  async toWrite(queries: Queries, runId: number, classId: number): Promise<KeptRow[]> {
    return queries
      .select()
      .from(runRows)
      .where(
        and(eq(runRows.runId, runId), eq(runRows.classId, classId), inArray(runRows.outcome, ['create', 'change'])),
      )
      .orderBy(asc(runRows.id));
  }

  async written(queries: Queries, runId: number, classId: number): Promise<KeptRow[]> {
    return queries
      .select()
      .from(runRows)
      .where(
        and(
          eq(runRows.runId, runId),
          eq(runRows.classId, classId),
          eq(runRows.result, 'written'),
          isNotNull(runRows.writtenVersion),
        ),
      )
      .orderBy(asc(runRows.id));
  }

  /** Says of each line what became of it. */
  async settle(
    queries: Queries,
    results: readonly {
      readonly id: number;
      readonly result: RowResult;
      readonly assignmentId: number | null;
      readonly writtenVersion: number | null;
    }[],
  ): Promise<void> {
    if (results.length === 0) return;
    await queries.execute(sql`
      UPDATE run_rows r SET result = s.result, assignment_id = coalesce(s."assignmentId", r.assignment_id),
        written_version = s."writtenVersion"
      FROM jsonb_to_recordset(${JSON.stringify(results)}::jsonb)
        AS s (id int, result text, "assignmentId" int, "writtenVersion" int)
      WHERE r.id = s.id`);
  }

  /** How many lines were taken in or left out by it. */
  async pick(queries: Queries, runId: number, { kind, keys, isPicked }: PickRequest): Promise<number> {
    const list = textList(keys);
    const which: Record<typeof kind, SQL> = {
      class: sql`r.class_id::text IN ${list}`,
      column: sql`r.column_key IN ${list}`,
      person: sql`r.person_key IN ${list}`,
      row: sql`r.id::text IN ${list}`,
    };
    const { rows } = await queries.execute(sql`
      UPDATE run_rows r SET is_picked = ${isPicked} WHERE r.run_id = ${runId} AND ${isToWrite} AND ${which[kind]} RETURNING r.id`);
    return rows.length;
  }

  /** Scores without a line of their own count as what their assignment counts them as. */
  async counts(queries: Queries, runId: number): Promise<LedgerCountsReply> {
    const { rows } = await queries.execute<{
      outcome: LedgerOutcome;
      result: RowResult | null;
      isPicked: boolean;
      lines: number;
      same: number;
      blank: number;
      heldBack: number;
    }>(sql`
      SELECT outcome, result, is_picked AS "isPicked",
             count(*) FILTER (WHERE outcome <> 'same' OR kind NOT IN ('class', 'total'))::int AS lines, sum(same)::int AS same,
             sum(blank)::int AS blank, sum(held_back)::int AS "heldBack"
      FROM run_rows r WHERE run_id = ${runId} GROUP BY outcome, result, is_picked`);
    const sum = (pick: (row: (typeof rows)[number]) => number) => rows.reduce((total, row) => total + pick(row), 0);
    const outcomes = Object.fromEntries(
      ledgerOutcomes.map((outcome) => [outcome, sum((row) => (row.outcome === outcome ? row.lines : 0))]),
    ) as Record<LedgerOutcome, number>;
    return {
      outcomes: { ...outcomes, same: outcomes.same + sum(({ same }) => same) },
      results: Object.fromEntries(
        rowResults.map((result) => [result, sum((row) => (row.result === result ? row.lines : 0))]),
      ) as Record<RowResult, number>,
      leftOut: sum((row) => (isWriting(row.outcome) && !row.isPicked ? row.lines : 0)),
      blank: sum(({ blank }) => blank),
      heldBack: sum(({ heldBack }) => heldBack),
      reasons: await this.reasons(queries, runId),
    };
  }

  /** What is not sent comes first. */
  async rows(
    queries: Queries,
    runId: number,
    query: RunRowsQuery,
  ): Promise<{ readonly rows: readonly ShownRow[]; readonly total: number }> {
    const conditions: SQL[] = [
      sql`r.run_id = ${runId}`,
      ...(query.outcome ? [sql`r.outcome = ${query.outcome}`] : []),
      ...(query.kind ? [sql`r.kind = ${query.kind}`] : []),
      ...(query.reason ? [sql`r.reasons @> ${JSON.stringify([{ code: query.reason }])}::jsonb`] : []),
      ...(query.classId ? [sql`r.class_id = ${query.classId}`] : []),
      ...(query.result ? [sql`r.result = ${query.result}`] : []),
    ];
    const where = sql.join(conditions, sql` AND `);
    const { rows } = await queries.execute<Pick<ShownRow, keyof ShownRow> & { total: number }>(sql`
      SELECT r.id, r.class_id AS "classId", r.kind, r.outcome, r.reasons, r.name, r.column_key AS "columnKey",
             r.person_key AS "personKey", r.assignment_id AS "assignmentId", r.enrollment_id AS "enrollmentId",
             r.item_id AS "itemId", r.before, r.after, r.same, r.blank, r.held_back AS "heldBack", r.is_picked AS "isPicked", r.result,
             ${columnName} AS column,
             count(*) OVER ()::int AS total
      FROM run_rows r WHERE ${where}
      ORDER BY array_position(ARRAY['refuse', 'skip', 'change', 'create', 'same'], r.outcome), r.class_id, r.id LIMIT ${mostRows}`);
    return { rows: rows.map(({ total: _total, ...row }) => row), total: rows[0]?.total ?? 0 };
  }

  /** Lines refused or left out for one of the reasons, with the teacher of the section, by teacher. */
  async ofTeachers(queries: Queries, runId: number, reasons: readonly RunReasonCode[]): Promise<TeachersLine[]> {
    const { rows } = await queries.execute<TeachersLine>(sql`
      SELECT t.id AS "teacherId", ${spokenNameOf('t')} AS teacher, t.email AS address,
             ${sectionNameOf('k', 's')} AS section, r.name, r.reasons, ${columnName} AS column
      FROM run_rows r JOIN platform_classes c ON c.id = r.class_id JOIN sections s ON s.id = c.section_id
      JOIN courses k ON k.id = s.course_id JOIN people t ON t.id = s.teacher_id
      WHERE r.run_id = ${runId} AND r.reason = ANY(${`{${reasons.join(',')}}`}::text[]) AND t.email <> ''
      ORDER BY ${nameOrderOf('t')}, t.id, k.title, s.number, r.id`);
    return rows;
  }

  /** Every reason with what is not carried over because of it; notes with how many lines carry them. */
  private async reasons(queries: Queries, runId: number): Promise<LedgerCountsReply['reasons']> {
    const { rows } = await queries.execute<{
      code: RunReasonCode;
      decides: boolean;
      lines: number;
      heldBack: number;
      classes: number;
    }>(sql`
      SELECT each->>'code' AS code, each->>'code' = r.reason AS decides, count(*)::int AS lines,
             sum(held_back)::int AS "heldBack", count(DISTINCT class_id)::int AS classes
      FROM run_rows r, jsonb_array_elements(r.reasons) AS each
      WHERE r.run_id = ${runId} GROUP BY 1, 2 ORDER BY 3 DESC, 1`);
    return rows
      .filter(({ code, decides }) => decides || runReasons[code] === 'note')
      .map(({ decides: _decides, ...row }) => ({ ...row, effect: runReasons[row.code] }));
  }
}
