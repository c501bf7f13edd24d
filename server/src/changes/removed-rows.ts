import { desc, eq, sql, type SQL } from 'drizzle-orm';
import { isConstraintViolation, Refusal, tables, type Queries } from '#server/platform';

/** The rows that a removal takes away, table by table in the order in which they can be written again. */
export type RemovedRows = readonly { readonly table: string; readonly rows: readonly object[] }[];

/** Reads what a removal is about to take away. It belongs in the `rows` of the removal's `before` in the log. */
export async function rowsToRemove(
  queries: Queries,
  tablesInOrder: readonly { readonly table: string; readonly where: SQL }[],
): Promise<RemovedRows> {
  const kept: { table: string; rows: object[] }[] = [];
  for (const { table, where } of tablesInOrder) {
    const { rows } = await queries.execute<{ row: object }>(
      sql`SELECT to_jsonb(t) AS row FROM ${sql.identifier(table)} t WHERE ${where}`,
    );
    kept.push({ table, rows: rows.map(({ row }) => row) });
  }
  return kept;
}

/**
 * Writes the rows of a thing's removal again, under the numbers that they had: whatever named them names them again.
 * @throws Refusal not-found where the last thing that the log tells of `thing` is not its removal, and cannot-bring-back where
 *   what it hung on is gone meanwhile
 */
export async function bringBackRows(queries: Queries, thing: string, what: string): Promise<void> {
  const { changeLog } = tables;
  const [last] = await queries
    .select({ before: changeLog.before, after: changeLog.after })
    .from(changeLog)
    .where(eq(changeLog.thing, thing))
    .orderBy(desc(changeLog.id))
    .limit(1);
  const removed = last?.after === null ? (last.before as { rows?: RemovedRows } | null)?.rows : undefined;
  if (!removed) throw new Refusal('not-found', { what: `removed ${what}`, id: thing.replace(/\D/g, '') });
  for (const { table, rows } of removed) {
    const into = sql.identifier(table);
    const written = sql`INSERT INTO ${into} SELECT * FROM jsonb_populate_recordset(NULL::${into}, ${JSON.stringify(rows)}::jsonb)`;
    await queries.execute(written).catch((error: unknown) => {
      throw isConstraintViolation(error) ? new Refusal('cannot-bring-back', { action: `remove ${what}` }) : error;
    });
  }
}
