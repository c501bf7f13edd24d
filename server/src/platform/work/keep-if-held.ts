import { and, eq, type SQL } from 'drizzle-orm';
import type { AnyPgColumn, PgTable } from 'drizzle-orm/pg-core';
import type { Queries } from '../database/open-database.js';
import { WorkLost } from './held-work.js';

type LeasedTable = PgTable & { readonly id: AnyPgColumn; readonly worker: AnyPgColumn };

/**
 * Keeps what a worker says of a thing that it holds by a lease (`Leases`), in one statement.
 * @param isAtIt that the thing is still at what the worker works on
 * @throws WorkLost where the worker no longer holds it, or it is at something else
 */
export async function keepIfHeldOrThrow(
  queries: Queries,
  table: LeasedTable,
  { id, worker }: { readonly id: number; readonly worker: string },
  isAtIt: SQL | undefined,
  values: Readonly<Record<string, unknown>>,
): Promise<void> {
  const held = await queries
    .update(table)
    .set({ worker, ...values })
    .where(and(eq(table.id, id), eq(table.worker, worker), isAtIt))
    .returning({ id: table.id });
  if (held.length === 0) throw new WorkLost();
}
