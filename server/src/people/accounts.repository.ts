import { Injectable } from '@nestjs/common';
import { eq, sql } from 'drizzle-orm';
import { tables, Transactions, type Actor } from '#server/platform';

export interface Account extends Actor {
  readonly passwordHash: string;
}

@Injectable()
export class AccountsRepository {
  constructor(private readonly transactions: Transactions) {}

  async findByUsername(username: string): Promise<Account | undefined> {
    const { accounts, people } = tables;
    const [account] = await this.transactions.reading
      .select({
        personId: accounts.personId,
        username: accounts.username,
        role: accounts.role,
        passwordHash: accounts.passwordHash,
        name: sql<string>`${people.givenName} || ' ' || ${people.familyName}`,
      })
      .from(accounts)
      .innerJoin(people, eq(people.id, accounts.personId))
      .where(eq(accounts.username, username));
    return account;
  }

  /** People whom the demo data brought, with their passwords in plain text; empty in a real district. */
  async demoPeople(): Promise<unknown> {
    return (await this.setting('demo-people')) ?? [];
  }

  /** The district's time zone; the server's own until one is set. */
  async timeZone(): Promise<string> {
    const zone = await this.setting('time-zone');
    return typeof zone === 'string' ? zone : Intl.DateTimeFormat().resolvedOptions().timeZone;
  }

  private async setting(key: string): Promise<unknown> {
    const { settings } = tables;
    const [row] = await this.transactions.reading.select().from(settings).where(eq(settings.key, key));
    return row?.value;
  }
}
