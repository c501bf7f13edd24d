import { Injectable } from '@nestjs/common';
import { sql, type SQL } from 'drizzle-orm';
import type { SignOffReply } from '#contract/posting';
import { instantText, intArray, sectionNameOf, spokenNameOf, tables, type Queries } from '#server/platform';
import { sheetId, sheetPlaceOf, type SheetPlace } from './sheet-place.js';

const { signOffs } = tables;

/** As the log tells of a sign-off. */
export interface SignOffValue {
  readonly signedBy: number;
  readonly onBehalfOf: number | null;
  /** ISO instant. */
  readonly signedAt: string;
  readonly note: string;
}

@Injectable()
export class SignOffsRepository {
  /** By the name of the sheet; one that is not signed off is not there. */
  async valuesOf(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, SignOffValue>> {
    const { rows } = await queries.execute<{ id: string } & SignOffValue & Record<string, unknown>>(sql`
      SELECT concat_ws('/', o.section_id, o.item_id, o.period_id) AS id, o.signed_by AS "signedBy", o.on_behalf_of AS "onBehalfOf",
        ${instantText('o.signed_at')} AS "signedAt", o.note
      FROM jsonb_to_recordset(${JSON.stringify(ids.map(sheetPlaceOf))}::jsonb) AS w("sectionId" int, "itemId" int, "periodId" int)
      JOIN sign_offs o ON o.section_id = w."sectionId" AND o.item_id = w."itemId" AND o.period_id = w."periodId"`);
    return new Map(rows.map(({ id, ...value }) => [id, value]));
  }

  /** What people call sheets: "Quarter grade of Making 2 (Quarter 1)". */
  async namesOf(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, string>> {
    const { rows } = await queries.execute<{ id: string; name: string }>(sql`
      SELECT concat_ws('/', s.id, i.id, p.id) AS id, i.name || ' of ' || ${sectionNameOf('c', 's')} || ' (' || p.name || ')' AS name
      FROM jsonb_to_recordset(${JSON.stringify(ids.map(sheetPlaceOf))}::jsonb) AS w("sectionId" int, "itemId" int, "periodId" int)
      JOIN sections s ON s.id = w."sectionId" JOIN courses c ON c.id = s.course_id
      JOIN report_items i ON i.id = w."itemId" JOIN periods p ON p.id = w."periodId"`);
    return new Map(rows.map(({ id, name }) => [id, name]));
  }

  async write(queries: Queries, values: ReadonlyMap<string, SignOffValue | null>): Promise<void> {
    const ids = [...values.keys()].map(sheetPlaceOf);
    await queries.execute(sql`
      DELETE FROM sign_offs o USING jsonb_to_recordset(${JSON.stringify(ids)}::jsonb) AS w("sectionId" int, "itemId" int, "periodId" int)
      WHERE o.section_id = w."sectionId" AND o.item_id = w."itemId" AND o.period_id = w."periodId"`);
    const rows = [...values].flatMap(([id, value]) =>
      value ? [{ ...sheetPlaceOf(id), ...value, signedAt: new Date(value.signedAt) }] : [],
    );
    if (rows.length > 0) await queries.insert(signOffs).values(rows);
  }

  /** Of the sheets of some sections in a period, by the name of the sheet. */
  ofSections(
    queries: Queries,
    periodId: number,
    sectionIds: readonly number[],
  ): Promise<ReadonlyMap<string, SignOffReply>> {
    return this.where(queries, sql`o.period_id = ${periodId} AND o.section_id = ANY(${intArray(sectionIds)})`);
  }

  /** Of some sheets, by their names. */
  ofSheets(queries: Queries, ids: readonly string[]): Promise<ReadonlyMap<string, SignOffReply>> {
    return this.where(
      queries,
      sql`(o.section_id, o.item_id, o.period_id) IN (SELECT "sectionId", "itemId", "periodId"
        FROM jsonb_to_recordset(${JSON.stringify(ids.map(sheetPlaceOf))}::jsonb) AS w("sectionId" int, "itemId" int, "periodId" int))`,
    );
  }

  private async where(queries: Queries, condition: SQL): Promise<ReadonlyMap<string, SignOffReply>> {
    const { rows } = await queries.execute<SignOffReply & SheetPlace & Record<string, unknown>>(sql`
      SELECT o.section_id AS "sectionId", o.item_id AS "itemId", o.period_id AS "periodId", ${spokenNameOf('b')} AS by,
        CASE WHEN t.id IS NOT NULL THEN ${spokenNameOf('t')} END AS "onBehalfOf", ${instantText('o.signed_at')} AS at, o.note
      FROM sign_offs o JOIN people b ON b.id = o.signed_by LEFT JOIN people t ON t.id = o.on_behalf_of WHERE ${condition}`);
    return new Map(
      rows.map(({ by, onBehalfOf, at, note, ...place }) => [sheetId(place), { by, onBehalfOf, at, note }]),
    );
  }
}
