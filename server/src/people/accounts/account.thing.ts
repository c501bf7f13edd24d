import { isRegistrarOfAll, type Grant } from '#core/access';
import { ThingOf, type Thing } from '#server/changes';
import { Refusal, type PlaceOf, type Queries } from '#server/platform';
import { StaffAccountsRepository } from './staff-accounts.repository.js';

/** An account as the log tells of it; of its password nothing is told. */
export interface AccountValue {
  readonly personId: number;
  readonly grants: readonly Grant[];
  readonly isActive: boolean;
}

/** Accounts, by their sign-in names. At least one registrar of the whole district can always sign in. */
@ThingOf({ kind: 'account', called: 'the account', change: 'manage-access', see: 'manage-access' })
export class AccountThing implements Thing<AccountValue> {
  constructor(private readonly accounts: StaffAccountsRepository) {}

  within({ grants }: AccountValue): (PlaceOf | null)[] {
    return grants.map(({ schoolId }) => (schoolId === null ? null : { kind: 'school', id: schoolId }));
  }

  async names(queries: Queries, usernames: readonly string[]): Promise<ReadonlyMap<string, string>> {
    const found = await this.accounts.byUsernames(queries, usernames);
    return new Map(found.map(({ username, name }) => [username, `the account of ${name}`]));
  }

  /** So that of two registrars who take the role from one another one stays. */
  hold(queries: Queries): Promise<void> {
    return this.accounts.hold(queries);
  }

  async read(queries: Queries, usernames: readonly string[]): Promise<ReadonlyMap<string, AccountValue>> {
    const found = await this.accounts.byUsernames(queries, usernames);
    return new Map(found.map(({ username, personId, grants, isActive }) => [username, { personId, grants, isActive }]));
  }

  /** @throws Refusal last-registrar, username-taken where somebody else has the name meanwhile */
  async check(queries: Queries, values: ReadonlyMap<string, AccountValue | null>): Promise<void> {
    const before = await this.accounts.byUsernames(queries, [...values.keys()]);
    for (const { username, personId } of before) {
      const after = values.get(username);
      if (after && after.personId !== personId) throw new Refusal('username-taken', { username });
    }
    const lasting = before.filter(({ hasPassword, username }) => hasPassword && isRegistrar(values.get(username)));
    const lost = before.find(
      (account) => account.hasPassword && isRegistrar(account) && !isRegistrar(values.get(account.username)),
    );
    if (lost && lasting.length === 0 && !(await this.accounts.hasRegistrarBesides(queries, [...values.keys()])))
      throw new Refusal('last-registrar', { name: lost.name });
  }

  async write(queries: Queries, values: ReadonlyMap<string, AccountValue | null>): Promise<void> {
    await this.accounts.put(queries, values);
  }
}

function isRegistrar(account: Pick<AccountValue, 'grants' | 'isActive'> | null | undefined): boolean {
  return account !== null && account !== undefined && account.isActive && isRegistrarOfAll(account.grants);
}
