import { Injectable } from '@nestjs/common';
import { and, eq, sql } from 'drizzle-orm';
import { DistrictZone, grantsOf, Settings, tables, Transactions, type Actor } from '#server/platform';

export interface Account extends Actor {
  /** Null until a first password is chosen. */
  readonly passwordHash: string | null;
}

@Injectable()
export class AccountsRepository {
  constructor(
    private readonly transactions: Transactions,
    private readonly settings: Settings,
    private readonly zone: DistrictZone,
  ) {}

  /** One that is active. */
  async findByUsername(username: string): Promise<Account | undefined> {
    const { accounts, people } = tables;
    const [account] = await this.transactions.reading
      .select({
        personId: accounts.personId,
        username: accounts.username,
        grants: grantsOf('accounts'),
        passwordHash: accounts.passwordHash,
        name: sql<string>`${people.givenName} || ' ' || ${people.familyName}`,
      })
      .from(accounts)
      .innerJoin(people, eq(people.id, accounts.personId))
      .where(and(eq(accounts.username, username), accounts.isActive));
    return account;
  }

  /** People whom the demo data brought, with their passwords in plain text; empty in a real district. */
  async demoPeople(): Promise<unknown> {
    return (await this.settings.value(this.transactions.reading, 'demo-people')) ?? [];
  }

  /** Name of the district; null until one is set. */
  async district(): Promise<string | null> {
    const district = await this.settings.value(this.transactions.reading, 'district');
    return (district as { readonly name: string } | undefined)?.name ?? null;
  }

  timeZone(): Promise<string> {
    return this.zone.name(this.transactions.reading);
  }
}
