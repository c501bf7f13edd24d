import { Injectable, type OnApplicationBootstrap } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { Transactions, type Queries } from '#server/platform';

/** Tells one state of what sheets' counts rest on from another, section by section, whoever wrote it. */
@Injectable()
export class SheetChangesRepository implements OnApplicationBootstrap {
  constructor(private readonly transactions: Transactions) {}

  /** By section; one of which nothing was ever written is not there. Each grows with every committed statement. */
  async of(queries: Queries, periodId: number): Promise<ReadonlyMap<number, string>> {
    const { rows } = await queries.execute<{ section: number; times: string }>(sql`
      SELECT section_id AS section, sum(times)::text AS times FROM sheet_changes
      WHERE period_id = ${periodId} OR period_id IS NULL GROUP BY section_id`);
    return new Map(rows.map(({ section, times }) => [section, times]));
  }

  /** Many rows become one with their sum, so that asking stays quick over the years. */
  async onApplicationBootstrap(): Promise<void> {
    await this.transactions.reading.execute(sql`
      WITH gone AS (DELETE FROM sheet_changes RETURNING section_id, period_id, times)
      INSERT INTO sheet_changes (section_id, period_id, times) SELECT section_id, period_id, sum(times) FROM gone GROUP BY 1, 2`);
  }
}
