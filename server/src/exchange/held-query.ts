import { sql, type SQL } from 'drizzle-orm';
import { extension, type ExchangeRow } from '#core/exchange';
import type { Queries } from '#server/platform';

/** The rows of a query under the names of the format. A null is a blank, as the format writes it. */
export async function rowsOf(queries: Queries, query: SQL): Promise<ExchangeRow[]> {
  const { rows } = await queries.execute<Record<string, string | null>>(query);
  return rows.map((row) => Object.fromEntries(Object.entries(row).map(([name, value]) => [name, value ?? ''])));
}

type Kind = 'scale' | 'school' | 'period' | 'course' | 'section' | 'enrollment' | 'category' | 'assignment';

/** The id under which others know it; else one of our own making, which is kept once something refers to it. */
export function idOf(kind: Kind): SQL {
  return kind === 'school'
    ? sql`coalesce(own.sourced_id, s.code)`
    : sql`coalesce(own.sourced_id, ${sql.raw(`'${kind}-'`)} || own_id.id)`;
}

/** Joins the id under which others know a thing, as `idOf` reads it. */
export function joinId(kind: Kind, id: SQL): SQL {
  return sql`CROSS JOIN LATERAL (SELECT ${id} AS id) own_id
    LEFT JOIN sourced_ids own ON own.kind = ${sql.raw(`'${kind}'`)} AND own.our_id = own_id.id`;
}

/** A column of our own, which the standard lets be. */
export function column(name: string): SQL {
  return sql.identifier(extension(name)) as unknown as SQL;
}
