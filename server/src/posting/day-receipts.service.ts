import { Injectable } from '@nestjs/common';
import { dayOrThrow } from '#core/calendar';
import type { DayReceiptsReply } from '#contract/posting';
import { DistrictZone, Transactions, type Actor } from '#server/platform';
import { ReceiptsRepository } from './receipts.repository.js';

/** What somebody posted on a day, and what was posted for them, in one. */
@Injectable()
export class DayReceiptsService {
  constructor(
    private readonly transactions: Transactions,
    private readonly receipts: ReceiptsRepository,
    private readonly zone: DistrictZone,
  ) {}

  /** @param day today, in the district's time zone, where it is absent */
  ofDay(actor: Actor, day: string | undefined): Promise<DayReceiptsReply> {
    return this.transactions.snapshot(async (queries) => {
      const zone = await this.zone.name(queries);
      const asked = day === undefined ? await this.zone.today(queries) : dayOrThrow(day);
      return { day: asked, receipts: await this.receipts.ofPerson(queries, actor.personId, asked, zone) };
    });
  }
}
