import { Injectable } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { usualView, withViewChange, type OwnView, type OwnViewChange } from '#core/people';
import { Transactions, type Queries } from '#server/platform';

/** More than anybody has grids; the oldest layouts beyond them are forgotten. */
const mostLayouts = 300;

/** How each person likes what they see. It is no change of the district's data: nobody else sees it, and the log is not told. */
@Injectable()
export class OwnViewsRepository {
  constructor(private readonly transactions: Transactions) {}

  read(personId: number): Promise<OwnView> {
    return this.transactions.snapshot((queries) => this.kept(queries, personId));
  }

  /** Changes what is named, and leaves the rest as it is, whichever tab or machine it was chosen on. */
  change(personId: number, change: OwnViewChange): Promise<OwnView> {
    return this.transactions.run(async (queries) => {
      await queries.execute(sql`SELECT pg_advisory_xact_lock(hashtext('own view'), ${personId})`);
      const view = withViewChange(await this.kept(queries, personId), change);
      const columns = Object.fromEntries(Object.entries(view.columns).slice(-mostLayouts));
      const after = { ...view, columns };
      await queries.execute(sql`
        INSERT INTO own_views (account_id, view) SELECT id, ${JSON.stringify(after)}::jsonb FROM accounts WHERE person_id = ${personId}
        ON CONFLICT (account_id) DO UPDATE SET view = excluded.view`);
      return after;
    });
  }

  private async kept(queries: Queries, personId: number): Promise<OwnView> {
    const { rows } = await queries.execute<{ view: Partial<OwnView> }>(
      sql`SELECT v.view FROM own_views v JOIN accounts a ON a.id = v.account_id WHERE a.person_id = ${personId}`,
    );
    return { ...usualView, ...rows[0]?.view };
  }
}
