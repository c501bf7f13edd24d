import { Injectable, Logger, type OnApplicationBootstrap } from '@nestjs/common';
import { isNightlyDue, type Day } from '#core/calendar';
import { PeriodsRepository, type SchoolPeriod } from '#server/calendar';
import { PlatformsRepository, type KeptPlatform, type NightlyPlan } from '#server/platforms';
import { Clock, DistrictZone, Refusal, Transactions, WorkQueue } from '#server/platform';
import { RunsService } from './runs.service.js';

const jobName = 'look-after-runs';

/** Once a minute: begins the nightly runs that are due. A laptop that slept through the night catches up when it wakes. */
@Injectable()
export class NightlyRunsService implements OnApplicationBootstrap {
  private readonly logger = new Logger(NightlyRunsService.name);

  constructor(
    private readonly transactions: Transactions,
    private readonly platforms: PlatformsRepository,
    private readonly periods: PeriodsRepository,
    private readonly runs: RunsService,
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
    const now = await this.zone.localTime(queries, this.clock.now());
    for (const { platform, nightly, lastBegan, setBy } of await this.platforms.nightly(queries)) {
      const last = await this.zone.localTime(queries, lastBegan);
      if (!isNightlyDue(nightly.at, last, now)) continue;
      const period = await this.periodOf(platform.schoolId, now.day);
      if (period) await this.begin(platform, nightly, period.id, { personId: nightly.setBy, name: setBy });
    }
  }

  /** The innermost period that the day lies in; none in the holidays. */
  private async periodOf(schoolId: number, day: Day): Promise<SchoolPeriod | undefined> {
    const all = await this.periods.ofSchool(this.transactions.reading, schoolId);
    const outer = new Set(all.map(({ parentId }) => parentId));
    return all.find((period) => !outer.has(period.id) && period.startsOn <= day && day <= period.endsOn);
  }

  private async begin(
    { id, name }: KeptPlatform,
    { mode, carriesWork, carriesTotals }: NightlyPlan,
    periodId: number,
    actor: { readonly personId: number; readonly name: string },
  ): Promise<void> {
    try {
      await this.runs.plan(actor, { platformId: id, periodId, mode, carriesWork, carriesTotals }, true);
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      this.logger.warn(`the nightly run of ${name} did not begin: ${error.code}`);
    }
  }
}
