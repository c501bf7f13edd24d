import { Injectable } from '@nestjs/common';
import { desc, eq, sql } from 'drizzle-orm';
import type { ExchangeSummaryReply } from '#contract/exchange';
import { problemOf } from '#contract/problems';
import { keepIfHeldOrThrow, keptRefusal, Refusal, spokenNameOf, tables, type Queries } from '#server/platform';

const { exchangeImports, people } = tables;

export type KeptImport = typeof exchangeImports.$inferSelect;

@Injectable()
export class ExchangeImportsRepository {
  /** Newest first. */
  async all(queries: Queries): Promise<ExchangeSummaryReply[]> {
    return this.summaries(queries, sql`true`);
  }

  async summary(queries: Queries, id: number): Promise<ExchangeSummaryReply> {
    return (await this.summaries(queries, eq(exchangeImports.id, id)))[0]!;
  }

  /** @throws Refusal not-found */
  async byIdOrThrow(queries: Queries, id: number): Promise<KeptImport> {
    const [found] = await queries.select().from(exchangeImports).where(eq(exchangeImports.id, id));
    if (!found) throw new Refusal('not-found', { what: 'zip', id });
    return found;
  }

  /** As `byIdOrThrow`, and nobody else deals with the zip until the transaction ends. */
  async lockedOrThrow(queries: Queries, id: number): Promise<KeptImport> {
    await queries.execute(sql`SELECT id FROM exchange_imports WHERE id = ${id} FOR UPDATE`);
    return this.byIdOrThrow(queries, id);
  }

  async add(queries: Queries, values: typeof exchangeImports.$inferInsert): Promise<number> {
    const [added] = await queries.insert(exchangeImports).values(values).returning({ id: exchangeImports.id });
    return added!.id;
  }

  async change(queries: Queries, id: number, values: Partial<KeptImport>): Promise<void> {
    await queries.update(exchangeImports).set(values).where(eq(exchangeImports.id, id));
  }

  /** @throws WorkLost where it was let go of, or another server works on it now */
  passOrThrow(queries: Queries, id: number, worker: string, values: Partial<KeptImport>): Promise<void> {
    return keepIfHeldOrThrow(queries, exchangeImports, { id, worker }, eq(exchangeImports.status, 'accepting'), values);
  }

  async remove(queries: Queries, id: number): Promise<void> {
    await queries.delete(exchangeImports).where(eq(exchangeImports.id, id));
  }

  private async summaries(queries: Queries, which: ReturnType<typeof sql>): Promise<ExchangeSummaryReply[]> {
    const rows = await queries
      .select({
        id: exchangeImports.id,
        fileName: exchangeImports.fileName,
        version: exchangeImports.version,
        status: exchangeImports.status,
        readAt: exchangeImports.readAt,
        stepCount: exchangeImports.stepCount,
        stepsDone: exchangeImports.stepsDone,
        problem: exchangeImports.problem,
        readBy: spokenNameOf('people'),
      })
      .from(exchangeImports)
      .innerJoin(people, eq(people.id, exchangeImports.readBy))
      .where(which)
      .orderBy(desc(exchangeImports.id));
    return rows.map(({ readAt, problem, ...row }) => {
      const refusal = keptRefusal(problem);
      const detail = refusal && problemOf(refusal.code, refusal.data, []).detail;
      return { ...row, readAt: readAt.toISOString(), problem: detail };
    });
  }
}
