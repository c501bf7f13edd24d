import { randomInt } from 'node:crypto';
import { hash } from '@node-rs/argon2';
import { count } from 'drizzle-orm';
import { tables, type OpenDatabase } from '#server/platform';

export interface FirstRegistrar {
  readonly username: string;
  readonly password: string;
}

/** Letters and figures that cannot be taken for one another. */
const clearSigns = 'abcdefghjkmnpqrstuvwxyz23456789';

/**
 * Makes a registrar in a database without accounts, so that somebody can sign in to a Wombat that starts empty. The
 * password is drawn by lot, told once and kept only as a hash. Null where there is an account already.
 */
export async function makeFirstRegistrar({ queries }: OpenDatabase): Promise<FirstRegistrar | null> {
  return queries.transaction(async (transaction) => {
    const [accounts] = await transaction.select({ count: count() }).from(tables.accounts);
    if (accounts!.count > 0) return null;
    const password = Array.from({ length: 16 }, () => clearSigns[randomInt(clearSigns.length)]).join('');
    const [person] = await transaction
      .insert(tables.people)
      .values({ sourcedId: 'first-registrar', kind: 'staff', givenName: 'First', familyName: 'Registrar', email: '' })
      .returning({ id: tables.people.id });
    const account = {
      personId: person!.id,
      username: 'registrar',
      role: 'registrar',
      passwordHash: await hash(password),
    } as const;
    await transaction.insert(tables.accounts).values(account);
    return { username: account.username, password };
  });
}
