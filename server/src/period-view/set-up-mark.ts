import { Injectable, type OnApplicationBootstrap } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { Transactions, type Queries } from '#server/platform';

/** Tells one state of the set-up from another, whoever wrote it, this server or one beside it. */
@Injectable()
export class SetUpMark implements OnApplicationBootstrap {
  constructor(private readonly transactions: Transactions) {}

  /** Grows with every statement that writes what the set-up rests on: of others once it is committed, of one's own at once. */
  async now(queries: Queries): Promise<string> {
    const { rows } = await queries.execute<{ mark: string }>(
      sql`SELECT coalesce(sum(times), 0)::text AS mark FROM set_up_changes`,
    );
    return rows[0]!.mark;
  }

  /** Many rows become one with their sum, so that asking stays quick over the years. */
  async onApplicationBootstrap(): Promise<void> {
    await this.transactions.reading.execute(sql`
      WITH gone AS (DELETE FROM set_up_changes RETURNING times)
      INSERT INTO set_up_changes (times) SELECT sum(times) FROM gone HAVING count(*) > 0`);
  }
}
