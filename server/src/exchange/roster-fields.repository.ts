import { Injectable } from '@nestjs/common';
import { sql, type SQL } from 'drizzle-orm';
import { betweenKeys, type ExchangeFile, type RosterFields } from '#core/exchange';
import { textList, type Queries } from '#server/platform';
import { inPieces } from './writing.js';

/** What rosters said of things beyond what Wombat works with, by file and key. */
export type KeptFields = ReadonlyMap<ExchangeFile, ReadonlyMap<string, RosterFields>>;

export interface FieldsOfRow {
  readonly file: ExchangeFile;
  readonly key: string;
  readonly sourcedId: string;
  /** Null where nothing has to be kept. */
  readonly fields: RosterFields | null;
}

@Injectable()
export class RosterFieldsRepository {
  allButResults(queries: Queries): Promise<KeptFields> {
    return this.some(queries, sql`file <> 'results'`);
  }

  /** What was said of results, by their keys. */
  ofResults(queries: Queries, keys: readonly string[]): Promise<KeptFields> {
    return this.some(queries, sql`file = 'results' AND key IN ${textList(keys)}`);
  }

  private async some(queries: Queries, which: SQL): Promise<KeptFields> {
    const { rows } = await queries.execute<{ file: ExchangeFile; key: string; fields: RosterFields }>(sql`
      SELECT file, key, fields FROM roster_fields WHERE ${which}`);
    const kept = new Map<ExchangeFile, Map<string, RosterFields>>();
    for (const { file, key, fields } of rows) kept.set(file, (kept.get(file) ?? new Map()).set(key, fields));
    return kept;
  }

  /** The line items of results that are named by their own ids alone, as a delta may name what goes. */
  async lineItemsOf(queries: Queries, resultIds: readonly string[]): Promise<string[]> {
    if (resultIds.length === 0) return [];
    const { rows } = await queries.execute<{ item: string }>(sql`
      SELECT DISTINCT split_part(key, ${betweenKeys}, 1) AS item FROM roster_fields
      WHERE file = 'results' AND sourced_id IN ${textList(resultIds)}`);
    return rows.map(({ item }) => item);
  }

  async keep(queries: Queries, rows: readonly FieldsOfRow[]): Promise<void> {
    await inPieces(
      rows.filter(({ fields }) => fields !== null),
      (piece) =>
        queries.execute(sql`
      INSERT INTO roster_fields (file, key, sourced_id, fields)
      SELECT n.file, n.key, n."sourcedId", n.fields
      FROM jsonb_to_recordset(${piece}::jsonb) AS n (file text, key text, "sourcedId" text, fields jsonb)
      ON CONFLICT (file, key) DO UPDATE SET sourced_id = excluded.sourced_id, fields = excluded.fields`),
    );
    await inPieces(
      rows.filter(({ fields }) => fields === null).map(({ file, key }) => ({ file, key })),
      (piece) =>
        queries.execute(sql`
      DELETE FROM roster_fields r USING jsonb_to_recordset(${piece}::jsonb) AS n (file text, key text)
      WHERE r.file = n.file AND r.key = n.key`),
    );
  }
}
