import { Injectable, type OnApplicationBootstrap } from '@nestjs/common';
import { isNightlyDue } from '#core/calendar';
import { Clock, DistrictZone, Transactions, WorkQueue } from '#server/platform';
import { AuditTasksService } from './audit-tasks.service.js';
import { NightlyAuditsRepository } from './nightly-audits.repository.js';

const jobName = 'look-after-audits';

/** Once a minute: begins the audits that are due by night. A laptop that slept through the night catches up when it wakes. */
@Injectable()
export class NightlyAuditsService implements OnApplicationBootstrap {
  constructor(
    private readonly transactions: Transactions,
    private readonly nightly: NightlyAuditsRepository,
    private readonly audits: AuditTasksService,
    private readonly queue: WorkQueue,
    private readonly zone: DistrictZone,
    private readonly clock: Clock,
  ) {}

  async onApplicationBootstrap(): Promise<void> {
    await this.queue.take(jobName, () => this.lookAfter());
    await this.queue.askEveryMinute(jobName);
  }

  async lookAfter(): Promise<void> {
    const queries = this.transactions.reading;
    const instant = this.clock.now();
    const now = await this.zone.localTime(queries, instant);
    for (const { periodId, at, setBy, last } of await this.nightly.waiting(queries, instant))
      if (isNightlyDue(at, await this.zone.localTime(queries, last), now))
        await this.audits.start({ personId: setBy }, periodId);
  }
}
