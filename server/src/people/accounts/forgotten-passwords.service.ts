import { setTimeout as wait } from 'node:timers/promises';
import { Injectable } from '@nestjs/common';
import { ChangeLog } from '#server/changes';
import { MailService } from '#server/mail';
import { Clock, Transactions, type Letter } from '#server/platform';
import { SignInTries, type TriedFrom } from '../sign-in-tries.js';
import { linkLetter } from './link-letter.js';
import { OwnAddress } from './own-address.js';
import { StaffAccountsRepository, type AskedAccount } from './staff-accounts.repository.js';

/** Nobody learns from how long an answer takes whether there is an account. */
const longestWork = 500;

/** New passwords that people ask for themselves, by a message to the address that the school has of them. */
@Injectable()
export class ForgottenPasswords {
  constructor(
    private readonly transactions: Transactions,
    private readonly accounts: StaffAccountsRepository,
    private readonly mail: MailService,
    private readonly tries: SignInTries,
    private readonly log: ChangeLog,
    private readonly clock: Clock,
    private readonly address: OwnAddress,
  ) {}

  /**
   * Writes a message with a link for each active account of that sign-in name or address; the answer is the same where there is
   * none, and where nobody knows where Wombat is (`OwnAddress`). @param asked where who asks says that it is
   * @throws Refusal too-many-tries
   */
  async ask(typed: string, asked: string, from: TriedFrom): Promise<void> {
    const name = typed.trim().toLowerCase();
    await this.tries.countLinkOrThrow(name, from);
    await Promise.all([this.send(name, asked, from), wait(longestWork)]);
  }

  private async send(name: string, asked: string, from: TriedFrom): Promise<void> {
    const origin = await this.address.of(this.transactions.reading, asked);
    if (origin === undefined) return;
    const { accounts, tokens } = await this.transactions.run(async (queries) => {
      const accounts = await this.accounts.byNameOrAddress(queries, name);
      for (const account of accounts)
        await this.log.note(queries, account, [
          { action: 'ask for a new password', thing: `account ${account.username}`, after: from },
        ]);
      const personIds = accounts.map(({ personId }) => personId);
      return { accounts, tokens: await this.accounts.giveLinks(queries, personIds, this.clock.now()) };
    });
    for (const account of accounts)
      await this.mail.write(account, account.schoolId, [
        letterTo(account, `${origin}/welcome/${tokens.get(account.personId)}`),
      ]);
  }
}

function letterTo({ name, email, username, isFirst }: AskedAccount, link: string): Letter {
  return linkLetter({ name, address: email, username, isFirst, link });
}
