import { Injectable } from '@nestjs/common';
import { hash, verify } from '@node-rs/argon2';
import { normalPassword, passwordFault } from '#core/people';
import {
  passwordFaultSentences,
  type ChangePasswordRequest,
  type LinkReply,
  type UseLinkRequest,
} from '#contract/people';
import { ChangeLog, sha256 } from '#server/changes';
import { Clock, Refusal, Transactions, type Actor, type Queries, type SignedIn } from '#server/platform';
import { AccountsRepository } from '../accounts.repository.js';
import { SignInService } from '../sign-in.service.js';
import { SignInTries, type TriedFrom } from '../sign-in-tries.js';
import { StaffAccountsRepository } from './staff-accounts.repository.js';

/** Passwords that people choose, by a link that was sent to them or by the one they have. */
@Injectable()
export class PasswordsService {
  constructor(
    private readonly transactions: Transactions,
    private readonly staff: StaffAccountsRepository,
    private readonly accounts: AccountsRepository,
    private readonly tries: SignInTries,
    private readonly signIns: SignInService,
    private readonly log: ChangeLog,
    private readonly clock: Clock,
  ) {}

  /** @throws Refusal link-gone */
  async lookAt(token: string): Promise<LinkReply> {
    return this.transactions.run(async (queries) => {
      const { name, username, isFirst } = await this.linkedOrThrow(queries, token);
      return { name, username, isFirst };
    });
  }

  /** Sets the password and signs in. @throws Refusal link-gone, fields-wrong */
  async use({ token, password }: UseLinkRequest, from: TriedFrom): Promise<{ actor: Actor; signedIn: SignedIn }> {
    const district = await this.accounts.district();
    const { actor, passwordHash } = await this.transactions.run(async (queries) => {
      const { accountId, email, isFirst, ...account } = await this.linkedOrThrow(queries, token);
      refuseFaulty(password, [account.name, account.username, email, district ?? '']);
      const passwordHash = await hash(normalPassword(password));
      await this.staff.setPassword(queries, accountId, passwordHash, this.clock.now());
      const action = isFirst ? 'choose a first password' : 'choose a new password';
      await this.log.note(queries, account, [{ action, thing: `account ${account.username}`, after: from }]);
      const { personId, username, grants, name } = account;
      return { actor: { personId, username, grants, name }, passwordHash };
    });
    return this.signIns.begin(actor, passwordHash, from);
  }

  /** Changes one's own password; all other sessions of the account end. @throws Refusal too-many-tries, fields-wrong */
  async change(actor: Actor, { current, password }: ChangePasswordRequest, from: TriedFrom): Promise<SignedIn> {
    await this.tries.countOrThrow(actor.username, from);
    const account = await this.accounts.findByUsername(actor.username);
    if (!account?.passwordHash || !(await verify(account.passwordHash, normalPassword(current))))
      throw new Refusal('fields-wrong', {}, [{ field: 'current', detail: 'your present password' }]);
    await this.tries.forgive(actor.username, from);
    refuseFaulty(password, [actor.name, actor.username, (await this.accounts.district()) ?? '']);
    const passwordHash = await hash(normalPassword(password));
    await this.transactions.run(async (queries) => {
      const accountId = await this.staff.idOf(queries, actor.personId);
      await this.staff.setPassword(queries, accountId, passwordHash, this.clock.now());
      await this.log.note(queries, actor, [
        { action: 'change the password', thing: `account ${actor.username}`, after: from },
      ]);
    });
    return this.signIns.signedIn(actor, passwordHash);
  }

  private async linkedOrThrow(queries: Queries, token: string) {
    const account = await this.staff.byLink(queries, sha256(token), this.clock.now());
    if (!account) throw new Refusal('link-gone');
    return account;
  }
}

function refuseFaulty(password: string, known: readonly string[]): void {
  const fault = passwordFault(password, known);
  if (fault) throw new Refusal('fields-wrong', {}, [{ field: 'password', detail: passwordFaultSentences[fault] }]);
}
