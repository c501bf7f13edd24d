import { Injectable, type OnApplicationShutdown } from '@nestjs/common';
import { DistrictZone, Transactions } from '#server/platform';
import type { KeptImport } from './exchange-imports.repository.js';
import { HeldRowsRepository } from './held-rows.repository.js';
import type { PlanSummary, ZipFacts } from './plan-in-thread.js';
import { PlanThread } from './plan-thread.js';
import { RosterFieldsRepository } from './roster-fields.repository.js';

/** A zip that was read, and the thread that holds it. */
export interface OpenZip {
  readonly thread: PlanThread;
  readonly facts: ZipFacts;
}

export interface PlannedZip extends OpenZip {
  readonly summary: PlanSummary;
  /** Ids of the sessions that were sealed when it was planned. */
  readonly sealed: ReadonlySet<string>;
  readonly lineItemIds: readonly string[];
}

/** How long a zip that was looked at is kept at hand, in milliseconds. */
const idleMilliseconds = 10 * 60 * 1000;

/** Zips compared with what is here; the one that was looked at last is kept at hand. */
@Injectable()
export class ExchangePlans implements OnApplicationShutdown {
  private atHand:
    | { readonly id: number; readonly zip: OpenZip | PlannedZip; readonly idle: NodeJS.Timeout }
    | undefined;
  private last: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly transactions: Transactions,
    private readonly held: HeldRowsRepository,
    private readonly rosterFields: RosterFieldsRepository,
    private readonly zone: DistrictZone,
  ) {}

  async onApplicationShutdown(): Promise<void> {
    await this.letGo();
  }

  /**
   * Reads a zip and has it at hand from then on.
   * @param add keeps it, and says under which number
   * @throws Refusal as `readZipOrThrow`, and whatever `add` refuses
   */
  async read(bytes: Buffer, name: string, add: (facts: ZipFacts) => Promise<number>): Promise<number> {
    const zip = await PlanThread.open(bytes, name);
    try {
      const id = await add(zip.facts);
      await this.oneByOne(async () => {
        await this.drop();
        this.take(id, zip);
      });
      return id;
    } catch (error) {
      await zip.thread.close();
      throw error;
    }
  }

  /** As it is now; kept at hand for whoever looks at its rows. */
  show(kept: KeptImport): Promise<PlannedZip> {
    return this.oneByOne(async () => {
      if (this.atHand?.id !== kept.id || this.atHand.zip.thread.hasEnded) await this.drop();
      const planned = await this.plan(kept, this.atHand?.zip);
      this.take(kept.id, planned);
      return planned;
    });
  }

  /** The plan that was shown last of the zip, or a new one. */
  async shownOf(kept: KeptImport): Promise<PlannedZip> {
    const shown = await this.oneByOne(async () =>
      this.atHand?.id === kept.id && !this.atHand.zip.thread.hasEnded ? this.atHand.zip : undefined,
    );
    return isPlanned(shown) ? shown : this.show(kept);
  }

  /** Ends the thread of the zip that is at hand. */
  letGo(): Promise<void> {
    return this.oneByOne(() => this.drop());
  }

  /** Compares a zip with what is here, in a thread of its own or in the one that has read it already. */
  async plan({ bytes, fileName }: KeptImport, open?: OpenZip): Promise<PlannedZip> {
    const zip = open ?? (await PlanThread.open(bytes!, fileName));
    try {
      return await this.compare(zip);
    } catch (error) {
      await zip.thread.close();
      throw error;
    }
  }

  private async compare({ thread, facts }: OpenZip): Promise<PlannedZip> {
    const queries = this.transactions.reading;
    const lineItemIds = [
      ...new Set([
        ...facts.lineItemIds,
        ...(await this.rosterFields.lineItemsOf(queries, facts.resultIds)),
        // our own ids of results begin with the line item's
        ...facts.resultIds.map((id) => id.slice(0, Math.max(0, id.lastIndexOf('/')))),
      ]),
    ];
    await thread.ask('beginAnew');
    await thread.hand('takeHere', this.held.stretches(queries, facts.manifest.version, lineItemIds));
    const sealed = await this.held.sealedSessions(queries);
    const [merged, today] = [await this.held.mergedIds(queries), await this.zone.today(queries)];
    return {
      thread,
      facts,
      summary: await thread.ask('decide', { sealed, merged, today }),
      sealed,
      lineItemIds,
    };
  }

  private take(id: number, zip: OpenZip): void {
    clearTimeout(this.atHand?.idle);
    this.atHand = { id, zip, idle: setTimeout(() => void this.letGo(), idleMilliseconds).unref() };
  }

  private async drop(): Promise<void> {
    clearTimeout(this.atHand?.idle);
    const thread = this.atHand?.zip.thread;
    this.atHand = undefined;
    await thread?.close();
  }

  /** One after the other: two plans in one thread would take each other's rows. */
  private oneByOne<Value>(work: () => Promise<Value>): Promise<Value> {
    const done = this.last.then(work, work);
    this.last = done.catch(() => undefined);
    return done;
  }
}

function isPlanned(zip: OpenZip | PlannedZip | undefined): zip is PlannedZip {
  return zip !== undefined && 'summary' in zip;
}
