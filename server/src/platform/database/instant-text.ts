import { sql, type SQL } from 'drizzle-orm';

/** An instant as it crosses the wire, to the millisecond: "2026-01-21T10:42:00.000Z". The column as it stands in the query. */
export function instantText(column: string): SQL<string> {
  return sql.raw(`to_char(${column} AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`) as SQL<string>;
}
