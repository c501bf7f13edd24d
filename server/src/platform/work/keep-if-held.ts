import { and, eq, type SQL } from 'drizzle-orm';
import type { AnyPgColumn, PgTable, PgUpdateSetSource } from 'drizzle-orm/pg-core';
import type { Queries } from '../database/open-database.js';
import { WorkLost } from './held-work.js';

type LeasedTable = PgTable & { readonly id: AnyPgColumn; readonly worker: AnyPgColumn };

/**
 * Keeps what a worker says of a thing that it holds by a lease (`Leases`), in one statement.
 * @param isAtIt that the thing is still at what the worker works on
 * @throws WorkLost where the worker no longer holds it, or it is at something else
 */
export async function keepIfHeldOrThrow<Table extends LeasedTable>(
  queries: Queries,
  table: Table,
  { id, worker }: { readonly id: number; readonly worker: string },
  isAtIt: SQL | undefined,
  values: PgUpdateSetSource<Table>,
): Promise<void> {
  const held = await queries
    .update(table as PgTable)
    .set({ worker, ...values } as PgUpdateSetSource<PgTable>)
    .where(and(eq(table.id, id), eq(table.worker, worker), isAtIt))
    .returning({ id: table.id });
  if (held.length === 0) throw new WorkLost();
}
