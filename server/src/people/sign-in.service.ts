import { Injectable } from '@nestjs/common';
import { hash, verify } from '@node-rs/argon2';
import { Refusal, type Actor } from '#server/platform';
import { AccountsRepository } from './accounts.repository.js';

/** What a password is checked against when there is no such account, so that both take the same time. */
const nobodysHash = hash('no password at all');

@Injectable()
export class SignInService {
  constructor(private readonly accounts: AccountsRepository) {}

  /** @throws Refusal sign-in-failed, the same for an unknown name as for a wrong password */
  async signInOrThrow(username: string, password: string): Promise<Actor> {
    const account = await this.accounts.findByUsername(username.trim().toLowerCase());
    const isRight = await verify(account?.passwordHash ?? (await nobodysHash), password);
    if (!account || !isRight) throw new Refusal('sign-in-failed');
    const { personId, name, role } = account;
    return { personId, username: account.username, name, role };
  }
}
