import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { enrollmentUses } from '#server/sections';
import { intArray, sectionNameOf, type Queries } from '#server/platform';
import type { PersonValue } from '../person.thing.js';
import { personUses } from '../roster.repository.js';

/** A seat as it was. */
export interface DroppedSeat {
  readonly id: number;
  readonly sectionId: number;
  readonly studentId: number;
  readonly enteredOn: string;
  readonly withdrawnOn: string | null;
}

/** A record that became a part of another, and all that it takes to take them apart again. */
export interface MergedRecord {
  readonly keptId: number;
  readonly gone: PersonValue;
  /** Numbers of the rows that were the gone one's, by "table.column". */
  readonly moved: Readonly<Record<string, readonly number[]>>;
  readonly dropped: readonly DroppedSeat[];
}

/** A section in which two records both have a seat. */
export interface SharedSection {
  readonly section: string;
  /** The seat of each, and whether anything hangs on it. */
  readonly kept: DroppedSeat & { readonly isUsed: boolean };
  readonly gone: DroppedSeat & { readonly isUsed: boolean };
}

/** Which records were merged, and what hung on them. */
@Injectable()
export class MergedPeopleRepository {
  async byGoneIds(queries: Queries, ids: readonly number[]): Promise<ReadonlyMap<number, MergedRecord>> {
    const { rows } = await queries.execute<MergedRecord & { goneId: number } & Record<string, unknown>>(sql`
      SELECT gone_id AS "goneId", kept_id AS "keptId", gone, moved, dropped FROM merged_people WHERE gone_id = ANY(${intArray(ids)})`);
    return new Map(rows.map(({ goneId, keptId, gone, moved, dropped }) => [goneId, { keptId, gone, moved, dropped }]));
  }

  /** What names a person anywhere, by "table.column". */
  async rowsOf(queries: Queries, personId: number): Promise<Readonly<Record<string, readonly number[]>>> {
    const found: Record<string, readonly number[]> = {};
    for (const [table, column] of personUses) {
      const { rows } = await queries.execute<{ id: number }>(sql`
        SELECT id FROM ${sql.identifier(table)} WHERE ${sql.identifier(column)} = ${personId} ORDER BY id`);
      if (rows.length > 0) found[`${table}.${column}`] = rows.map(({ id }) => id);
    }
    return found;
  }

  /** The sections in which both sit, by name. */
  async sharedSections(queries: Queries, keptId: number, goneId: number): Promise<SharedSection[]> {
    const isUsed = (seat: string) =>
      sql.join(
        enrollmentUses.map(
          ([table, column]) =>
            sql`EXISTS (SELECT 1 FROM ${sql.identifier(table)} u WHERE u.${sql.identifier(column)} = ${sql.raw(seat)}.id)`,
        ),
        sql` OR `,
      );
    const seat = (
      name: string,
    ) => sql`jsonb_build_object('id', ${sql.raw(name)}.id, 'sectionId', ${sql.raw(name)}.section_id,
      'studentId', ${sql.raw(name)}.student_id, 'enteredOn', ${sql.raw(name)}.entered_on,
      'withdrawnOn', ${sql.raw(name)}.withdrawn_on, 'isUsed', ${isUsed(name)})`;
    const { rows } = await queries.execute<SharedSection & Record<string, unknown>>(sql`
      SELECT ${sectionNameOf('c', 's')} AS section, ${seat('k')} AS kept, ${seat('g')} AS gone
      FROM enrollments k JOIN enrollments g ON g.section_id = k.section_id
      JOIN sections s ON s.id = k.section_id JOIN courses c ON c.id = s.course_id
      WHERE k.student_id = ${keptId} AND g.student_id = ${goneId} ORDER BY 1`);
    return rows;
  }

  /** Gives all that was one record's to the other; the record itself is free to go then. */
  async merge(queries: Queries, goneId: number, { keptId, gone, moved, dropped }: MergedRecord): Promise<void> {
    const seats = intArray(dropped.map(({ id }) => id));
    await queries.execute(sql`DELETE FROM calculated_grades WHERE enrollment_id = ANY(${seats})`);
    await queries.execute(sql`DELETE FROM enrollments WHERE id = ANY(${seats})`);
    await this.give(queries, moved, keptId);
    await queries.execute(sql`DELETE FROM people WHERE id = ${goneId}`);
    await queries.execute(sql`
      INSERT INTO merged_people (gone_id, kept_id, gone, moved, dropped)
      VALUES (${goneId}, ${keptId}, ${JSON.stringify(gone)}::jsonb, ${JSON.stringify(moved)}::jsonb, ${JSON.stringify(dropped)}::jsonb)`);
  }

  /** Gives it back to the record, which is there again. */
  async part(queries: Queries, goneId: number, { moved, dropped }: MergedRecord): Promise<void> {
    await queries.execute(sql`DELETE FROM merged_people WHERE gone_id = ${goneId}`);
    await this.give(queries, moved, goneId);
    await queries.execute(sql`
      INSERT INTO enrollments (id, section_id, student_id, entered_on, withdrawn_on)
      SELECT n.id, n."sectionId", n."studentId", n."enteredOn", n."withdrawnOn"
      FROM jsonb_to_recordset(${JSON.stringify(dropped)}::jsonb)
        AS n (id int, "sectionId" int, "studentId" int, "enteredOn" date, "withdrawnOn" date)`);
  }

  private async give(queries: Queries, rows: MergedRecord['moved'], personId: number): Promise<void> {
    for (const [place, ids] of Object.entries(rows)) {
      const [table, column] = place.split('.') as [string, string];
      await queries.execute(sql`
        UPDATE ${sql.identifier(table)} SET ${sql.identifier(column)} = ${personId} WHERE id = ANY(${intArray(ids)})`);
    }
  }
}
