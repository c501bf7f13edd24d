import { Injectable } from '@nestjs/common';
import { and, asc, desc, eq, gt, ne, sql } from 'drizzle-orm';
import { formatDecimal } from '#core/numbers';
import type { PlannedRow } from '#core/transfer';
import { Refusal, tables, type Queries } from '#server/platform';

const { courses, fileImports, fileRowOutcomes, fileRows, people, periods, reportItems, sections } = tables;

export type FileImport = typeof fileImports.$inferSelect;

@Injectable()
export class FileImportsRepository {
  async add(
    queries: Queries,
    values: typeof fileImports.$inferInsert,
    rows: readonly (readonly string[])[],
  ): Promise<number> {
    const [added] = await queries.insert(fileImports).values(values).returning({ id: fileImports.id });
    await queries.execute(sql`
      INSERT INTO file_rows (import_id, row, cells)
      SELECT ${added!.id}, line.row, line.cells
      FROM jsonb_array_elements(${JSON.stringify(rows)}::jsonb) WITH ORDINALITY AS line (cells, row)`);
    return added!.id;
  }

  /** @throws Refusal not-found */
  async byIdOrThrow(queries: Queries, id: number): Promise<FileImport> {
    const [found] = await queries.select().from(fileImports).where(eq(fileImports.id, id));
    if (!found) throw new Refusal('not-found', { what: 'file', id });
    return found;
  }

  /** As `byIdOrThrow`, and nobody else deals with the file until the transaction ends. */
  async lockedOrThrow(queries: Queries, id: number): Promise<FileImport> {
    await queries.execute(sql`SELECT id FROM file_imports WHERE id = ${id} FOR UPDATE`);
    return this.byIdOrThrow(queries, id);
  }

  async rowsOf(queries: Queries, id: number): Promise<{ row: number; cells: string[] }[]> {
    return queries
      .select({ row: fileRows.row, cells: fileRows.cells })
      .from(fileRows)
      .where(eq(fileRows.importId, id))
      .orderBy(asc(fileRows.row));
  }

  /** How the last accepted file of a school that has the very same columns, but for capitals, was read. */
  async earlierChoice(
    queries: Queries,
    schoolId: number,
    headerCells: readonly string[],
    exceptId: number | null,
  ): Promise<{ fileName: string; idColumn: number; gradeColumn: number } | undefined> {
    const { rows } = await queries.execute<{ fileName: string; idColumn: number; gradeColumn: number }>(sql`
      SELECT f.file_name AS "fileName", f.id_column AS "idColumn", f.grade_column AS "gradeColumn"
      FROM file_imports f JOIN file_rows r ON r.import_id = f.id AND r.row = f.header_row
      WHERE f.school_id = ${schoolId} AND f.status = 'accepted' AND f.id IS DISTINCT FROM ${exceptId}::int
        AND lower(r.cells::text) = lower(${JSON.stringify(headerCells)}::jsonb::text)
      ORDER BY f.accepted_at DESC, f.id DESC LIMIT 1`);
    return rows[0];
  }

  async change(queries: Queries, id: number, values: Partial<typeof fileImports.$inferInsert>): Promise<void> {
    await queries.update(fileImports).set(values).where(eq(fileImports.id, id));
  }

  async remove(queries: Queries, id: number): Promise<void> {
    await queries.delete(fileImports).where(eq(fileImports.id, id));
  }

  async namesOf(queries: Queries, { readBy, itemId, periodId }: FileImport) {
    const [names] = await queries
      .select({
        readBy: sql<string>`${people.givenName} || ' ' || ${people.familyName}`,
        itemName: reportItems.name,
        periodName: periods.name,
      })
      .from(people)
      .innerJoin(reportItems, eq(reportItems.id, itemId))
      .innerJoin(periods, eq(periods.id, periodId))
      .where(eq(people.id, readBy));
    return names!;
  }

  /** The files of a period, newest first. */
  async ofPeriod(queries: Queries, periodId: number) {
    return queries
      .select({
        id: fileImports.id,
        fileName: fileImports.fileName,
        section: sql<string | null>`${courses.title} || ' ' || ${sections.number}`,
        status: fileImports.status,
        readAt: fileImports.readAt,
        readBy: sql<string>`${people.givenName} || ' ' || ${people.familyName}`,
        written: sql<number>`(SELECT count(*)::int FROM file_row_outcomes o WHERE o.import_id = ${fileImports.id}
                              AND o.outcome IN ('new', 'changed'))`,
      })
      .from(fileImports)
      .innerJoin(people, eq(people.id, fileImports.readBy))
      .leftJoin(sections, eq(sections.id, fileImports.sectionId))
      .leftJoin(courses, eq(courses.id, sections.courseId))
      .where(eq(fileImports.periodId, periodId))
      .orderBy(desc(fileImports.id))
      .limit(200);
  }

  /** Keeps what each row led to, with what stood before, so that it can be undone. */
  async keepOutcomes(queries: Queries, file: FileImport, planned: readonly PlannedRow[]): Promise<void> {
    const rows = planned.map(({ row, outcome, enrollmentId, after }) => ({
      row,
      outcome,
      enrollment: enrollmentId,
      after: after && formatDecimal(after),
    }));
    await queries.execute(sql`
      INSERT INTO file_row_outcomes (import_id, row, outcome, enrollment_id, before, before_import_id, before_import_row, after)
      SELECT ${file.id}, r.row, r.outcome, r.enrollment, c.percent, c.import_id, c.import_row, r.after
      FROM jsonb_to_recordset(${JSON.stringify(rows)}::jsonb)
           AS r (row int, outcome text, enrollment int, after numeric)
      LEFT JOIN computed_grades c
        ON c.enrollment_id = r.enrollment AND c.item_id = ${file.itemId} AND c.period_id = ${file.periodId}`);
  }

  /** Writes the new and changed rows that were kept. */
  async writeComputed(queries: Queries, { id, itemId, periodId }: FileImport): Promise<void> {
    await queries.execute(sql`
      INSERT INTO computed_grades (item_id, period_id, enrollment_id, percent, import_id, import_row)
      SELECT ${itemId}, ${periodId}, enrollment_id, after, ${id}, row
      FROM file_row_outcomes WHERE import_id = ${id} AND outcome IN ('new', 'changed')
      ON CONFLICT (enrollment_id, item_id, period_id)
      DO UPDATE SET percent = excluded.percent, import_id = excluded.import_id, import_row = excluded.import_row`);
  }

  /** Puts back what stood before the file was accepted. */
  async takeBackComputed(queries: Queries, { id, itemId, periodId }: FileImport): Promise<void> {
    await queries.execute(sql`
      DELETE FROM computed_grades c USING file_row_outcomes o
      WHERE o.import_id = ${id} AND o.outcome = 'new' AND c.enrollment_id = o.enrollment_id
        AND c.item_id = ${itemId} AND c.period_id = ${periodId}`);
    await queries.execute(sql`
      UPDATE computed_grades c SET percent = o.before, import_id = o.before_import_id, import_row = o.before_import_row
      FROM file_row_outcomes o
      WHERE o.import_id = ${id} AND o.outcome = 'changed' AND c.enrollment_id = o.enrollment_id
        AND c.item_id = ${itemId} AND c.period_id = ${periodId}`);
  }

  /** An accepted file that wrote over what this one wrote. */
  async builtUpon(queries: Queries, file: FileImport): Promise<string | undefined> {
    const later = await queries
      .selectDistinct({ fileName: fileImports.fileName, id: fileImports.id })
      .from(fileRowOutcomes)
      .innerJoin(fileImports, eq(fileImports.id, fileRowOutcomes.importId))
      .where(
        and(
          eq(fileRowOutcomes.beforeImportId, file.id),
          eq(fileImports.status, 'accepted'),
          ne(fileImports.id, file.id),
          gt(fileImports.acceptedAt, file.acceptedAt!),
        ),
      )
      .orderBy(desc(fileImports.id));
    return later[0]?.fileName;
  }
}
