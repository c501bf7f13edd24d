import { Injectable, type OnApplicationBootstrap } from '@nestjs/common';
import { dayOrThrow, type Day } from '#core/calendar';
import { dayInWords } from '#contract/messages';
import { MailService } from '#server/mail';
import { DistrictZone, Transactions, WorkQueue, type Queries } from '#server/platform';
import { receiptsSubject, receiptsText } from './receipt-text.js';
import { ReceiptsRepository } from './receipts.repository.js';

const jobName = 'tell-of-receipts';
/** Receipts that are told of at a time; the next minute goes on. */
const atOnce = 5000;

/**
 * Once a day is over, writes everybody one message with all that they posted on it and all that was posted on their behalf. A
 * server that was off catches up when it is on again.
 */
@Injectable()
export class ReceiptMessagesService implements OnApplicationBootstrap {
  constructor(
    private readonly transactions: Transactions,
    private readonly receipts: ReceiptsRepository,
    private readonly mail: MailService,
    private readonly queue: WorkQueue,
    private readonly zone: DistrictZone,
  ) {}

  async onApplicationBootstrap(): Promise<void> {
    await this.queue.take(jobName, () => this.tell());
    await this.queue.askEveryMinute(jobName);
  }

  async tell(): Promise<void> {
    const ids = await this.transactions.run(async (queries) => {
      const zone = await this.zone.name(queries);
      const untold = await this.receipts.untoldBefore(queries, await this.zone.today(queries), zone, atOnce);
      const messages = new Map<string, { person: number; day: Day; school: number }>();
      for (const { day, school, people } of untold)
        for (const person of people) messages.set(`${person}/${day}`, { person, day: dayOrThrow(day), school });
      const written: number[] = [];
      for (const message of messages.values()) written.push(...(await this.write(queries, message, zone)));
      await this.receipts.markTold(
        queries,
        untold.map(({ id }) => id),
      );
      return written;
    });
    if (ids.length > 0) await this.mail.putAsFiles(ids);
  }

  private async write(
    queries: Queries,
    { person, day, school }: { readonly person: number; readonly day: Day; readonly school: number },
    zone: string,
  ): Promise<number[]> {
    const to = await this.receipts.recipient(queries, person);
    if (!to || to.address === '') return [];
    const receipts = await this.receipts.ofPerson(queries, person, day, zone);
    const facts = { to: to.name, day: dayInWords(day), receipts, zone };
    const letter = { to, subject: receiptsSubject(facts), text: receiptsText(facts), about: `receipts ${day}` };
    return this.mail.writeIn(queries, { personId: person, name: to.name }, school, [letter]);
  }
}
