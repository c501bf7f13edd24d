import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import type { SharedSection } from '#core/people';
import { isUsedOf } from '#server/sections';
import { intArray, sectionNameOf, type Queries } from '#server/platform';
import { personUses } from '../roster.repository.js';

/** All that was a record's and became another's. */
export interface MergedRecord {
  readonly keptId: number;
  /** By which a roster knew the record that went. */
  readonly goneSourcedId: string;
  /** Numbers of the rows that named it, by "table.column". */
  readonly moved: Readonly<Record<string, readonly number[]>>;
}

/** Which records were merged, and what hung on them. */
@Injectable()
export class MergedPeopleRepository {
  async byGoneIds(queries: Queries, ids: readonly number[]): Promise<ReadonlyMap<number, MergedRecord>> {
    const { rows } = await queries.execute<MergedRecord & { goneId: number } & Record<string, unknown>>(sql`
      SELECT gone_id AS "goneId", kept_id AS "keptId", gone_sourced_id AS "goneSourcedId", moved
      FROM merged_people WHERE gone_id = ANY(${intArray(ids)})`);
    return new Map(rows.map(({ goneId, ...record }) => [goneId, record]));
  }

  /** What names a person anywhere, by "table.column". One query. */
  async rowsOf(queries: Queries, personId: number): Promise<MergedRecord['moved']> {
    const each = personUses.map(
      ([table, column]) => sql`
        SELECT ${`${table}.${column}`}::text AS place, array_agg(id ORDER BY id) AS ids FROM ${sql.identifier(table)}
        WHERE ${sql.identifier(column)} = ${personId}`,
    );
    const { rows } = await queries.execute<{ place: string; ids: number[] }>(sql`
      SELECT place, ids FROM (${sql.join(each, sql` UNION ALL `)}) AS found WHERE ids IS NOT NULL`);
    return Object.fromEntries(rows.map(({ place, ids }) => [place, ids]));
  }

  /** The sections in which both sit, by name. */
  async sharedSections(queries: Queries, keptId: number, goneId: number): Promise<SharedSection[]> {
    const seat = (name: string) =>
      sql`jsonb_build_object('id', ${sql.identifier(name)}.id, 'isUsed', ${isUsedOf(name)})`;
    const { rows } = await queries.execute<SharedSection & Record<string, unknown>>(sql`
      SELECT ${sectionNameOf('c', 's')} AS section, ${seat('k')} AS "keptSeat", ${seat('g')} AS "goneSeat"
      FROM enrollments k JOIN enrollments g ON g.section_id = k.section_id
      JOIN sections s ON s.id = k.section_id JOIN courses c ON c.id = s.course_id
      WHERE k.student_id = ${keptId} AND g.student_id = ${goneId} ORDER BY 1`);
    return rows;
  }

  /** Gives all that was one record's to the other. */
  async merge(queries: Queries, goneId: number, { keptId, goneSourcedId, moved }: MergedRecord): Promise<void> {
    await this.give(queries, moved, keptId);
    await queries.execute(sql`
      INSERT INTO merged_people (gone_id, kept_id, gone_sourced_id, moved)
      VALUES (${goneId}, ${keptId}, ${goneSourcedId}, ${JSON.stringify(moved)}::jsonb)`);
  }

  /** Gives it back to the record, which is there again. */
  async part(queries: Queries, goneId: number, { moved }: MergedRecord): Promise<void> {
    await queries.execute(sql`DELETE FROM merged_people WHERE gone_id = ${goneId}`);
    await this.give(queries, moved, goneId);
  }

  private async give(queries: Queries, rows: MergedRecord['moved'], personId: number): Promise<void> {
    for (const [place, ids] of Object.entries(rows)) {
      const [table, column] = place.split('.') as [string, string];
      await queries.execute(sql`
        UPDATE ${sql.identifier(table)} SET ${sql.identifier(column)} = ${personId} WHERE id = ANY(${intArray(ids)})`);
    }
  }
}
