import { Injectable } from '@nestjs/common';
import { and, eq, type SQL } from 'drizzle-orm';
import { DistrictZone, grantsOf, Settings, tables, Transactions, type Actor, spokenName } from '#server/platform';

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
  findByUsername(username: string): Promise<Account | undefined> {
    return this.findWhere(and(eq(tables.accounts.username, username), tables.accounts.isActive));
  }

  findByPerson(personId: number): Promise<Account | undefined> {
    return this.findWhere(eq(tables.accounts.personId, personId));
  }

  private async findWhere(condition: SQL | undefined): Promise<Account | undefined> {
    const { accounts, people } = tables;
    const [account] = await this.transactions.reading
      .select({
        personId: accounts.personId,
        username: accounts.username,
        grants: grantsOf('accounts'),
        passwordHash: accounts.passwordHash,
        name: spokenName,
      })
      .from(accounts)
      .innerJoin(people, eq(people.id, accounts.personId))
      .where(condition);
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
