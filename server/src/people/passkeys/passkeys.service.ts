import { Injectable } from '@nestjs/common';
import {
  generateAuthenticationOptions,
  generateRegistrationOptions,
  verifyAuthenticationResponse,
  verifyRegistrationResponse,
  type AuthenticatorTransport,
} from '@simplewebauthn/server';
import type {
  AddPasskeyRequest,
  NewPasskeyOptionsReply,
  PasskeyOptionsReply,
  PasskeyReply,
  SignInByPasskeyRequest,
} from '#contract/people';
import { ChangeLog } from '#server/changes';
import { Clock, Refusal, Transactions, type Actor, type Queries, type SignedIn } from '#server/platform';
import type { Site } from '../site.js';
import { SignInService } from '../sign-in.service.js';
import { SignInTries, type TriedFrom } from '../sign-in-tries.js';
import { PasskeysRepository, type Passkey } from './passkeys.repository.js';

/** More than anybody has devices. */
const mostKeys = 20;

/**
 * Sign-in by keys of people's own devices (Web Authentication, W3C): the device keeps the secret and shows that it has it; here
 * stands what is public of it. Nothing is asked of anybody else over the network.
 */
@Injectable()
export class PasskeysService {
  constructor(
    private readonly transactions: Transactions,
    private readonly passkeys: PasskeysRepository,
    private readonly signIns: SignInService,
    private readonly tries: SignInTries,
    private readonly log: ChangeLog,
    private readonly clock: Clock,
  ) {}

  async of({ personId }: Actor): Promise<PasskeyReply[]> {
    const kept = await this.passkeys.of(this.transactions.reading, personId);
    return kept.map(replyOf);
  }

  /** What the device is asked to make a key by; its challenge is to be kept until it answers. */
  async newOptions({ personId, username, name }: Actor, { host }: Site): Promise<NewPasskeyOptionsReply> {
    const known = await this.passkeys.of(this.transactions.reading, personId);
    return generateRegistrationOptions({
      rpName: 'Wombat',
      rpID: host,
      userID: new TextEncoder().encode(`person-${personId}`),
      userName: username,
      userDisplayName: name,
      attestationType: 'none',
      excludeCredentials: known.map(descriptorOf),
      authenticatorSelection: { residentKey: 'required', userVerification: 'required' },
    });
  }

  /** Keeps a key that a device made for the challenge. @throws Refusal passkey-refused */
  async add(
    actor: Actor,
    { name, response }: AddPasskeyRequest,
    challenge: string,
    site: Site,
    from: TriedFrom,
  ): Promise<PasskeyReply[]> {
    const { registrationInfo } = await verified(() =>
      verifyRegistrationResponse({
        response,
        expectedChallenge: challenge,
        expectedOrigin: site.origin,
        expectedRPID: site.host,
        requireUserVerification: true,
      }),
    );
    const { id, publicKey, counter, transports = [] } = registrationInfo!.credential;
    return this.transactions.run(async (queries) => {
      const known = await this.passkeys.of(queries, actor.personId);
      if (known.length >= mostKeys || known.some(({ credentialId }) => credentialId === id))
        throw new Refusal('passkey-refused');
      const key = {
        credentialId: id,
        publicKey: Buffer.from(publicKey).toString('base64url'),
        counter,
        transports,
        name,
      };
      await this.passkeys.add(queries, actor.personId, key);
      await this.note(queries, actor, 'add a passkey', { ...from, passkey: name });
      return (await this.passkeys.of(queries, actor.personId)).map(replyOf);
    });
  }

  /** @throws Refusal not-found */
  async remove(actor: Actor, id: number, from: TriedFrom): Promise<PasskeyReply[]> {
    return this.transactions.run(async (queries) => {
      const key = (await this.passkeys.of(queries, actor.personId)).find((each) => each.id === id);
      if (!key) throw new Refusal('not-found', { what: 'passkey', id });
      await this.passkeys.remove(queries, id);
      await this.note(queries, actor, 'remove a passkey', { ...from, passkey: key.name });
      return (await this.passkeys.of(queries, actor.personId)).map(replyOf);
    });
  }

  /** What any device is asked by; whose key it has shows only as it answers. @throws Refusal too-many-tries */
  async options({ host }: Site, from: TriedFrom): Promise<PasskeyOptionsReply> {
    await this.tries.countFromOrThrow(from);
    return generateAuthenticationOptions({ rpID: host, userVerification: 'required', allowCredentials: [] });
  }

  /** @throws Refusal passkey-refused, the same for a key that is not known as for one that does not fit */
  async signIn(
    { response }: SignInByPasskeyRequest,
    challenge: string,
    site: Site,
    from: TriedFrom,
  ): Promise<{ actor: Actor; signedIn: SignedIn }> {
    const { owner, passwordHash, name } = await this.transactions.run(async (queries) => {
      const key = typeof response.id === 'string' ? await this.passkeys.byCredential(queries, response.id) : undefined;
      if (!key) throw new Refusal('passkey-refused');
      const { authenticationInfo } = await verified(() =>
        verifyAuthenticationResponse({
          response,
          expectedChallenge: challenge,
          expectedOrigin: site.origin,
          expectedRPID: site.host,
          requireUserVerification: true,
          credential: {
            ...descriptorOf(key),
            publicKey: new Uint8Array(Buffer.from(key.publicKey, 'base64url')),
            counter: key.counter,
          },
        }),
      );
      await this.passkeys.use(queries, key.id, authenticationInfo.newCounter, this.clock.now());
      return key;
    });
    await this.tries.forgiveFrom(from);
    return this.signIns.begin(owner, passwordHash, { ...from, passkey: name });
  }

  private async note(queries: Queries, actor: Actor, action: string, after: TriedFrom): Promise<void> {
    await this.log.note(queries, actor, [{ action, thing: `account ${actor.username}`, after }]);
  }
}

/** What a device answered may be anything: what cannot be verified is no key. */
async function verified<Found extends { readonly verified: boolean }>(verify: () => Promise<Found>): Promise<Found> {
  const found = await verify().catch(() => undefined);
  if (!found?.verified) throw new Refusal('passkey-refused');
  return found;
}

function descriptorOf({ credentialId, transports }: Passkey) {
  return { id: credentialId, transports: transports as AuthenticatorTransport[] };
}

function replyOf({ id, name, madeAt, lastUsedAt }: Passkey): PasskeyReply {
  const instantOf = (at: string) => new Date(at).toISOString();
  return { id, name, madeAt: instantOf(madeAt), lastUsedAt: lastUsedAt === null ? null : instantOf(lastUsedAt) };
}
