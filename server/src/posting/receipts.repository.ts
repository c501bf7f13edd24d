import { Injectable } from '@nestjs/common';
import { and, desc, eq, sql } from 'drizzle-orm';
import type { MarkBody, ReceiptChangeReply, ReceiptReply } from '#contract/posting';
import { Clock, intArray, tables, type Actor, type Queries, personNameOf, spokenName } from '#server/platform';
import type { GradePlace } from './grade-place.js';

/** As many receipts of a sheet as are looked back on. */
const newestReceipts = 20;

const { people, receipts } = tables;

/** One grade that was changed, before and after. */
export interface ReceiptLine extends GradePlace {
  readonly before: MarkBody | null;
  readonly after: MarkBody;
}

/** What each save of a grade sheet changed, for whoever posted and for whom it was posted. */
@Injectable()
export class ReceiptsRepository {
  constructor(private readonly clock: Clock) {}

  /** A receipt for each sheet that the lines belong to, its students by name. */
  async write(queries: Queries, actor: Actor, lines: readonly ReceiptLine[]): Promise<void> {
    const { rows } = await queries.execute<{ id: number; section: number; student: string }>(sql`
      SELECT e.id, e.section_id AS section, ${personNameOf('p')} AS student
      FROM enrollments e JOIN people p ON p.id = e.student_id
      WHERE e.id = ANY(${intArray([...new Set(lines.map(({ enrollmentId }) => enrollmentId))])})`);
    const enrolled = new Map(rows.map(({ id, ...row }) => [id, row]));
    const sheets = new Map<
      string,
      { place: Omit<typeof receipts.$inferInsert, 'savedBy' | 'savedAt' | 'changes'>; changes: ReceiptChangeReply[] }
    >();
    for (const { itemId, periodId, enrollmentId, before, after } of lines) {
      const { section: sectionId, student } = enrolled.get(enrollmentId)!;
      const key = `${sectionId}/${itemId}/${periodId}`;
      const sheet = sheets.get(key) ?? { place: { sectionId, itemId, periodId }, changes: [] };
      sheet.changes.push({ student, before, after });
      sheets.set(key, sheet);
    }
    for (const { place, changes: own } of sheets.values()) {
      const changes = own.toSorted((a, b) => (a.student < b.student ? -1 : 1));
      await queries.insert(receipts).values({ ...place, changes, savedBy: actor.personId, savedAt: this.clock.now() });
    }
  }

  /** The newest receipts of a sheet first. */
  async ofSheet(
    queries: Queries,
    { sectionId, itemId, periodId }: { readonly sectionId: number; readonly itemId: number; readonly periodId: number },
  ): Promise<ReceiptReply[]> {
    const rows = await queries
      .select({
        id: receipts.id,
        savedAt: receipts.savedAt,
        changes: receipts.changes,
        savedBy: spokenName,
      })
      .from(receipts)
      .innerJoin(people, eq(people.id, receipts.savedBy))
      .where(and(eq(receipts.sectionId, sectionId), eq(receipts.itemId, itemId), eq(receipts.periodId, periodId)))
      .orderBy(desc(receipts.id))
      .limit(newestReceipts);
    return rows.map(({ savedAt, changes, ...receipt }) => ({
      ...receipt,
      savedAt: savedAt.toISOString(),
      changes: changes as ReceiptChangeReply[],
    }));
  }
}
