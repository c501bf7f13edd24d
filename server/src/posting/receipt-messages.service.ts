import { Injectable, type OnApplicationBootstrap } from '@nestjs/common';
import { sql } from 'drizzle-orm';
import { dayOrThrow, type Day } from '#core/calendar';
import { MailService } from '#server/mail';
import { DistrictZone, intArray, spokenNameOf, Transactions, WorkQueue, type Queries } from '#server/platform';
import { receiptsSubject, receiptsText } from './receipt-text.js';
import { ReceiptsRepository } from './receipts.repository.js';

const jobName = 'tell-of-receipts';
/** Receipts that are told of at a time; the next minute goes on. */
const atOnce = 5000;

interface Untold extends Record<string, unknown> {
  readonly id: number;
  readonly day: string;
  readonly school: number;
  readonly people: number[];
}

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
      const untold = await this.untold(queries, zone);
      const messages = new Map<string, { person: number; day: Day; school: number }>();
      for (const { day, school, people } of untold)
        for (const person of people) messages.set(`${person}/${day}`, { person, day: dayOrThrow(day), school });
      const written: number[] = [];
      for (const message of messages.values()) written.push(...(await this.write(queries, message, zone)));
      await queries.execute(
        sql`UPDATE receipts SET is_told = true WHERE id = ANY(${intArray(untold.map(({ id }) => id))})`,
      );
      return written;
    });
    if (ids.length > 0) await this.mail.putAsFiles(ids);
  }

  /** Of days that are over; nobody else tells of them meanwhile. */
  private async untold(queries: Queries, zone: string): Promise<Untold[]> {
    const today = await this.zone.today(queries);
    const { rows } = await queries.execute<Untold>(sql`
      SELECT r.id, (r.saved_at AT TIME ZONE ${zone})::date::text AS day, c.school_id AS school,
        array_remove(ARRAY[r.saved_by, r.on_behalf_of], NULL) AS people
      FROM receipts r JOIN sections s ON s.id = r.section_id JOIN courses c ON c.id = s.course_id
      WHERE NOT r.is_told AND (r.saved_at AT TIME ZONE ${zone})::date < ${today}
      ORDER BY r.id LIMIT ${atOnce} FOR UPDATE OF r SKIP LOCKED`);
    return rows;
  }

  private async write(
    queries: Queries,
    { person, day, school }: { readonly person: number; readonly day: Day; readonly school: number },
    zone: string,
  ): Promise<number[]> {
    const { rows } = await queries.execute<{ name: string; address: string }>(sql`
      SELECT ${spokenNameOf('p')} AS name, p.email AS address FROM people p WHERE p.id = ${person}`);
    const [to] = rows;
    if (!to || to.address === '') return [];
    const receipts = await this.receipts.ofPerson(queries, person, day, zone);
    const shown = new Intl.DateTimeFormat('en-GB', { dateStyle: 'full', timeZone: 'UTC' });
    const facts = { to: to.name, day: shown.format(new Date(`${day}T00:00:00Z`)).replace(',', ''), receipts, zone };
    const letter = { to, subject: receiptsSubject(facts), text: receiptsText(facts), about: `receipts ${day}` };
    return this.mail.writeIn(queries, { personId: person, name: to.name }, school, [letter]);
  }
}
