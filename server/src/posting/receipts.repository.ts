import { Injectable } from '@nestjs/common';
import { sql, type SQL } from 'drizzle-orm';
import type { MarkBody, ReceiptChangeReply, SheetReceiptReply } from '#contract/posting';
import type { Day } from '#core/calendar';
import {
  Clock,
  coTeachersOf,
  instantText,
  intArray,
  personNameOf,
  sectionNameOf,
  spokenNameOf,
  tables,
  type Actor,
  type Queries,
} from '#server/platform';
import type { GradePlace } from './grade-place.js';
import type { SheetPlace } from './sheet-place.js';

/** As many receipts of a sheet as are looked back on. */
const newestReceipts = 20;
/** More than anybody posts in a day. */
const mostOfDay = 2000;

const { receipts } = tables;

/** One grade that was changed, before and after. */
export interface ReceiptLine extends GradePlace {
  readonly before: MarkBody | null;
  readonly after: MarkBody;
}

/** A receipt that its people were not told of yet. */
export interface UntoldReceipt {
  readonly id: number;
  /** In the district's time zone. */
  readonly day: string;
  readonly school: number;
  /** Who posted, and on whose behalf. */
  readonly people: readonly number[];
}

/** What each save of a grade sheet changed, for whoever posted and for whom it was posted. */
@Injectable()
export class ReceiptsRepository {
  constructor(private readonly clock: Clock) {}

  /** A receipt for each sheet that the lines belong to, its students by name. */
  async write(queries: Queries, actor: Actor, lines: readonly ReceiptLine[]): Promise<void> {
    const { rows } = await queries.execute<{
      id: number;
      section: number;
      student: string;
      onBehalfOf: number | null;
    }>(sql`
      SELECT e.id, e.section_id AS section, ${personNameOf('p')} AS student,
        CASE WHEN NOT ${actor.personId} = ANY(s.teacher_id || ${coTeachersOf('s')}) THEN s.teacher_id END AS "onBehalfOf"
      FROM enrollments e JOIN people p ON p.id = e.student_id JOIN sections s ON s.id = e.section_id
      WHERE e.id = ANY(${intArray([...new Set(lines.map(({ enrollmentId }) => enrollmentId))])})`);
    const enrolled = new Map(rows.map(({ id, ...row }) => [id, row]));
    const sheets = new Map<
      string,
      { place: Omit<typeof receipts.$inferInsert, 'savedBy' | 'savedAt' | 'changes'>; changes: ReceiptChangeReply[] }
    >();
    for (const { itemId, periodId, enrollmentId, before, after } of lines) {
      const { section: sectionId, student, onBehalfOf } = enrolled.get(enrollmentId)!;
      const key = `${sectionId}/${itemId}/${periodId}`;
      const sheet = sheets.get(key) ?? { place: { sectionId, itemId, periodId, onBehalfOf }, changes: [] };
      sheet.changes.push({ student, before, after });
      sheets.set(key, sheet);
    }
    for (const { place, changes: own } of sheets.values()) {
      const changes = own.toSorted((a, b) => (a.student < b.student ? -1 : 1));
      await queries.insert(receipts).values({ ...place, changes, savedBy: actor.personId, savedAt: this.clock.now() });
    }
  }

  /** The newest receipts of a sheet first. */
  ofSheet(queries: Queries, { sectionId, itemId, periodId }: SheetPlace): Promise<SheetReceiptReply[]> {
    return this.where(
      queries,
      sql`r.section_id = ${sectionId} AND r.item_id = ${itemId} AND r.period_id = ${periodId}`,
      newestReceipts,
    );
  }

  /** What somebody posted on a day in a time zone, and what was posted on their behalf; newest first. */
  ofPerson(queries: Queries, personId: number, day: Day, zone: string): Promise<SheetReceiptReply[]> {
    const isThen = sql`(r.saved_at AT TIME ZONE ${zone})::date = ${day}`;
    return this.where(queries, sql`${personId} IN (r.saved_by, r.on_behalf_of) AND ${isThen}`, mostOfDay);
  }

  /** Those of days before one that were not told of yet, oldest first; nobody else tells of them meanwhile. */
  async untoldBefore(queries: Queries, today: Day, zone: string, limit: number): Promise<UntoldReceipt[]> {
    const { rows } = await queries.execute<UntoldReceipt & Record<string, unknown>>(sql`
      SELECT r.id, (r.saved_at AT TIME ZONE ${zone})::date::text AS day, c.school_id AS school,
        array_remove(ARRAY[r.saved_by, r.on_behalf_of], NULL) AS people
      FROM receipts r JOIN sections s ON s.id = r.section_id JOIN courses c ON c.id = s.course_id
      WHERE NOT r.is_told AND (r.saved_at AT TIME ZONE ${zone})::date < ${today}
      ORDER BY r.id LIMIT ${limit} FOR UPDATE OF r SKIP LOCKED`);
    return rows;
  }

  async markTold(queries: Queries, ids: readonly number[]): Promise<void> {
    await queries.execute(sql`UPDATE receipts SET is_told = true WHERE id = ANY(${intArray(ids)})`);
  }

  /** How messages speak to somebody, and where they go; an empty address where none is known. */
  async recipient(queries: Queries, personId: number): Promise<{ name: string; address: string } | undefined> {
    const { rows } = await queries.execute<{ name: string; address: string }>(sql`
      SELECT ${spokenNameOf('p')} AS name, p.email AS address FROM people p WHERE p.id = ${personId}`);
    return rows[0];
  }

  private async where(queries: Queries, condition: SQL, limit: number): Promise<SheetReceiptReply[]> {
    const { rows } = await queries.execute<SheetReceiptReply & Record<string, unknown>>(sql`
      SELECT r.id, r.section_id AS "sectionId", ${sectionNameOf('c', 's')} AS section, r.item_id AS "itemId", i.name AS item,
        r.period_id AS "periodId", p.name AS period, ${spokenNameOf('b')} AS "savedBy",
        ${instantText('r.saved_at')} AS "savedAt",
        CASE WHEN t.id IS NOT NULL THEN ${spokenNameOf('t')} END AS "onBehalfOf", r.changes
      FROM receipts r JOIN sections s ON s.id = r.section_id JOIN courses c ON c.id = s.course_id
      JOIN report_items i ON i.id = r.item_id JOIN periods p ON p.id = r.period_id
      JOIN people b ON b.id = r.saved_by LEFT JOIN people t ON t.id = r.on_behalf_of
      WHERE ${condition} ORDER BY r.id DESC LIMIT ${limit}`);
    return rows;
  }
}
