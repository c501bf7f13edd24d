import { Injectable } from '@nestjs/common';
import { and, asc, desc, eq, sql, type SQL } from 'drizzle-orm';
import type { FileChoice, GradeColumn } from '#core/files';
import type { FileImportSummaryReply, FileRowReply, FileRowsQuery } from '#contract/files';
import {
  keepIfHeldOrThrow,
  Refusal,
  tables,
  type Queries,
  personNameOf,
  sectionName,
  sectionNameOf,
  spokenNameOf,
  spokenName,
} from '#server/platform';

const {
  computedGrades,
  courses,
  fileColumns,
  fileImports,
  filePieces,
  fileRowOutcomes,
  fileWorkbooks,
  people,
  sections,
} = tables;

export type KeptFile = typeof fileImports.$inferSelect & { readonly grades: readonly GradeColumn[] };

/** How a file with the same columns was read, that was accepted. */
export interface EarlierReading extends Pick<FileChoice, 'idColumn' | 'sectionColumn' | 'grades'> {
  readonly fileName: string;
  readonly namedSections: Readonly<Record<string, number>>;
}

const pieceBytes = 256 * 1024;
/** Lines of a ledger that are shown at once. */
const mostShown = 500;

/** A line of the ledger of a file. */
export interface LedgerRow extends Omit<FileRowReply, 'remarks'> {
  /** Null where nobody is found. */
  readonly enrollmentId: number | null;
}

/** Files, their bytes, and the lines of their ledgers. */
@Injectable()
export class FileImportsRepository {
  async add(
    queries: Queries,
    values: typeof fileImports.$inferInsert,
    grades: readonly GradeColumn[],
  ): Promise<number> {
    const [added] = await queries.insert(fileImports).values(values).returning({ id: fileImports.id });
    await this.setGrades(queries, added!.id, grades);
    return added!.id;
  }

  async addBytes(queries: Queries, importId: number, bytes: AsyncIterable<Buffer>): Promise<void> {
    let piece = 0;
    for await (const each of bytes)
      for (let from = 0; from < each.length; from += pieceBytes)
        await queries
          .insert(filePieces)
          .values({ importId, piece: piece++, bytes: each.subarray(from, from + pieceBytes) });
  }

  async replaceBytes(queries: Queries, importId: number, bytes: AsyncIterable<Buffer>): Promise<void> {
    await queries.delete(filePieces).where(eq(filePieces.importId, importId));
    await this.addBytes(queries, importId, bytes);
  }

  async keepWorkbook(queries: Queries, importId: number, bytes: Buffer): Promise<void> {
    await queries.insert(fileWorkbooks).values({ importId, bytes });
  }

  async workbook(queries: Queries, importId: number): Promise<Buffer | undefined> {
    const [found] = await queries.select().from(fileWorkbooks).where(eq(fileWorkbooks.importId, importId));
    return found?.bytes;
  }

  /** The bytes of a file, a piece after the other. */
  async *bytes(queries: Queries, importId: number): AsyncGenerator<Buffer> {
    for (let piece = 0; ; piece++) {
      const [found] = await queries
        .select({ bytes: filePieces.bytes })
        .from(filePieces)
        .where(and(eq(filePieces.importId, importId), eq(filePieces.piece, piece)));
      if (!found) return;
      yield found.bytes;
    }
  }

  /** @throws Refusal not-found */
  async byIdOrThrow(queries: Queries, id: number): Promise<KeptFile> {
    const [found] = await queries.select().from(fileImports).where(eq(fileImports.id, id));
    if (!found) throw new Refusal('not-found', { what: 'file', id });
    const grades = await queries
      .select({ column: fileColumns.position, itemId: fileColumns.itemId })
      .from(fileColumns)
      .where(eq(fileColumns.importId, id))
      .orderBy(asc(fileColumns.position));
    return { ...found, grades };
  }

  /** As `byIdOrThrow`, and nobody else deals with the file until the transaction ends. */
  async lockedOrThrow(queries: Queries, id: number): Promise<KeptFile> {
    await queries.execute(sql`SELECT id FROM file_imports WHERE id = ${id} FOR UPDATE`);
    return this.byIdOrThrow(queries, id);
  }

  async change(queries: Queries, id: number, values: Partial<typeof fileImports.$inferInsert>): Promise<void> {
    await queries.update(fileImports).set(values).where(eq(fileImports.id, id));
  }

  async setGrades(queries: Queries, importId: number, grades: readonly GradeColumn[]): Promise<void> {
    await queries.delete(fileColumns).where(eq(fileColumns.importId, importId));
    if (grades.length > 0)
      await queries
        .insert(fileColumns)
        .values(grades.map(({ column, itemId }) => ({ importId, position: column, itemId })));
  }

  async remove(queries: Queries, id: number): Promise<void> {
    await queries.delete(computedGrades).where(eq(computedGrades.importId, id));
    await queries.delete(fileRowOutcomes).where(eq(fileRowOutcomes.importId, id));
    await queries.delete(fileImports).where(eq(fileImports.id, id));
  }

  /**
   * Keeps how far a worker is.
   * @throws WorkLost where it no longer holds the file, or the file is no longer at what it works on
   */
  async passOrThrow(
    queries: Queries,
    { id, planNumber, status }: Pick<KeptFile, 'id' | 'planNumber' | 'status'>,
    worker: string,
    values: Partial<typeof fileImports.$inferInsert>,
  ): Promise<void> {
    const isAtIt = and(eq(fileImports.status, status), eq(fileImports.planNumber, planNumber));
    await keepIfHeldOrThrow(queries, fileImports, { id, worker }, isAtIt, values);
  }

  /** How the last accepted file of a school that has the very same columns, but for capitals, was read. */
  async earlierReading(
    queries: Queries,
    schoolId: number,
    header: readonly string[],
  ): Promise<EarlierReading | undefined> {
    const { rows } = await queries.execute<Pick<EarlierReading, keyof EarlierReading>>(sql`
      SELECT f.file_name AS "fileName", f.id_column AS "idColumn", f.section_column AS "sectionColumn",
             f.named_sections AS "namedSections",
             (SELECT jsonb_agg(jsonb_build_object('column', c.position, 'itemId', c.item_id) ORDER BY c.position)
              FROM file_columns c WHERE c.import_id = f.id) AS grades
      FROM file_imports f
      WHERE f.school_id = ${schoolId} AND f.status = 'accepted' AND f.id_column IS NOT NULL
        AND EXISTS (SELECT 1 FROM file_columns c WHERE c.import_id = f.id)
        AND lower(f.header::text) = lower(${JSON.stringify(header)}::jsonb::text)
      ORDER BY f.accepted_at DESC, f.id DESC LIMIT 1`);
    return rows[0];
  }

  async namesOf(queries: Queries, { readBy, periodId }: KeptFile): Promise<{ readBy: string; periodName: string }> {
    const { rows } = await queries.execute<{ readBy: string; periodName: string }>(sql`
      SELECT ${spokenNameOf('p')} AS "readBy", d.name AS "periodName"
      FROM people p, periods d WHERE p.id = ${readBy} AND d.id = ${periodId}`);
    return rows[0]!;
  }

  /** The files of a period, newest first. */
  async ofPeriod(queries: Queries, periodId: number): Promise<FileImportSummaryReply[]> {
    const written = (outcome: 'new' | 'changed') =>
      sql`coalesce((${fileImports.plan} -> 'counts' ->> ${outcome})::int, 0)`;
    const rows = await queries
      .select({
        id: fileImports.id,
        fileName: fileImports.fileName,
        section: sectionName,
        status: fileImports.status,
        stepsDone: fileImports.stepsDone,
        stepCount: fileImports.stepCount,
        readAt: fileImports.readAt,
        readBy: spokenName,
        written: sql<number>`CASE WHEN ${fileImports.status} = 'accepted' THEN ${written('new')} + ${written('changed')} ELSE 0 END`,
      })
      .from(fileImports)
      .innerJoin(people, eq(people.id, fileImports.readBy))
      .leftJoin(sections, and(eq(sections.id, fileImports.sectionId), sql`${fileImports.sectionColumn} IS NULL`))
      .leftJoin(courses, eq(courses.id, sections.courseId))
      .where(eq(fileImports.periodId, periodId))
      .orderBy(desc(fileImports.id))
      .limit(200);
    return rows.map(({ readAt, ...row }) => ({ ...row, readAt: readAt.toISOString() }));
  }

  /** The first lines of a ledger that a filter lets through. */
  async rows(queries: Queries, id: number, { show }: FileRowsQuery): Promise<LedgerRow[]> {
    const { rows } = await queries.execute<Pick<LedgerRow, keyof LedgerRow>>(sql`
      SELECT o.row, o.item_id AS "itemId", o.enrollment_id AS "enrollmentId", o.outcome, o.given_id AS "givenId", o.given_section AS "givenSection", o.value,
             coalesce(${personNameOf('p')}, '') AS name,
             CASE WHEN o.given_section IS NOT NULL THEN ${sectionNameOf('c', 's')} END AS section,
             trim_scale(o.before)::text AS before, trim_scale(o.after)::text AS after, coalesce(o.same_as, '{}') AS "sameAs"
      FROM (
        SELECT * FROM file_row_outcomes o WHERE o.import_id = ${id} AND ${shown(show)}
        ORDER BY o.row, o.item_id LIMIT ${mostShown}
      ) o
      LEFT JOIN enrollments e ON e.id = o.enrollment_id
      LEFT JOIN (
        SELECT lower(sourced_id) AS key, id FROM people WHERE kind = 'student'
        UNION SELECT lower(number), id FROM people WHERE kind = 'student'
        UNION SELECT lower(email), id FROM people WHERE kind = 'student'
      ) k ON o.enrollment_id IS NULL AND k.key = lower(o.given_id) AND o.given_id <> ''
      LEFT JOIN people p ON p.id = coalesce(e.student_id, k.id)
      LEFT JOIN sections s ON s.id = e.section_id LEFT JOIN courses c ON c.id = s.course_id
      ORDER BY o.row, o.item_id`);
    return rows;
  }
}

function shown(show: FileRowsQuery['show']): SQL {
  if (show === undefined) return sql`true`;
  return show === 'left-out' ? sql`o.outcome NOT IN ('new', 'changed', 'same', 'blank')` : sql`o.outcome = ${show}`;
}
