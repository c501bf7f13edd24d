import { Injectable } from '@nestjs/common';
import { and, eq, gte, ne, or, sql } from 'drizzle-orm';
import type { SchoolPeriod } from '#server/calendar';
import { tables, type Queries } from '#server/platform';
import type { KeptFile } from './file-imports.repository.js';

const { computedGrades, fileImports, fileRowOutcomes } = tables;

/** Rows of a file after one and up to another. */
export interface RowRange {
  readonly after: number;
  readonly upTo: number;
}

type OfFile = Pick<KeptFile, 'id' | 'periodId'>;

/** What the lines of a plan make of the computed percents. What a file says is seen once it is accepted, all at once. */
@Injectable()
export class FileValuesRepository {
  async forgetPlan(queries: Queries, importId: number): Promise<void> {
    await this.forgetWritten(queries, importId);
    await queries.delete(fileRowOutcomes).where(eq(fileRowOutcomes.importId, importId));
  }

  /** Takes away what a file that is not accepted had written already. */
  async forgetWritten(queries: Queries, importId: number): Promise<void> {
    await queries.delete(computedGrades).where(eq(computedGrades.importId, importId));
  }

  /** Many new lines are told to the database's planner, which otherwise takes them for few. */
  async linesAdded(queries: Queries): Promise<void> {
    await queries.execute(sql`ANALYZE file_row_outcomes`);
  }

  /** Names of sections that are not known, with their rows, as one report item's lines tell; the commonest first. */
  async unknownSections(
    queries: Queries,
    importId: number,
    itemId: number,
    most: number,
  ): Promise<{ name: string; rows: number }[]> {
    const { rows } = await queries.execute<{ name: string; rows: number }>(sql`
      SELECT min(given_section) AS name, count(*)::int AS rows FROM file_row_outcomes
      WHERE import_id = ${importId} AND item_id = ${itemId} AND outcome = 'unknown section'
      GROUP BY lower(given_section) ORDER BY 2 DESC, 1 LIMIT ${most}`);
    return rows;
  }

  /** Whether any of the lines that say a percent are no longer as they were when they were planned. */
  async haveMovedOn(
    queries: Queries,
    { id, periodId }: OfFile,
    { endsOn }: SchoolPeriod,
    { after, upTo }: RowRange,
  ): Promise<boolean> {
    const { rows } = await queries.execute(sql`
      SELECT 1 FROM file_row_outcomes o JOIN enrollments e ON e.id = o.enrollment_id
      LEFT JOIN file_percents c ON c.enrollment_id = e.id AND c.item_id = o.item_id AND c.period_id = ${periodId}
      WHERE o.import_id = ${id} AND o.row > ${after} AND o.row <= ${upTo} AND o.outcome IN ('new', 'changed', 'same')
        AND (c.percent IS DISTINCT FROM o.before OR e.withdrawn_on <= ${endsOn}) LIMIT 1`);
    return rows.length > 0;
  }

  /** Writes what the file says, also where it says what was said before: it stands by itself. */
  async write(queries: Queries, { id, periodId }: OfFile, { after, upTo }: RowRange): Promise<void> {
    await queries.execute(sql`
      INSERT INTO computed_grades (item_id, period_id, enrollment_id, percent, import_id, import_row)
      SELECT item_id, ${periodId}, enrollment_id, after, ${id}, row FROM file_row_outcomes
      WHERE import_id = ${id} AND row > ${after} AND row <= ${upTo} AND outcome IN ('new', 'changed', 'same')`);
  }

  /** Takes away what the file said. */
  async takeBack(queries: Queries, { id, periodId }: OfFile, { after, upTo }: RowRange): Promise<void> {
    await queries.execute(sql`
      DELETE FROM computed_grades c USING file_row_outcomes o
      WHERE o.import_id = ${id} AND o.row > ${after} AND o.row <= ${upTo} AND c.import_id = ${id}
        AND c.enrollment_id = o.enrollment_id AND c.item_id = o.item_id AND c.period_id = ${periodId}`);
  }

  /** Whether another file of the period was accepted or taken back since. */
  async othersDecidedSince(queries: Queries, { id, periodId }: OfFile, since: Date): Promise<boolean> {
    const [found] = await queries
      .select({ id: fileImports.id })
      .from(fileImports)
      .where(
        and(
          eq(fileImports.periodId, periodId),
          ne(fileImports.id, id),
          or(gte(fileImports.acceptedAt, since), gte(fileImports.undoneAt, since), eq(fileImports.status, 'undoing')),
        ),
      )
      .limit(1);
    return found !== undefined;
  }
}
