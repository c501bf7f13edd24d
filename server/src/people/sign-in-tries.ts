import { Inject, Injectable } from '@nestjs/common';
import { RateLimiterPostgres } from 'rate-limiter-flexible';
import { counted } from '#contract/messages';
import { DATABASE, Refusal, type OpenDatabase } from '#server/platform';

/** Seconds for which a failed try counts. */
const duration = 15 * 60;
/** Failed tries for one name, from wherever; and from one address, which a whole school may stand behind. */
const [mostOfName, mostOfAddress] = [10, 100];

/** Links that were asked for count for an hour: for one name, and from one address. */
const linkDuration = 60 * 60;
const [mostLinksOfName, mostLinksOfAddress] = [3, 30];

/** Where somebody tries to sign in from. */
export interface TriedFrom {
  readonly address: string;
  readonly browser: string;
  /** The name of the passkey that was used in place of a password. */
  readonly passkey?: string;
}

/** Failed tries to sign in. Only they are counted, and in the database, so that all servers beside one another know them. */
@Injectable()
export class SignInTries {
  private readonly ofName: RateLimiterPostgres;
  private readonly ofAddress: RateLimiterPostgres;
  private readonly linksOfName: RateLimiterPostgres;
  private readonly linksOfAddress: RateLimiterPostgres;

  constructor(@Inject(DATABASE) { pool }: OpenDatabase) {
    const kept = { storeClient: pool, tableName: 'sign_in_tries', tableCreated: true, duration } as const;
    this.ofName = new RateLimiterPostgres({ ...kept, keyPrefix: 'name', points: mostOfName });
    this.ofAddress = new RateLimiterPostgres({ ...kept, keyPrefix: 'address', points: mostOfAddress });
    const links = { ...kept, duration: linkDuration } as const;
    this.linksOfName = new RateLimiterPostgres({ ...links, keyPrefix: 'link-name', points: mostLinksOfName });
    this.linksOfAddress = new RateLimiterPostgres({ ...links, keyPrefix: 'link-address', points: mostLinksOfAddress });
  }

  /** Counts a try before it is made, so that many at once count as many. @throws Refusal too-many-tries */
  async countOrThrow(username: string, { address }: TriedFrom): Promise<void> {
    await consumeOrThrow([this.ofName.consume(username), this.ofAddress.consume(address)]);
  }

  /** Counts a try without a name, by a device that knows whose it is. @throws Refusal too-many-tries */
  async countFromOrThrow({ address }: TriedFrom): Promise<void> {
    await consumeOrThrow([this.ofAddress.consume(address)]);
  }

  /** Counts that a link was asked for, whether there is such an account or not. @throws Refusal too-many-tries */
  async countLinkOrThrow(name: string, { address }: TriedFrom): Promise<void> {
    await consumeOrThrow([this.linksOfName.consume(name), this.linksOfAddress.consume(address)]);
  }

  async forgiveFrom({ address }: TriedFrom): Promise<void> {
    await this.ofAddress.reward(address);
  }

  /** What succeeded was no failed try. */
  async forgive(username: string, { address }: TriedFrom): Promise<void> {
    await this.ofName.delete(username);
    await this.ofAddress.reward(address);
  }
}

async function consumeOrThrow(consuming: readonly Promise<unknown>[]): Promise<void> {
  const tried = await Promise.allSettled(consuming);
  const waits = tried.filter((each) => each.status === 'rejected').map((each) => millisecondsOrThrow(each.reason));
  if (waits.length === 0) return;
  throw new Refusal('too-many-tries', {
    wait: counted(Math.max(1, Math.ceil(Math.max(...waits) / 60_000)), 'minute'),
  });
}

/** How long one is to wait, as the limiter says; it throws that as it throws what goes wrong. */
function millisecondsOrThrow(reason: unknown): number {
  if (reason instanceof Error) throw reason;
  return (reason as { msBeforeNext: number }).msBeforeNext;
}
