import { randomInt } from 'node:crypto';
import { hash } from '@node-rs/argon2';
import { and, eq } from 'drizzle-orm';
import { tables, type OpenDatabase, type Queries } from '#server/platform';

export interface FirstRegistrar {
  readonly username: string;
  readonly password: string;
}

/** Letters and figures that cannot be taken for one another. */
const clearSigns = 'abcdefghjkmnpqrstuvwxyz23456789';
const username = 'registrar';
/** By which the person is known again, who is nobody of a roster. */
export const firstRegistrarId = 'first-registrar';

/**
 * Makes a registrar in a database without accounts, so that somebody can sign in to a Wombat that starts empty. The
 * password is drawn by lot, told at the start and kept only as a hash; until it was used, each start draws another, as the
 * one before may have been told to nobody. Null where there is another account, or this one was used.
 */
export async function makeFirstRegistrar({ queries }: OpenDatabase): Promise<FirstRegistrar | null> {
  return queries.transaction(async (transaction) => {
    const accounts = await transaction.select().from(tables.accounts).limit(2);
    const password = Array.from({ length: 16 }, () => clearSigns[randomInt(clearSigns.length)]).join('');
    const passwordHash = await hash(password);
    const [account] = accounts;
    if (!account) await addAccount(transaction, passwordHash);
    else if (accounts.length === 1 && (await isUnused(transaction, account)))
      await transaction.update(tables.accounts).set({ passwordHash }).where(eq(tables.accounts.id, account.id));
    else return null;
    return { username, password };
  });
}

async function addAccount(queries: Queries, passwordHash: string): Promise<void> {
  const { people, accounts, accountRoles } = tables;
  const [person] = await queries
    .insert(people)
    .values({
      sourcedId: firstRegistrarId,
      isMadeHere: true,
      kind: 'staff',
      givenName: 'First',
      familyName: 'Registrar',
      email: '',
    })
    .returning({ id: people.id });
  const [account] = await queries
    .insert(accounts)
    .values({ personId: person!.id, username, passwordHash })
    .returning({ id: accounts.id });
  await queries.insert(accountRoles).values({ accountId: account!.id, role: 'registrar' });
}

async function isUnused(queries: Queries, account: { readonly personId: number }): Promise<boolean> {
  const { people, changeLog } = tables;
  const [person] = await queries.select().from(people).where(eq(people.id, account.personId));
  if (person?.sourcedId !== firstRegistrarId) return false;
  const [used] = await queries
    .select({ id: changeLog.id })
    .from(changeLog)
    .where(and(eq(changeLog.actorId, account.personId), eq(changeLog.action, 'sign in')))
    .limit(1);
  return used === undefined;
}
