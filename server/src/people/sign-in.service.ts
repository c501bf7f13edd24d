import { Injectable } from '@nestjs/common';
import { hash, verify } from '@node-rs/argon2';
import { mayInAll } from '#core/access';
import { normalPassword } from '#core/people';
import { ChangeLog } from '#server/changes';
import { Actors, Refusal, Transactions, type Actor, type SignedIn } from '#server/platform';
import { AccountsRepository } from './accounts.repository.js';
import { SignInTries, type TriedFrom } from './sign-in-tries.js';

/** What a password is checked against when there is no such account, so that both take the same time. */
const nobodysHash = hash('no password at all');

/** Who signs in, out, or tries to in vain; each leaves an entry in the log. */
@Injectable()
export class SignInService {
  constructor(
    private readonly accounts: AccountsRepository,
    private readonly tries: SignInTries,
    private readonly actors: Actors,
    private readonly transactions: Transactions,
    private readonly log: ChangeLog,
  ) {}

  /** @throws Refusal sign-in-failed, the same for an unknown name as for a wrong password; too-many-tries */
  async signInOrThrow(typed: string, password: string, from: TriedFrom): Promise<{ actor: Actor; signedIn: SignedIn }> {
    const username = typed.trim().toLowerCase();
    await this.tries.countOrThrow(username, from);
    const account = await this.accounts.findByUsername(username);
    const isRight = await verify(account?.passwordHash ?? (await nobodysHash), normalPassword(password));
    if (!account?.passwordHash || !isRight) {
      // What was typed for a name that there is not may be a password.
      await this.note(
        { personId: null, name: 'Not signed in' },
        'sign-in refused',
        account?.username ?? 'unknown',
        from,
      );
      throw new Refusal('sign-in-failed');
    }
    await this.tries.forgive(username, from);
    const { passwordHash, ...actor } = account;
    return this.begin(actor, passwordHash, from);
  }

  /** Lets somebody in who has just shown who they are. */
  async begin(actor: Actor, passwordHash: string, from: TriedFrom): Promise<{ actor: Actor; signedIn: SignedIn }> {
    await this.note(actor, 'sign in', actor.username, from);
    return { actor, signedIn: this.signedIn(actor, passwordHash) };
  }

  /** What a session knows of somebody with a password. */
  signedIn({ personId }: Actor, passwordHash: string): SignedIn {
    return this.actors.signedIn(personId, passwordHash);
  }

  /** @throws Refusal not-found where there is no account, role-elsewhere where the actor has no say in all of its roles */
  async noteSeeing(actor: Actor, personId: number, from: TriedFrom): Promise<void> {
    const seen = await this.accounts.findByPerson(personId);
    if (!seen) throw new Refusal('not-found', { what: 'account of person', id: personId });
    if (!mayInAll(actor, 'see-as', seen.grants)) throw new Refusal('role-elsewhere', { name: seen.name });
    await this.note(actor, 'see what they see', seen.username, from);
  }

  async signOut(actor: Actor, from: TriedFrom): Promise<void> {
    await this.note(actor, 'sign out', actor.username, from);
  }

  private note(who: { personId: number | null; name: string }, action: string, username: string, from: TriedFrom) {
    return this.transactions.run((queries) =>
      this.log.note(queries, who, [{ action, thing: `account ${username}`, after: from }]),
    );
  }
}
