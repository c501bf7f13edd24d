import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { mayInAll } from '#core/access';
import { eq } from 'drizzle-orm';
import { Clock } from '../clock/clock.js';
import { spokenName } from '../database/names.js';
import { accounts, people } from '../database/tables/people.js';
import { Transactions } from '../database/transactions.js';
import type { Actor, SignedIn } from './actor.js';
import { grantsOf } from './grants-of.js';

/** However busily it is used: the longest day of the year has one night. */
const longestSession = 24 * 60 * 60 * 1000;

/** Who is signed in, as the database has it at this moment. */
@Injectable()
export class Actors {
  constructor(
    private readonly transactions: Transactions,
    private readonly clock: Clock,
  ) {}

  /**
   * Undefined where the session has had its time, or the account is gone, is not active or has another password since it began.
   * Somebody who looks at what another person sees is that person, as long as they have a say in all of that person's roles.
   */
  async of({ personId, passwordMark, since, seesAs }: SignedIn): Promise<Actor | undefined> {
    if (this.clock.now().getTime() - Date.parse(since) > longestSession) return undefined;
    const account = await this.accountOf(personId);
    if (!account?.isActive || !account.passwordHash || markOf(account.passwordHash) !== passwordMark) return undefined;
    const { passwordHash: _hash, isActive: _isActive, ...actor } = account;
    if (seesAs === undefined) return actor;
    const seen = await this.accountOf(seesAs);
    if (!seen || !mayInAll(actor, 'see-as', seen.grants)) return actor;
    const { username, name, grants } = seen;
    const behind = { personId, name: `${actor.name}, seeing as ${name}` };
    return { personId: seesAs, username, name, grants, behind };
  }

  private async accountOf(personId: number) {
    const [account] = await this.transactions.reading
      .select({
        personId: accounts.personId,
        username: accounts.username,
        grants: grantsOf('accounts'),
        name: spokenName,
        passwordHash: accounts.passwordHash,
        isActive: accounts.isActive,
      })
      .from(accounts)
      .innerJoin(people, eq(people.id, accounts.personId))
      .where(eq(accounts.personId, personId));
    return account;
  }

  /** What a session that begins now is to know. */
  signedIn(personId: number, passwordHash: string): SignedIn {
    return { personId, passwordMark: markOf(passwordHash), since: this.clock.now().toISOString() };
  }
}

/** Tells one password from another, and nothing about either. */
function markOf(passwordHash: string): string {
  return createHash('sha256').update(passwordHash).digest('hex').slice(0, 32);
}
